import { beginSaid, holeSize } from '../frame/markingWords';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { datumOf, fromDatum } from '#core/blank/datum';
import type { Development } from '#core/blank/fold/developed';
import { markingOut } from '#core/blank/markingOut';
import { scribeTable } from '#core/blank/scribe';
import type { Said } from '../frame/markingWords';
import {
  SCRIBE_WORDS,
  holeSaid,
  lineName,
  linesToScribe,
  placeSaid,
  scribeSaid,
} from '../frame/markingWords';
import { usePreferences } from '../frame/preferences';
import { usePick, usePiece } from '../piece/pieceContext';
import { EdgeLines, edgeLines } from './EdgeLines';

/** Maximum number of marked lines in the table; a development has them in tens. */
const MAX_MARKS = 60;

/** What to scribe and from which edge: can be followed with a rule and a square. */
export function ScribeTables({ development }: { development: Development }) {
  const { pattern, shop } = usePiece();
  const { pick, setPick } = usePick();
  const { bare, thin, unit } = usePreferences();
  const table = scribeTable(development);
  const { holes } = table;
  const lines = linesToScribe(table.lines, shop.brakeLine);
  const { marks } = markingOut(development);
  if (
    lines.length === 0 &&
    holes.length === 0 &&
    marks.length === 0 &&
    development.reliefs.length === 0 &&
    edgeLines(development).length === 0
  ) {
    return <Typography>Cut to the outline; there is nothing to scribe.</Typography>;
  }
  const number = (fold: string) => pattern.folds.findIndex((f) => f.id === fold) + 1;
  const datum = datumOf(development);
  return (
    <Box>
      <Typography variant="h2">What to scribe</Typography>
      <Typography variant="body2" sx={{ color: 'var(--pencil)', mb: 1 }}>
        {unit === 'mm' ? 'Millimetres' : 'Inches'}, measured from the edges as cut.
        {(datum.long.letter === null || datum.square.letter === null) && ` ${beginSaid(datum)}`}
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
                <TableCell className="condensed">
                  {line.line === 'brake' ? number(line.fold) : ''}
                </TableCell>
                <TableCell
                  sx={{
                    color: line.line === 'brake' ? 'var(--torch)' : undefined,
                    fontWeight: line.line === 'brake' ? 600 : 400,
                  }}
                >
                  {SCRIBE_WORDS[line.line]}
                </TableCell>
                <TableCell>
                  <Told said={scribeSaid(line, datum, bare)} />
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      <EdgeLines development={development} />
      {marks.length > 0 && (
        <Table size="small" aria-label="Marked lines to scribe" sx={{ mt: 2 }}>
          <TableHead>
            <TableRow>
              <TableCell>Line</TableCell>
              <TableCell>
                Through: from {lineName(datum, 'square')} / from {lineName(datum, 'long')}
              </TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {marks.slice(0, MAX_MARKS).map(({ mark, name, at }, i) => (
              <TableRow key={mark + i}>
                <TableCell>{name || i + 1}</TableCell>
                <TableCell className="figure">
                  {at
                    .map(({ alongMm, outMm }) => `${bare(alongMm, 2)} / ${bare(outMm, 2)}`)
                    .join('; ')}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {marks.length > MAX_MARKS && (
        <Typography>And {marks.length - MAX_MARKS} more: they stand on the print.</Typography>
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
                  {holeSize(hole, bare)}
                </TableCell>
                <TableCell>
                  <Told said={holeSaid(hole, datum, bare)} />
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
                <TableCell>
                  <Told said={placeSaid(fromDatum(datum, relief.centre), datum, bare)} />
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Box>
  );
}

/** Words with their figures set large. */
const Told = ({ said }: { said: Said }) => (
  <>
    {said.map((part, i) =>
      typeof part === 'string' ? (
        part
      ) : (
        <b key={i} className="figure">
          {part.figure}
        </b>
      ),
    )}
  </>
);
