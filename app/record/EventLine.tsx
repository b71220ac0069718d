import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { edgeOfRecord } from '#core/card/recordPlace';
import { edgeFit } from '#core/fit/gapRemedy';
import { weldOf } from '#core/weld/planned';
import { asTheClockStood, formatTime } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { HELD_WORDS, INSPECTION_WORDS, settingsSaid, workSaid } from '../frame/recordWords';
import { PROCESS_WORDS, conditionSentence } from '../frame/words';
import { PiecePictures } from '../piece/PiecePictures';
import { LAID_ON_WORDS, VERDICT_WORDS, cutDownWorkSaid, faultSaid } from '../piece/cutDownWords';
import { usePiece } from '../piece/pieceContext';
import { stepSaid } from '../piece/stepWords';
import type { Fit } from '../records/records.server';
import type { Weld } from '../records/records.server';
import type { Event } from './story';
import { durationSaid, edgesRead } from './story';

/** One thing that was done, as the record tells it: when, what, by whom, and what was seen. */
export function EventLine({ event }: { event: Event }) {
  const { pattern } = usePiece();
  const { show } = usePreferences();
  const letter = (edge: string) =>
    edgeOfRecord(pattern, { edge, turned: pattern.turned })?.edge.letter ?? '–';
  switch (event.kind) {
    case 'cut-out':
      return (
        <Line at={event.at} what="The old metal was cut out">
          {event.note}
        </Line>
      );
    case 'back':
      return <Line at={event.at} what="The cut-out place was measured again" />;
    case 'received': {
      const { laidOn, verdict, note } = event.received;
      return (
        <Line
          at={event.at}
          what={`Received: ${verdict ? VERDICT_WORDS[verdict].toLowerCase() : 'not decided yet'}`}
        >
          {`Laid ${LAID_ON_WORDS[laidOn].toLowerCase()}. `}
          {note}
        </Line>
      );
    }
    case 'fault': {
      const { fault } = event;
      return (
        <Line at={event.at} what={`Put right: ${faultSaid(fault, pattern, show)}`}>
          {[fault.note, fault.how, fault.hours !== null && `${fault.hours} h`]
            .filter(Boolean)
            .join(' · ')}
        </Line>
      );
    }
    case 'cut-down':
      return (
        <Line at={event.at} what={cutDownWorkSaid(event.work, pattern, show)}>
          {event.work.note}
        </Line>
      );
    case 'step':
      return <Step event={event} />;
    case 'trial':
      return <Trial at={event.at} number={event.number} fit={event.fit} />;
    case 'trial-back':
      return (
        <Line
          at={event.at}
          what="A trial fit, taken back"
          back={event.fit.withdrawn?.why}
          who={event.fit.who}
        />
      );
    case 'weld': {
      const { weld } = event;
      return (
        <Line
          at={event.at}
          letter={letter(weld.edge)}
          what={`${PROCESS_WORDS[weld.process]}: ${workSaid(weld)}`}
          who={weld.who}
          back={weld.withdrawn?.why}
          pictures={{ owner: 'weld', of: weld.id }}
        >
          <Settings weld={weld} />
          {weld.note}
        </Line>
      );
    }
    case 'inspection': {
      const { inspection: seen } = event;
      return (
        <Line
          at={event.at}
          letter={letter(seen.edge)}
          what={`${seen.sound ? '✓' : '✗'} ${INSPECTION_WORDS[seen.kind]}`}
          alert={!seen.sound && seen.remedy.trim() === '' && !seen.withdrawn}
          who={seen.who}
          back={seen.withdrawn?.why}
          pictures={{ owner: 'inspection', of: seen.id }}
        >
          <Reading mm={seen.readingMm} />
          {seen.sound ? 'Sound. ' : 'Not sound. '}
          {seen.finding}
          {seen.remedy.trim() !== '' && <div>Then: {seen.remedy}</div>}
          {!seen.sound && seen.remedy.trim() === '' && !seen.withdrawn && (
            <b> Still to put right.</b>
          )}
        </Line>
      );
    }
    case 'picture':
      return (
        <Shown
          event={event}
          letter={event.picture.owner === 'edge' ? letter(event.picture.of) : undefined}
        />
      );
  }
}

