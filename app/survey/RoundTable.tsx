import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Fragment, useState } from 'react';
import { changesBetween, hasMoved, readIn } from '#core/survey/moved';
import { Moment } from '../frame/Moment';
import { usePreferences } from '../frame/preferences';
import { changeSaid, readingSaid } from '../frame/measuredWords';
import { useSurvey } from './useSurvey';

/**
 * Every measure over the rounds: what was read, and under it by how much it differs from the first
 * that was read of it.
 */
export function RoundTable({
  shown,
  onShow,
  onRead,
  onPick,
}: {
  shown: string | null;
  onShow: (round: string) => void;
  onRead: (round: string, measure?: string) => void;
  onPick: (measure: string) => void;
}) {
  const { measures, rounds: every } = useSurvey();
  const [all, setAll] = useState(false);
  // Of many rounds the first, by which the others are judged, the last ones, and the one in hand.
  const from = every.length - LATEST;
  const rounds = all ? every : every.filter(({ id }, i) => i === 0 || i >= from || id === shown);
  const left = every.length - rounds.length;
  const { show } = usePreferences();
  const cell = {
    p: 1,
    borderBottom: '1px solid var(--rule)',
    textAlign: 'right',
    whiteSpace: 'nowrap',
  } as const;
  return (
    <>
      {(left > 0 || all) && (
        <Button variant="outlined" color="inherit" onClick={() => setAll(!all)} sx={{ mb: 1 }}>
          {all ? 'First and latest rounds' : `All ${every.length} rounds`}
        </Button>
      )}
      <Box sx={{ overflowX: 'auto' }}>
        <Box
          component="table"
          aria-label="Measures over the rounds"
          sx={{ borderCollapse: 'collapse', width: '100%' }}
        >
          <thead>
            <tr>
              <Box
                component="th"
                scope="col"
                sx={{
                  ...cell,
                  textAlign: 'left',
                  position: 'sticky',
                  left: 0,
                  bgcolor: 'var(--paper)',
                }}
              >
                Measure
              </Box>
              {rounds.map(({ id, name, at, readings }) => (
                <Box
                  component="th"
                  scope="col"
                  key={id}
                  sx={{
                    ...cell,
                    verticalAlign: 'bottom',
                    fontWeight: 400,
                    borderBottom: id === shown ? '4px solid var(--torch)' : cell.borderBottom,
                  }}
                >
                  <Button
                    size="small"
                    color="inherit"
                    aria-pressed={id === shown}
                    onClick={() => onShow(id)}
                    sx={{ fontSize: '1.05rem', px: 1 }}
                  >
                    {name}
                  </Button>
                  <Box sx={{ color: 'var(--pencil)', fontSize: '0.85rem', px: 1 }}>
                    <Moment at={at} />
                    <br />
                    <span className="figure">
                      {
                        measures.filter((measure) => (readings[measure.id]?.value ?? null) !== null)
                          .length
                      }
                    </span>{' '}
                    of <span className="figure">{measures.length}</span> read
                  </Box>
                  <Button
                    size="small"
                    variant="outlined"
                    color="inherit"
                    onClick={() => onRead(id)}
                    sx={{ mt: 0.5 }}
                  >
                    Read
                  </Button>
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {measures.map((measure) => {
              const first = every.find((round) => readIn(round, measure) !== null);
              return (
                <tr key={measure.id}>
                  <Box
                    component="th"
                    scope="row"
                    sx={{
                      ...cell,
                      textAlign: 'left',
                      fontWeight: 400,
                      position: 'sticky',
                      left: 0,
                      bgcolor: 'var(--paper)',
                    }}
                  >
                    <Button
                      color="inherit"
                      onClick={() => onPick(measure.id)}
                      sx={{
                        textAlign: 'left',
                        justifyContent: 'flex-start',
                        whiteSpace: 'normal',
                        fontSize: '1.02rem',
                        pl: 0,
                      }}
                    >
                      {measure.name}
                    </Button>
                  </Box>
                  {rounds.map((round) => {
                    const value = readIn(round, measure);
                    const change =
                      first && round !== first
                        ? changesBetween([measure], first, round)[0]
                        : undefined;
                    const moved = change && hasMoved(change);
                    const { note, as } = round.readings[measure.id] ?? {};
                    return (
                      <Box
                        component="td"
                        key={round.id}
                        sx={{ ...cell, p: 0, bgcolor: moved ? 'var(--torch-ground)' : undefined }}
                      >
                        <button
                          type="button"
                          className="in-cell"
                          onClick={() => onRead(round.id, measure.id)}
                        >
                          {value === null ? (
                            <span style={{ color: 'var(--pencil)' }}>–</span>
                          ) : (
                            <Fragment>
                              <span className="figure" title={as ? `written “${as}”` : undefined}>
                                {readingSaid(measure, value, show)}
                              </span>
                              {note ? ' ✎' : ''}
                              {change && (
                                <span className={moved ? 'figure changed moved' : 'figure changed'}>
                                  {moved ? '⚠ moved ' : ''}
                                  {changeSaid(measure, change.by, show)}
                                </span>
                              )}
                            </Fragment>
                          )}
                        </button>
                      </Box>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </Box>
      </Box>
    </>
  );
}

/** The rounds at the end that are shown beside the first. */
const LATEST = 3;
