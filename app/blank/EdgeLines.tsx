import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { LineRole } from '#core/blank/blank';
import type { Development } from '#core/blank/fold/developed';
import { usePreferences } from '../frame/preferences';
import { usePick } from '../piece/pieceContext';

const ROLE_WORDS: Partial<Record<LineRole, string>> = { turn: 'Bend', step: 'Step', trim: 'Card’s line' };

/** Lines parallel to edges as cut, one a row: where joints and flanges are bent, stepped and trimmed. */
export const edgeLines = ({ edges }: Development) =>
  edges.flatMap(({ id, letter, allowance: { addMm, endAddMm = addMm, lines } }) =>
    lines.map(({ role, outMm, endOutMm = outMm }, i) => ({ key: `${id} ${i}`, edge: id, letter, role, inMm: addMm - outMm, endInMm: endAddMm - endOutMm })),
  ); // prettier-ignore

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
        {lines.map(({ key, edge, letter, role, inMm, endInMm }) => (
          <TableRow key={key} hover onClick={() => setPick({ kind: 'edge', id: edge })} sx={{ cursor: 'pointer' }}>
            <TableCell className="condensed">{letter}</TableCell>
            <TableCell>{ROLE_WORDS[role]}</TableCell>
            <TableCell>
              <b className="figure">{bare(inMm, 2)}</b>
              {Math.abs(inMm - endInMm) > 0.005 && (
                <>
                  {' '}
                  to <b className="figure">{bare(endInMm, 2)}</b> at its end
                </>
              )}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
