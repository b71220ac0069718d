import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import Box from '@mui/material/Box';
import type { Development } from '#core/blank/fold/developed';
import type { DatumLine } from '#core/blank/datum';
import { datumOf, fromDatum } from '#core/blank/datum';
import type { ScribeLine } from '#core/blank/scribe';
import { scribeTable } from '#core/blank/scribe';
import { usePick, usePiece } from '../piece/pieceContext';
import { usePreferences } from '../frame/preferences';

const LINES: Record<ScribeLine['line'], string> = { brake: 'Brake line', near: 'Near tangent', far: 'Far tangent' };

/** What to scribe and from which edge: can be followed with a rule and a square. */
export function ScribeTables({ development }: { development: Development }) {
  const { pattern, shop } = usePiece();
  const { pick, setPick } = usePick();
  const { bare, thin, unit } = usePreferences();
  const table = scribeTable(development);
  const { holes } = table;
  // With the bar on the tangent, brake line and near tangent are one line.
  const lines = table.lines.filter((line) => line.line !== 'near' || shop.brakeLine !== 'tangent');
  if (lines.length === 0 && holes.length === 0 && development.reliefs.length === 0) {
    return <Typography>Cut to the outline; there is nothing to scribe.</Typography>;
  }
  const number = (fold: string) => pattern.folds.findIndex((f) => f.id === fold) + 1;
  const datum = datumOf(development);
  const place = ({ alongMm, outMm }: { alongMm: number; outMm: number }) => (
    <>
      <b className="figure">{bare(alongMm, 2)}</b> from {lineName(datum.square, datum.long)},{' '}
      <b className="figure">{bare(outMm, 2)}</b> from {lineName(datum.long, datum.square)}
    </>
  );
  const where = ({ from }: ScribeLine) =>
    from.kind === 'points' ? (
      <>
        from {place(from.ends[0]!)} to {place(from.ends[1]!)}
      </>
    ) : from.kind === 'parallel' ? (
      <>
        <b className="figure">{bare(from.distanceMm, 2)}</b> from edge {from.letter}
      </>
    ) : (
      <>
        from{' '}
        {from.marks.map((mark, i) => (
          <span key={i}>
            {i > 0 && ' to '}
            <b className="figure">{bare(mark.alongMm, 2)}</b> on {mark.letter} from corner {mark.next}/{mark.letter}
          </span>
        ))}
      </>
    );
  return (
    <Box>
      <Typography variant="h2">What to scribe</Typography>
      <Typography variant="body2" sx={{ color: 'var(--pencil)', mb: 1 }}>
        {unit === 'mm' ? 'Millimetres' : 'Inches'}, measured from the edges as cut.
      </Typography>
      {lines.length > 0 && (
        <Table size="small" aria-label="Fold lines to scribe">
          <TableHead>
            <TableRow>
              <TableCell>Fold</TableCell>
              <TableCell>Line</TableCell>
              <TableCell>Scribe it</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {lines.map((line) => (
              <TableRow
                key={line.fold + line.line}
                hover
                selected={pick?.id === line.fold}
                onClick={() => setPick({ kind: 'fold', id: line.fold })}
                sx={{ cursor: 'pointer' }}
              >
                <TableCell className="condensed">{line.line === 'brake' ? number(line.fold) : ''}</TableCell>
                <TableCell
                  sx={{
                    color: line.line === 'brake' ? 'var(--torch)' : undefined,
                    fontWeight: line.line === 'brake' ? 600 : 400,
                  }}
                >
                  {LINES[line.line]}
                </TableCell>
                <TableCell>{where(line)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {holes.length > 0 && (
        <Table size="small" aria-label="Holes to mark" sx={{ mt: 2 }}>
          <TableHead>
            <TableRow>
              <TableCell>Hole</TableCell>
              <TableCell align="right">Across</TableCell>
              <TableCell>Centre</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {holes.map((hole, i) => (
              <TableRow key={hole.hole}>
                <TableCell className="condensed">{i + 1}</TableCell>
                <TableCell align="right" className="figure" sx={{ whiteSpace: 'nowrap' }}>
                  {bare(hole.diameterMm)}
                </TableCell>
                <TableCell>
                  {hole.from.length === 0 && place(hole.datum)}
                  {hole.from.map(({ letter, distanceMm }, k) => (
                    <span key={letter}>
                      {k > 0 && ', '}
                      <b className="figure">{bare(distanceMm, 2)}</b> from {letter}
                    </span>
                  ))}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {development.reliefs.length > 0 && (
        <Table size="small" aria-label="Reliefs to drill" sx={{ mt: 2 }}>
          <TableHead>
            <TableRow>
              <TableCell>Relief</TableCell>
              <TableCell align="right">{shop.relief === 'round' ? 'Drill' : 'Across'}</TableCell>
              <TableCell>Centre</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {development.reliefs.map((relief, i) => (
              <TableRow key={i}>
                <TableCell className="condensed">fold {number(relief.fold)}</TableCell>
                <TableCell align="right" className="figure" sx={{ whiteSpace: 'nowrap' }}>
                  {thin(relief.acrossMm)}
                </TableCell>
                <TableCell>{place(fromDatum(datum, relief.centre))}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Box>
  );
}

/** What a datum line is called: its edge, or the line to scribe first. */
export const lineName = (line: DatumLine, other: DatumLine): string =>
  line.letter ?? (other.letter === null ? 'the line scribed first' : `a line square to ${other.letter}`);
