import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { outlineOf } from '#core/card/outline';
import { box } from '#core/measure/path';
import { CardPicture } from '../drawing/CardPicture';
import { Drawing } from '../drawing/Drawing';
import { usePreferences } from '../frame/preferences';
import { changesOfCard, changesOfPlan } from './documents/changes';
import { usePiece } from './pieceContext';

/**
 * Two pages changed the same card: both versions side by side, and the choice. Neither is lost;
 * both stay in the history.
 */
export default function Conflict() {
  const { patternEditor, planEditor } = usePiece();
  const { show } = usePreferences();
  if (!patternEditor.theirs && planEditor.theirs) return <PlanConflict />;
  const { theirs, doc: pattern } = patternEditor;
  if (!theirs) return null;
  const versions = [
    { title: 'Yours, on this page', doc: pattern, keep: 'mine' as const, button: 'Keep mine' },
    {
      title: 'The other, saved first',
      doc: theirs.doc,
      keep: 'theirs' as const,
      button: 'Take the other',
    },
  ];
  return (
    <Box
      sx={{
        p: 2,
        flex: 1,
        minHeight: 0,
        display: 'flex',
        flexDirection: 'column',
        gap: 1.5,
        overflow: 'auto',
      }}
    >
      <Box>
        <Typography variant="h2">This card was changed on another page too</Typography>
        <Typography>
          Nothing was overwritten. Look at both, then choose; the one you leave stays in the history
          and can be reached with undo.
        </Typography>
      </Box>
      <Box component="ul" sx={{ m: 0, pl: 3 }}>
        {changesOfCard(pattern, theirs.doc, show)
          .slice(0, 6)
          .map((line) => (
            <li key={line}>{line}</li>
          ))}
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '1fr 1fr' },
          gap: 2,
          flex: 1,
          minHeight: 320,
        }}
      >
        {versions.map(({ title, doc, keep, button }) => (
          <Box
            key={keep}
            component="section"
            aria-label={title}
            sx={{
              display: 'flex',
              flexDirection: 'column',
              border: '1.5px solid var(--rule)',
              minHeight: 300,
            }}
          >
            <Box
              sx={{ display: 'flex', alignItems: 'center', gap: 1, p: 1, bgcolor: 'var(--panel)' }}
            >
              <Typography variant="h3" sx={{ flex: 1 }}>
                {title}
              </Typography>
              <Button
                variant={keep === 'mine' ? 'contained' : 'outlined'}
                onClick={() => patternEditor.settle(keep)}
              >
                {button}
              </Button>
            </Box>
            <Box sx={{ position: 'relative', flex: 1 }}>
              <Drawing bounds={box(outlineOf(doc).path)} ground="card" label={title}>
                <CardPicture pattern={doc} pick={null} />
              </Drawing>
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** Two pages changed the same plan: what differs, and the choice. */
function PlanConflict() {
  const { planEditor, pattern } = usePiece();
  const { theirs, doc } = planEditor;
  if (!theirs) return null;
  return (
    <Box sx={{ p: 2, maxWidth: 720 }}>
      <Typography variant="h2">
        What edges meet and how they are welded was changed on another page too
      </Typography>
      <Typography sx={{ my: 1 }}>
        Nothing was overwritten. From yours to the other; the one you leave can be reached with
        undo.
      </Typography>
      <Box component="ul" sx={{ m: 0, mb: 2, pl: 3 }}>
        {changesOfPlan(doc, theirs.doc, pattern)
          .slice(0, 8)
          .map((line) => (
            <li key={line}>{line}</li>
          ))}
      </Box>
      <Button variant="contained" onClick={() => planEditor.settle('mine')} sx={{ mr: 1 }}>
        Keep mine
      </Button>
      <Button variant="outlined" onClick={() => planEditor.settle('theirs')}>
        Take the other
      </Button>
    </Box>
  );
}
