import Box from '@mui/material/Box';
import type { Edge } from '#core/card/pattern';
import { cautionsFor } from '#core/weld/caution';
import { weldOf } from '#core/weld/planned';
import { CAUTION_WORDS } from '../frame/words';
import { usePiece } from '../piece/pieceContext';

/** What can hurt or go wrong here: what, why, and whom to ask. */
export function Cautions({ edge }: { edge: Edge }) {
  const { metal, facts, fits, plan } = usePiece();
  const record = fits[fits.length - 1]?.edges.find((e) => e.edge === edge.id);
  const gaps = (record?.stations ?? []).flatMap((s) => (s.gapMm === null ? [] : [s.gapMm]));
  const cautions = cautionsFor(
    edge,
    metal,
    facts.thicknessMm,
    facts.structural,
    gaps.length > 0 ? Math.max(...gaps) : null,
    weldOf(plan, edge, facts.thicknessMm)?.process ?? null,
  );
  if (cautions.length === 0) return null;
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
      {cautions.map((code) => (
        <div key={code}>
          <b>{CAUTION_WORDS[code].title}.</b> {CAUTION_WORDS[code].text}
        </div>
      ))}
    </Box>
  );
}
