import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { readIn } from '#core/survey/moved';
import type { Round, Surveyed } from '#core/survey/references';
import { pairsOf } from '#core/survey/sides';
import { usePreferences } from '../frame/preferences';
import { changeSaid, readingSaid } from '../frame/measuredWords';
import { useSurvey } from './useSurvey';

/**
 * Measures that have their like on the other side, side by side, as they were read in the last
 * round that has both.
 */
export function LeftRight() {
  const { points, measures, rounds } = useSurvey();
  const { show } = usePreferences();
  const pairs = pairsOf(points, measures);
  if (pairs.length === 0) return null;
  const latest = (measure: { id: string }): { round: Surveyed<Round>; value: number } | null => {
    const round = [...rounds].reverse().find((one) => readIn(one, measure) !== null);
    return round ? { round, value: readIn(round, measure)! } : null;
  };
  const cell = { p: 1, borderBottom: '1px solid var(--rule)', textAlign: 'right' } as const;
  return (
    <Box component="section" aria-label="Left and right" sx={{ mt: 3.5 }}>
      <Typography variant="h2">Left and right</Typography>
      <Typography sx={{ mb: 1, color: 'var(--pencil)' }}>
        Sides have to be right in themselves: a difference between them is no fault, only something
        to know.
      </Typography>
      <Box sx={{ overflowX: 'auto' }}>
        <Box component="table" sx={{ borderCollapse: 'collapse', width: '100%', maxWidth: 860 }}>
          <thead>
            <tr>
              {['Measure', 'Left', 'Right', 'Right is'].map((head, i) => (
                <Box
                  component="th"
                  scope="col"
                  key={head}
                  sx={{
                    ...cell,
                    textAlign: i === 0 ? 'left' : 'right',
                    fontWeight: 500,
                    color: 'var(--pencil)',
                  }}
                >
                  {head}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {pairs.map(({ left, right }) => {
              const both = [...rounds]
                .reverse()
                .find((one) => readIn(one, left) !== null && readIn(one, right) !== null);
              const [a, b] = both
                ? [left, right].map((of) => ({ round: both, value: readIn(both, of)! }))
                : [latest(left), latest(right)];
              return (
                <tr key={left.id}>
                  <Box
                    component="th"
                    scope="row"
                    sx={{ ...cell, textAlign: 'left', fontWeight: 400 }}
                  >
                    {right.name}
                  </Box>
                  {[[left, a] as const, [right, b] as const].map(([measure, read]) => (
                    <Box component="td" key={measure.id} sx={cell}>
                      <span className="figure">
                        {read ? readingSaid(measure, read.value, show) : '–'}
                      </span>
                      <Box sx={{ color: 'var(--pencil)', fontSize: '0.85rem' }}>
                        {read ? read.round.name : 'not read'}
                      </Box>
                    </Box>
                  ))}
                  <Box component="td" className="figure" sx={cell}>
                    {a && b ? changeSaid(right, b.value - a.value, show) : '–'}
                  </Box>
                </tr>
              );
            })}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}
