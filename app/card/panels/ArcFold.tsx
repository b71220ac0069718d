import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { flangeAlongArc } from '#core/card/arcFold';
import type { Fold } from '#core/card/pattern';
import { widthsOf } from '#core/card/flangeWidths';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { newId } from '../../frame/newId';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { widthsSaid } from '../../frame/widthsSaid';
import { usePick, usePiece } from '../../piece/pieceContext';

/** How far the kept widths may be off the card's rim without a word, mm. */
const TOLD_MM = 0.2;

/**
 * A fold that runs in an arc: the card then ends at it, and what lies beyond becomes the flange of
 * that edge.
 */
export function ArcFold({ fold }: { fold: Fold }) {
  const { patternEditor, pattern } = usePiece();
  const { setPick } = usePick();
  const { show } = usePreferences();
  const [open, setOpen] = useState(false);
  const [riseMm, setRiseMm] = useState<number | null>(null);
  const [bows, setBows] = useState<'out' | 'in'>('out');
  if (!open)
    return (
      <Button variant="outlined" onClick={() => setOpen(true)}>
        It runs in an arc
      </Button>
    );
  const found =
    riseMm === null
      ? null
      : flangeAlongArc(pattern, fold.id, bows === 'out' ? riseMm : -riseMm, newId);
  const edge = found?.ok ? found.doc.edges.find(({ id }) => id === found.edge) : undefined;
  return (
    <Box
      component="section"
      aria-label="The fold runs in an arc"
      sx={{ display: 'grid', gap: 1.5, borderLeft: '5px solid var(--layout)', pl: 1.5 }}
    >
      <Typography variant="h3">It runs in an arc</Typography>
      <LengthField
        label="Rise in its middle"
        mm={riseMm}
        min={0.1}
        digits={2}
        empty="off the straight line"
        onChange={setRiseMm}
      />
      <Choice
        label="It bows"
        value={bows}
        onChange={setBows}
        options={[
          ['out', 'Toward what turns'],
          ['in', 'Away from it'],
        ]}
      />
      {found && !found.ok && (
        <Typography role="alert" sx={{ color: 'var(--torch)' }}>
          {problemSentence(found.problems[0]!, pattern, show)}
        </Typography>
      )}
      {found?.ok && edge?.flange && (
        <>
          <Typography>
            The card will end at the arc. What lies beyond becomes the flange of edge {edge.letter},{' '}
            <b className="figure">{widthsSaid(widthsOf(edge.flange), show)}</b> wide, as it is on
            the card square to the arc
            {found.offMm > TOLD_MM &&
              `; between the places that are kept the rim is up to ${show(found.offMm)} off`}
            . Its ends come square to the arc.
          </Typography>
          <Button
            variant="contained"
            onClick={() => {
              patternEditor.edit(found.doc);
              setPick({ kind: 'edge', id: found.edge });
            }}
          >
            Make it a flange along the arc
          </Button>
        </>
      )}
      <Button color="inherit" onClick={() => setOpen(false)}>
        Leave it straight
      </Button>
    </Box>
  );
}
