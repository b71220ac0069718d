import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { edgeLength, outlineOf } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { box } from '#core/measure/path';
import { usePiece } from '../shell/pieceContext';
import { usePreferences } from '../shell/preferences';
import { CardPicture } from './CardPicture';
import { Drawing } from './Drawing';

/** What differs between two versions of a card, in words. */
function differences(mine: PatternDoc, theirs: PatternDoc, show: (mm: number) => string): string[] {
  const said: string[] = [];
  const count = (what: string, a: number, b: number) =>
    a !== b && said.push(`${what}: ${a} in yours, ${b} in the other`);
  count('Corners', mine.corners.length, theirs.corners.length);
  count('Folds', mine.folds.length, theirs.folds.length);
  count('Holes', mine.holes.length, theirs.holes.length);
  for (const edge of mine.edges) {
    const other = theirs.edges.find((e) => e.id === edge.id);
    if (!other) continue;
    const [a, b] = [edgeLength(mine, edge), edgeLength(theirs, other)];
    if (Math.abs(a - b) > 0.005) said.push(`Edge ${edge.letter}: ${show(a)} in yours, ${show(b)} in the other`);
    if (JSON.stringify([edge.joint, edge.meets]) !== JSON.stringify([other.joint, other.meets]))
      said.push(`Edge ${edge.letter} is joined differently`);
  }
  mine.folds.forEach((fold, i) => {
    const other = theirs.folds.find((f) => f.id === fold.id);
    if (other && JSON.stringify(other) !== JSON.stringify(fold))
      said.push(`Fold ${i + 1}: ${fold.angleDeg}° in yours, ${other.angleDeg}° in the other`);
  });
  return said.length > 0 ? said : ['Only small moves of corners or holes'];
}

/** Two pages changed the same card: both versions side by side, and the choice. Neither is lost; both stay in the history. */
export default function Conflict() {
  const { card } = usePiece();
  const { show } = usePreferences();
  const { theirs, pattern } = card;
  if (!theirs) return null;
  const versions = [
    { title: 'Yours, on this page', doc: pattern, keep: 'mine' as const, button: 'Keep mine' },
    { title: 'The other, saved first', doc: theirs.pattern, keep: 'theirs' as const, button: 'Take the other' },
  ];
  return (
    <Box sx={{ p: 2, flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column', gap: 1.5, overflow: 'auto' }}>
      <Box>
        <Typography variant="h2">This card was changed on another page too</Typography>
        <Typography>
          Nothing was overwritten. Look at both, then choose; the one you leave stays in the history and can be
          reached with undo.
        </Typography>
      </Box>
      <Box component="ul" sx={{ m: 0, pl: 3 }}>
        {differences(pattern, theirs.pattern, show)
          .slice(0, 6)
          .map((line) => (
            <li key={line}>{line}</li>
          ))}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 1fr' }, gap: 2, flex: 1, minHeight: 320 }}>
        {versions.map(({ title, doc, keep, button }) => (
          <Box
            key={keep}
            component="section"
            aria-label={title}
            sx={{ display: 'flex', flexDirection: 'column', border: '1.5px solid var(--rule)', minHeight: 300 }}
          >
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, p: 1, bgcolor: 'var(--panel)' }}>
              <Typography variant="h3" sx={{ flex: 1 }}>
                {title}
              </Typography>
              <Button variant={keep === 'mine' ? 'contained' : 'outlined'} onClick={() => card.settle(keep)}>
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
