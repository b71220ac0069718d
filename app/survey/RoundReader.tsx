import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { cut } from '#core/card/cut';
import { inDegrees } from '#core/survey/kinds';
import { changesBetween, hasMoved, readIn } from '#core/survey/moved';
import type { Measure, Reading, Round, Surveyed } from '#core/survey/references';
import { AngleField } from '../forms/AngleField';
import { LengthField } from '../forms/LengthField';
import { useHeldWord } from '../forms/browserStore';
import { useSelfSavedDraft } from '../forms/useSelfSavedDraft';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { Pictures } from '../pictures/Pictures';
import type { Picture } from '../records/pictures.server';
import { RoundList } from './RoundList';
import { changeSaid, readingSaid } from '../frame/measuredWords';
import { useSurvey } from './useSurvey';

type Readings = Record<string, Reading | null>;

/**
 * What is read in a round, as it stands with what waits in this browser: sent by itself, kept while
 * the server is away and when the page is closed. What another page has read meanwhile is told.
 */
function useRoundReadings(round: Surveyed<Round>) {
  const { job, took } = useSurvey();
  const body = useCallback(
    (since: Partial<Readings>, mine: Partial<Readings>) => ({
      intent: 'read',
      id: round.id,
      since,
      mine,
    }),
    [round.id],
  );
  return useSelfSavedDraft<Readings, { survey?: Surveyed[] }>(
    `round ${job} ${round.id}`,
    round.readings,
    `/jobs/${job}/survey`,
    body,
    took,
  );
}

/**
 * What waits of a round whose reader is closed goes up all the same; where it cannot, that is told.
 */
export function RoundSender({ round }: { round: Surveyed<Round> }) {
  const { kept, state, refusal } = useRoundReadings(round);
  const held = useHeldWord();
  if (!kept || (state !== 'failed' && !refusal)) return null;
  return (
    <Box sx={{ mb: 2 }}>
      <Told>
        {refusal
          ? `What was read in “${round.name}” differs from what another page read: open it with “Read” and settle which stands.`
          : `What was read in “${round.name}” is ${held} and goes up when the server answers.`}
      </Told>
    </Box>
  );
}

/**
 * Reading a round with one hand: one figure after another, Enter goes on; what differs from before
 * is shown at once.
 */
export function RoundReader({
  round,
  start,
  onClose,
  pictures,
  tookPictures,
}: {
  round: Surveyed<Round>;
  /** The measure to begin with. */
  start: string | null;
  onClose: () => void;
  /** Pictures of what is surveyed: one can hang beside any reading. */
  pictures: readonly Picture[];
  tookPictures: (pictures: Picture[]) => void;
}) {
  const { measures, rounds } = useSurvey();
  const { draft, set, kept, refusal, state, drop, send } = useRoundReadings(round);
  const held = useHeldWord();
  const [listed, setListed] = useState(false);
  const isOpen = (m: { id: string }) => (draft[m.id]?.value ?? null) === null;
  // Until a figure is read or another measure is gone to, the first that is not read: what waits
  // here is known a moment later.
  const [gone, setGone] = useState<number | null>(
    start === null ? null : measures.findIndex((m) => m.id === start),
  );
  const firstOpen = measures.findIndex(isOpen);
  const at = gone ?? Math.max(0, firstOpen);
  const measure = measures[at];
  const read = measures.filter((m) => (draft[m.id]?.value ?? null) !== null).length;
  const go = (to: number) => setGone(Math.min(measures.length, Math.max(0, to)));
  return (
    <Dialog
      open
      fullScreen
      onClose={onClose}
      aria-label={`Reading: ${round.name}`}
      slotProps={{ paper: { sx: { bgcolor: 'var(--paper)', backgroundImage: 'none' } } }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          px: 2,
          minHeight: 50,
          bgcolor: 'var(--panel)',
          borderBottom: '1.5px solid var(--rule)',
        }}
      >
        <Typography variant="h2" sx={{ flex: 1 }}>
          {round.name}
        </Typography>
        <span className="figure">
          {read}/{measures.length}
        </span>
        <Button size="small" color="inherit" onClick={() => setListed(!listed)}>
          {listed ? 'One by one' : 'As a list'}
        </Button>
        <IconButton aria-label="Done reading" onClick={onClose}>
          <Close />
        </IconButton>
      </Box>
      <LinearProgress
        variant="determinate"
        value={measures.length ? (100 * read) / measures.length : 0}
        aria-label="How many are read"
      />
      <Box sx={{ p: 2, maxWidth: 560, width: '100%', mx: 'auto', display: 'grid', gap: 2 }}>
        {listed ? (
          <RoundList
            round={round}
            readings={draft}
            onRead={(id, reading) => set({ [id]: reading })}
          />
        ) : measure ? (
          <OneReading
            key={measure.id}
            measure={measure}
            reading={draft[measure.id] ?? null}
            first={
              rounds.find((other) => other.id !== round.id && readIn(other, measure) !== null) ??
              null
            }
            round={round}
            onRead={(reading) => {
              setGone(at);
              set({ [measure.id]: reading });
            }}
            onNext={() => go(at + 1)}
          />
        ) : (
          <Box sx={{ py: 3, textAlign: 'center' }}>
            <Typography variant="h1" component="div">
              {read} of {measures.length} read
            </Typography>
            <Typography sx={{ mt: 1 }}>
              {read < measures.length
                ? 'Those that were skipped can be read any time.'
                : 'That is the whole round.'}
            </Typography>
            <Button variant="contained" sx={{ mt: 2 }} onClick={onClose}>
              See what moved
            </Button>
          </Box>
        )}
        {!listed && measure && (
          <ReadingPictures
            round={round.id}
            measure={measure.id}
            all={pictures}
            took={tookPictures}
          />
        )}
        <Box sx={{ display: listed ? 'none' : 'flex', gap: 1 }}>
          <Button
            variant="outlined"
            color="inherit"
            disabled={at === 0}
            onClick={() => go(at - 1)}
            sx={{ flex: 1 }}
          >
            Back
          </Button>
          {measure && (
            <Button variant="outlined" color="inherit" onClick={() => go(at + 1)} sx={{ flex: 1 }}>
              {(draft[measure.id]?.value ?? null) === null ? 'Skip' : 'Next'}
            </Button>
          )}
        </Box>
        {refusal ? (
          <Told>
            {refusal.message}{' '}
            <Button size="small" onClick={() => void send()}>
              Keep what I read
            </Button>
            <Button size="small" color="inherit" onClick={() => drop()}>
              Take what is there
            </Button>
          </Told>
        ) : (
          <Box role="status" sx={{ color: 'var(--pencil)', minHeight: 24 }}>
            {!kept
              ? read > 0
                ? 'All is saved.'
                : ''
              : state === 'failed'
                ? `The server does not answer: what you read is ${held} and goes up later.`
                : 'Saving …'}
          </Box>
        )}
      </Box>
    </Dialog>
  );
}

