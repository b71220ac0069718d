import Box from '@mui/material/Box';
import type { Edge } from '#core/card/pattern';
import { thickSide } from '#core/joint/meetings';
import { cautionsFor } from '#core/weld/caution';
import { weldOf } from '#core/weld/planned';
import { usePreferences } from '../frame/preferences';
import { CAUTION_WORDS } from '../frame/words';
import { usePiece } from '../piece/pieceContext';
import { useAllRecords } from '../piece/useAllRecords';

/** What can hurt or go wrong here: what, why, and whom to ask. */
export function Cautions({ edge }: { edge: Edge }) {
  const { metal, facts, joined } = usePiece();
  const { fit } = useAllRecords();
  const { showThin } = usePreferences();
  const record = fit?.edges.find((e) => e.edge === edge.id);
  const gaps = (record?.stations ?? []).flatMap((s) => (s.gapMm === null ? [] : [s.gapMm]));
  const cautions = cautionsFor(
    edge,
    metal,
    joined.thicknessAt(edge.id),
    joined.structuralAt(edge.id),
    gaps.length > 0 ? Math.max(...gaps) : null,
    weldOf(joined.plan, edge, facts.thicknessMm)?.process ?? null,
  );
  const unlike = thickSide(joined.meetings.get(edge.id), facts.thicknessMm);
  if (cautions.length === 0 && !unlike) return null;
  return (
    <Box
      component="section"
      aria-label="Cautions"
      sx={{
        borderLeft: '6px double var(--torch)',
        pl: 1.4,
        display: 'grid',
        gap: 0.8,
        fontSize: '0.92rem',
        lineHeight: 1.3,
      }}
    >
      {unlike && (
        <div>
          <b>Two thicknesses.</b> {showThin(unlike.thinMm)} meets {showThin(unlike.thickMm)}: hold
          the heat on the thick side, which is{' '}
          {unlike.side === 'this' ? 'this piece' : 'what it meets'}, and let it wash over the thin
          one. Settings here go by the thinner.
        </div>
      )}
      {cautions.map((code) => (
        <div key={code}>
          <b>{CAUTION_WORDS[code].title}.</b> {CAUTION_WORDS[code].text}
        </div>
      ))}
    </Box>
  );
}
