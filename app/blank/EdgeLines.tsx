import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { LineRole } from '#core/blank/blank';
import { addsOf, outsOf } from '#core/blank/blank';
import type { Development } from '#core/blank/fold/developed';
import { rampAt, ramped } from '#core/measure/ramp';
import { runLength } from '#core/measure/run';
import { usePreferences } from '../frame/preferences';
import { usePick } from '../piece/pieceContext';

/** Distances that differ by less are the same, mm. */
const SAME_MM = 0.005;

const ROLE_WORDS: Partial<Record<LineRole, string>> = {
  turn: 'Bend',
  step: 'Step',
  trim: 'Card’s line',
};

/**
 * Lines parallel to edges as cut, one a row: where joints and flanges are bent, stepped and
 * trimmed.
 */
export const edgeLines = ({ edges }: Development) =>
  edges.flatMap(({ id, letter, allowance, net }) => {
    const [adds, long] = [addsOf(allowance), runLength(net)];
    return allowance.lines.map((line, i) => {
      const inMm = ramped(adds, (mm, share) => mm - rampAt(outsOf(line), share));
      // As far in all along though the strip is not as wide: said once.
      const isSame = inMm.every(([, mm]) => Math.abs(mm - inMm[0]![1]) < SAME_MM);
      return {
        key: `${id} ${i}`,
        edge: id,
        letter,
        role: line.role,
        inMm: inMm[0]![1],
        after: isSame
          ? []
          : inMm.slice(1).map(([share, mm]) => ({ alongMm: share * long, inMm: mm })),
      };
    });
  });

export function EdgeLines({ development }: { development: Development }) {
  const { bare } = usePreferences();
  const { setPick } = usePick();
  const lines = edgeLines(development);
  if (lines.length === 0) return null;
  return (
    <Table size="small" aria-label="Lines along edges to scribe" sx={{ mt: 2 }}>
      <TableHead>
        <TableRow>
          <TableCell>Edge</TableCell>
          <TableCell>Line</TableCell>
          <TableCell>In from the cut edge</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {lines.map(({ key, edge, letter, role, inMm, after }) => (
          <TableRow
            key={key}
            hover
            onClick={() => setPick({ kind: 'edge', id: edge })}
            sx={{ cursor: 'pointer' }}
          >
            <TableCell className="condensed">{letter}</TableCell>
            <TableCell>{ROLE_WORDS[role]}</TableCell>
            <TableCell>
              <b className="figure">{bare(inMm, 2)}</b>
              {after.length === 1 && (
                <>
                  {' '}
                  to <b className="figure">{bare(after[0]!.inMm, 2)}</b> at its end
                </>
              )}
              {after.length > 1 &&
                after.map((at) => (
                  <span key={at.alongMm}>
                    ; at {bare(at.alongMm)} along <b className="figure">{bare(at.inMm, 2)}</b>
                  </span>
                ))}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