function Line(given: {
  at: string;
  what: string;
  letter?: string;
  who?: string;
  /** Why it was taken back, where it was. */
  back?: string;
  alert?: boolean;
  pictures?: { owner: 'fit' | 'weld' | 'inspection'; of: string };
  /** Of a camera's clock, whose zone nobody knows. */
  clock?: boolean;
  children?: ReactNode;
}) {
  const { at, what, letter, who, back, alert, pictures, clock, children } = given;
  const { dates } = usePreferences();
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: '62px 1fr',
        columnGap: 1.2,
        breakInside: 'avoid',
      }}
    >
      <Box
        component="time"
        dateTime={at}
        className="figure"
        sx={{ color: 'var(--pencil)', fontSize: '0.9rem', pt: 0.25 }}
      >
        {formatTime(at, clock ? asTheClockStood(dates) : dates)}
      </Box>
      <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>
        <Box
          sx={{
            display: 'flex',
            gap: 0.8,
            alignItems: 'baseline',
            flexWrap: 'wrap',
            color: alert ? 'var(--torch)' : 'inherit',
          }}
        >
          {letter && (
            <b className="condensed" style={{ fontSize: '1.15rem' }}>
              {letter}
            </b>
          )}
          <b>{back === undefined ? what : <s>{what}</s>}</b>
          {who && (
            <Box component="span" sx={{ color: 'var(--pencil)' }}>
              {who}
            </Box>
          )}
        </Box>
        {children && <div>{children}</div>}
        {back !== undefined && <Box sx={{ color: 'var(--pencil)' }}>Taken back: {back}</Box>}
        {pictures && <PiecePictures {...pictures} title={`Pictures of ${what}`} small still />}
      </Box>
    </Box>
  );
}

function Trial({ at, number, fit }: { at: string; number: number; fit: Fit }) {
  const { pattern, plan, facts } = usePiece();
  const { show } = usePreferences();
  const read = fit.edges.flatMap((record) => {
    const edge = pattern.edges.find(({ id }) => id === record.edge);
    if (!edge || !record.stations.some(({ gapMm }) => gapMm !== null)) return [];
    const process = weldOf(plan, edge, facts.thicknessMm)?.process ?? null;
    return [
      {
        edge,
        lie: edgeFit(record, edge.joint, process, facts.thicknessMm),
      },
    ];
  });
  return (
    <Line
      at={at}
      what={`Trial fit ${number}, held by: ${HELD_WORDS[fit.held].toLowerCase()}`}
      who={fit.who}
      pictures={{ owner: 'fit', of: fit.id }}
    >
      {fit.notes}
      {edgesRead(fit) === 0 && <div>No gap was read.</div>}
      {read.map(({ edge, lie }) => (
        <div key={edge.id}>
          <b className="condensed">{edge.letter}</b> {conditionSentence(lie, show)}
        </div>
      ))}
    </Line>
  );
}

function Step({ event }: { event: Extract<Event, { kind: 'step' }> }) {
  const { steps, shaping, pattern } = usePiece();
  const { show, showThin } = usePreferences();
  const step = steps.find(({ key }) => key === event.key);
  const own = shaping.own.find(({ key }) => key === event.key);
  // A step of a card that has changed since is no longer in the order; that it was done stays true.
  const what = step
    ? stepSaid(step, pattern, { show, showThin }).title
    : (own?.text ?? 'A step of shaping that is no longer in the order');
  const { count, seconds, note } = event.work;
  return (
    <Line at={event.at} what={what}>
      {[count > 0 && `${count} counted`, seconds > 0 && durationSaid(seconds), note]
        .filter(Boolean)
        .join(' · ')}
    </Line>
  );
}

function Shown({
  event,
  letter,
}: {
  event: Extract<Event, { kind: 'picture' }>;
  letter: string | undefined;
}) {
  const { picture } = event;
  return (
    <Line
      at={event.at}
      clock={picture.taken !== null}
      letter={letter}
      what={picture.caption || 'A picture'}
    >
      <Box
        component="a"
        href={`/pictures/${picture.id}/large`}
        target="_blank"
        rel="noreferrer"
        aria-label={`Picture: ${picture.caption || picture.name}`}
        sx={{ display: 'block', maxWidth: 360, mt: 0.5 }}
      >
        <Box
          component="img"
          src={`/pictures/${picture.id}/small`}
          alt=""
          sx={{ display: 'block', width: '100%', border: '1.5px solid var(--rule)' }}
        />
      </Box>
    </Line>
  );
}

function Settings({ weld }: { weld: Weld }) {
  const { showThin } = usePreferences();
  const said = settingsSaid(weld.settings, showThin);
  return said ? <div className="figure">{said}</div> : null;
}

function Reading({ mm }: { mm: number | null }) {
  const { showThin } = usePreferences();
  return mm === null ? null : <span className="figure">{showThin(mm)}. </span>;
}
