import { holeSize } from '../frame/markingWords';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { Fragment } from 'react';
import type { Blank, BlankHole } from '#core/blank/blank';
import { MAX_CORNERS, markingOut } from '#core/blank/markingOut';
import { beginSaid, lineName } from '../frame/markingWords';
import { usePreferences } from '../frame/preferences';

/**
 * The outline by rule, square and compasses, in working order: every corner from two lines square
 * to each other.
 */
export function MarkingOut({ blank, plugs }: { blank: Blank; plugs: BlankHole[] }) {
  const { bare, show, unit } = usePreferences();
  // Fractions with their rest are long; a place must be read in one line.
  const tight =
    unit === 'mm' ? undefined : { '& td': { fontSize: '0.78rem', whiteSpace: 'nowrap', px: 0.4 } };
  const { datum, corners, arcs, holes, checks } = markingOut(blank, plugs);
  if (corners.length > MAX_CORNERS) {
    return (
      <Typography>
        This outline has {corners.length} corners: too many to mark with a rule. Print it full size
        under Sheet and glue it on, or prick it through.
      </Typography>
    );
  }
  const along = lineName(datum, 'square');
  const out = lineName(datum, 'long');
  const arcFrom = new Map(arcs.map((arc) => [arc.from, arc]));
  return (
    <Box>
      <Typography variant="h2">Mark out the outline</Typography>
      <Typography variant="body2" sx={{ color: 'var(--pencil)', mb: 1 }}>
        {beginSaid(datum)}
      </Typography>
      <Table size="small" aria-label="Corners to mark" sx={tight}>
        <TableHead>
          <TableRow>
            <TableCell>Corner</TableCell>
            <TableCell align="right">From {along}</TableCell>
            <TableCell align="right">From {out}</TableCell>
            <TableCell align="right">To next</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {corners.map(({ number, at, sideToNextMm }) => {
            const arc = arcFrom.get(number);
            return (
              <Fragment key={number}>
                <TableRow>
                  <TableCell className="condensed">{number}</TableCell>
                  <TableCell align="right" className="figure">
                    <b>{bare(at.alongMm, 2)}</b>
                  </TableCell>
                  <TableCell align="right" className="figure">
                    <b>{bare(at.outMm, 2)}</b>
                  </TableCell>
                  <TableCell align="right" className="figure">
                    {arc ? 'arc' : sideToNextMm === null ? 'relief' : bare(sideToNextMm, 2)}
                  </TableCell>
                </TableRow>
                {arc && (
                  <TableRow>
                    <TableCell />
                    <TableCell colSpan={3}>
                      Arc of radius <b className="figure">{bare(arc.radiusMm, 2)}</b>
                      {arc.centre ? (
                        <>
                          : compasses at{' '}
                          <span className="figure">{bare(arc.centre.alongMm, 2)}</span> and{' '}
                          <span className="figure">{bare(arc.centre.outMm, 2)}</span>
                        </>
                      ) : (
                        <>
                          {' '}
                          through{' '}
                          {arc.ordinates.map((p, i) => (
                            <span key={i} className="figure">
                              {i > 0 && '; '}
                              {bare(p.alongMm, 2)} / {bare(p.outMm, 2)}
                            </span>
                          ))}
                        </>
                      )}
                    </TableCell>
                  </TableRow>
                )}
              </Fragment>
            );
          })}
        </TableBody>
      </Table>
      {checks.length > 0 && (
        <Typography sx={{ mt: 1 }}>
          Prove it across:{' '}
          {checks.map(({ from, to, lengthMm }, i) => (
            <span key={i}>
              {i > 0 && ', '}
              {from} to {to} <b className="figure">{show(lengthMm, 2)}</b>
            </span>
          ))}
          .
        </Typography>
      )}
      {holes.length > 0 && (
        <Table size="small" aria-label="Holes and plugs to mark" sx={{ mt: 2, ...tight }}>
          <TableHead>
            <TableRow>
              <TableCell>Hole or plug</TableCell>
              <TableCell align="right">Across</TableCell>
              <TableCell align="right">From {along}</TableCell>
              <TableCell align="right">From {out}</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {holes.slice(0, MAX_CORNERS).map(({ at, ...hole }, i) => (
              <TableRow key={hole.id}>
                <TableCell className="condensed">{i + 1}</TableCell>
                <TableCell align="right" className="figure">
                  {holeSize(hole, bare)}
                </TableCell>
                {[at.alongMm, at.outMm].map((mm, k) => (
                  <TableCell key={k} align="right" className="figure">
                    {bare(mm, 2)}
                  </TableCell>
                ))}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Box>
  );
}
