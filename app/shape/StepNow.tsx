import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import type { StepWork } from '#core/shape/shaping';
import { madeAgain, workedSeconds } from '#core/shape/shaping';
import type { ShapeStep } from '#core/shape/shapeStep';
import { cut } from '#core/card/cut';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { COUNT_WORDS, stepSaid } from '../piece/stepWords';
import { useForecast } from './usePace';

type Props = {
  step: ShapeStep;
  place: string;
  now: boolean;
  work: StepWork;
  setWork: (change: Partial<StepWork>) => void;
  /** What the first side took for it, where this one was made from it. */
  first: StepWork | null;
};

export const clock = (seconds: number): string => {
  const whole = Math.floor(seconds);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${Math.floor(whole / 3600)}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}`;
};

/** How long it takes at this shop's pace, where that was ever taken. */
function Forecast({ step }: { step: ShapeStep }) {
  const found = useForecast(step);
  if (!found) return null;
  const minutes = found.seconds / 60;
  const said =
    minutes < 90 ? `${Math.max(1, Math.round(minutes))} min` : `${(minutes / 60).toFixed(1)} h`;
  return (
    <Typography variant="body2">
      At this shop’s pace about <b className="figure">{said}</b> (by{' '}
      {found.readings === 1 ? 'one reading' : `${found.readings} readings`}).
    </Typography>
  );
}

/**
 * The step that is done or looked at, large: what to do, with its figures, its count, its watch.
 */
export function StepNow({ step, place, now, work, setWork, first }: Props) {
  const { pattern } = usePiece();
  const { show, showThin } = usePreferences();
  const { title, how, reason } = stepSaid(step, pattern, { show, showThin });
  return (
    <Box
      role="status"
      aria-label="Now"
      sx={{
        borderLeft: `6px solid ${work.done ? 'var(--good)' : now ? 'var(--torch)' : 'var(--rule)'}`,
        bgcolor: now && !work.done ? 'var(--torch-ground)' : undefined,
        px: 1.6,
        py: 1.2,
        display: 'grid',
        gap: 1,
      }}
    >
      <Typography variant="body2">
        {place}
        {work.done ? ' · done' : now ? ' · now' : ''}
      </Typography>
      <Typography
        className="condensed"
        sx={{ fontSize: '1.6rem', fontWeight: 600, lineHeight: 1.15 }}
      >
        {title}
      </Typography>
      {how && <Typography sx={{ fontSize: '1.08rem' }}>{how}</Typography>}
      {reason && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          Why: {reason}
        </Typography>
      )}
      {step.counts && (
        <Counter key={step.key} step={step} work={work} setWork={setWork} first={first} />
      )}
      <Forecast step={step} />
      <Watch work={work} setWork={setWork} first={first} />
      <TextField
        label="Note"
        value={work.note}
        multiline
        slotProps={{ htmlInput: { maxLength: 1000 } }}
        onChange={(event) => setWork({ note: cut(event.target.value, 1000) })}
        placeholder="What it took, what went wrong, which die …"
      />
      {(work.count > 0 || work.seconds > 0 || work.before.length > 0) && (
        <Box>
          <Button
            color="inherit"
            onClick={() => setWork(madeAgain(work, new Date().toISOString()))}
            disabled={work.count === 0 && work.seconds === 0 && work.since === null}
          >
            Made again: start the count anew
          </Button>
          {work.before.map((one, i) => (
            <Typography key={one.at} variant="body2" sx={{ color: 'var(--pencil)' }}>
              {i === 0 ? 'First' : `Try ${i + 1}`}:{' '}
              {step.counts ? `${one.count} ${COUNT_WORDS[step.counts.of][1]}, ` : ''}
              {clock(one.seconds)}
              {one.note && `, “${one.note}”`}
            </Typography>
          ))}
        </Box>
      )}
    </Box>
  );
}

function Counter({
  step,
  work,
  setWork,
  first,
}: Pick<Props, 'step' | 'work' | 'setWork' | 'first'>) {
  const { of, wanted } = step.counts!;
  const [one, many] = COUNT_WORDS[of];
  const add = (by: number) => setWork({ count: Math.max(0, work.count + by) });
  return (
    <Box sx={{ display: 'grid', gap: 0.8 }}>
      <Typography
        className="figure"
        sx={{ fontSize: '2.1rem', fontWeight: 600, lineHeight: 1 }}
        aria-label={`${work.count} ${many} made`}
      >
        {work.count}
        <Box component="span" sx={{ fontSize: '1.15rem', color: 'var(--pencil)' }}>
          {wanted === null ? ` ${many}` : ` of ${wanted} ${many}`}
        </Box>
      </Typography>
      {first && first.count > 0 && (
        <Typography>
          The first side took {first.count} {first.count === 1 ? one : many}.
        </Typography>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '2fr 1fr 1fr', gap: 1 }}>
        <Button
          variant="contained"
          size="large"
          sx={{ minHeight: 64, fontSize: '1.4rem' }}
          onClick={() => add(1)}
        >
          +1 {one}
        </Button>
        <Button variant="outlined" size="large" sx={{ minHeight: 64 }} onClick={() => add(5)}>
          +5
        </Button>
        <Button
          variant="outlined"
          size="large"
          sx={{ minHeight: 64 }}
          disabled={work.count === 0}
          onClick={() => add(-1)}
        >
          −1
        </Button>
      </Box>
    </Box>
  );
}

/**
 * How long the step took: it runs on while the page is closed, for it is told from when it was
 * started.
 */
function Watch({ work, setWork, first }: Pick<Props, 'work' | 'setWork' | 'first'>) {
  const [time, setTime] = useState(() => Date.now());
  const running = work.since !== null;
  useEffect(() => {
    if (!running) return;
    const tick = setInterval(() => setTime(Date.now()), 1000);
    return () => clearInterval(tick);
  }, [running]);
  const seconds = workedSeconds(work, Math.max(time, work.since ? Date.parse(work.since) : 0));
  const turn = () => {
    const at = Date.now();
    setTime(at);
    setWork(
      running
        ? { seconds: workedSeconds(work, at), since: null }
        : { since: new Date(at).toISOString() },
    );
  };
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
      <Button variant="outlined" size="large" onClick={turn} sx={{ minHeight: 52 }}>
        {running ? 'Stop the watch' : seconds > 0 ? 'Go on' : 'Start the watch'}
      </Button>
      <Typography className="figure" role="timer" sx={{ fontSize: '1.5rem' }}>
        {clock(seconds)}
      </Typography>
      {first && first.seconds > 0 && (
        <Typography variant="body2">First side: {clock(first.seconds)}</Typography>
      )}
    </Box>
  );
}