/** Pictures that hang beside one reading. */
function ReadingPictures(given: {
  round: string;
  measure: string;
  all: readonly Picture[];
  took: (pictures: Picture[]) => void;
}) {
  const { round, measure, all, took } = given;
  const { job } = useSurvey();
  const on = useMemo(
    () => ({ job, piece: null, owner: 'survey' as const, of: `${round}.${measure}` }),
    [job, round, measure],
  );
  return <Pictures on={on} all={all} took={took} title="Pictures beside this reading" small />;
}

function OneReading({
  measure,
  reading,
  first,
  round,
  onRead,
  onNext,
}: {
  measure: Surveyed<Measure>;
  reading: Reading | null;
  first: Surveyed<Round> | null;
  round: Surveyed<Round>;
  onRead: (reading: Reading | null) => void;
  onNext: () => void;
}) {
  const { points } = useSurvey();
  const { show } = usePreferences();
  const [noting, setNoting] = useState((reading?.note ?? '') !== '');
  const box = useRef<HTMLDivElement>(null);
  const value = reading?.value ?? null;
  const note = reading?.note ?? '';
  const as = reading?.as ?? '';
  const say = (next: Partial<Reading>) => {
    const all = { value, note, as, ...next };
    onRead(all.value === null && all.note === '' ? null : all);
  };
  const change =
    first && value !== null
      ? changesBetween([measure], first, {
          ...round,
          readings: { [measure.id]: { value, note, as } },
        })[0]
      : undefined;
  const moved = change && hasMoved(change);
  const ends = [measure.from, measure.to].map((id) => points.find((point) => point.id === id));
  useEffect(() => box.current?.querySelector('input')?.focus(), []);
  return (
    <>
      <Box>
        <Typography variant="h1" component="h2">
          {measure.name}
        </Typography>
        {ends.map(
          (end, i) =>
            end && (
              <Box key={i}>
                {i === 0 ? 'From' : 'to'} <b>{end.name}</b>
                {end.where && <span style={{ color: 'var(--pencil)' }}> · {end.where}</span>}
              </Box>
            ),
        )}
        {measure.where && <Box sx={{ color: 'var(--pencil)' }}>{measure.where}</Box>}
      </Box>
      <Box ref={box}>
        {inDegrees(measure.of) ? (
          <AngleField
            label="Reads"
            angleDeg={value}
            onEnter={onNext}
            min={-90}
            max={90}
            wrong="Degrees, from −90 to 90."
            onChange={(deg) => say({ value: deg, as: '' })}
          />
        ) : (
          <LengthField
            label="Reads"
            big
            mm={value}
            empty="not read yet"
            onChange={(mm, written) => say({ value: mm, as: cut(written ?? '', 40) })}
            onEnter={onNext}
          />
        )}
      </Box>
      {as && <Box sx={{ color: 'var(--pencil)' }}>Written “{as}”</Box>}
      <Box
        aria-live="polite"
        sx={{
          minHeight: 56,
          p: 1,
          bgcolor: moved ? 'var(--torch-ground)' : 'var(--chalk)',
          borderLeft: `5px solid ${moved ? 'var(--torch)' : 'var(--rule)'}`,
        }}
      >
        {!first ? (
          'Not read in any other round.'
        ) : (
          <>
            “{first.name}”{' '}
            <span className="figure">{readingSaid(measure, readIn(first, measure)!, show)}</span>
            {change && (
              <Box>
                <b className="figure">{changeSaid(measure, change.by, show)}</b>{' '}
                {moved
                  ? change.shown
                    ? 'moved: more than the readings can be out'
                    : 'over the tolerance'
                  : 'no more than the readings can be out'}
              </Box>
            )}
          </>
        )}
      </Box>
      {noting ? (
        <TextField
          label="Note"
          value={note}
          multiline
          onChange={(event) => say({ note: cut(event.target.value, 400) })}
        />
      ) : (
        <Button color="inherit" sx={{ justifySelf: 'start' }} onClick={() => setNoting(true)}>
          Add a note
        </Button>
      )}
    </>
  );
}
