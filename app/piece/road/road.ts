import type { StopState } from '../../frame/StopMark';
import type { StopId } from '../../frame/stops';
import { stopsOf, STOPS } from '../../frame/stops';
import { blankStop } from './blank';
import { cardStop } from './card';
import { cutDownStop } from './cutdown';
import { fitStop } from './fit';
import { shapeStop } from './shape';
import { sheetStop } from './sheet';
import type { RoadGiven, Stop } from './stop';
import { surveyStop } from './survey';
import { weldStop } from './weld';

/** Stops that want attention and yet keep nobody from the next: what they say is a warning. */
const LETS_GO_ON: ReadonlySet<StopId> = new Set<StopId>(['survey', 'blank']);

/** The stops on the road of one piece, each as it stands. */
export type Road = Partial<Record<StopId, Stop>>;

/** The stops of a road in their order. */
export const stopsOn = (road: Road): [(typeof STOPS)[number], Stop][] =>
  STOPS.flatMap((entry): [(typeof STOPS)[number], Stop][] => {
    const stop = road[entry.id];
    return stop ? [[entry, stop]] : [];
  });

/** How each stop stands: by what the records of the piece bear, never by a tick. */
const STATES: Record<StopId, (given: RoadGiven) => Stop> = {
  survey: surveyStop,
  cutdown: cutDownStop,
  card: cardStop,
  blank: blankStop,
  sheet: sheetStop,
  shape: shapeStop,
  fit: fitStop,
  weld: weldStop,
};

const SAID: Record<StopState, string> = {
  done: 'done',
  next: 'next',
  attention: 'needs attention',
  ahead: 'ahead',
  unseen: 'not looked at',
  overtaken: 'overtaken',
};

/** A stop and how it stands, for who does not see its mark. */
export const stopSaid = (label: string, { state, note }: Stop): string =>
  `${label}: ${SAID[state]}${note && note.toLowerCase() !== SAID[state] ? `, ${note}` : ''}`;

/**
 * How far a piece has come: computed from what exists, never ticked by hand. Done means that the
 * records bear what the plan asks, for the card as it is now. The first stop ahead is next, unless
 * something before it wants attention.
 */
export function roadOf(given: RoadGiven): Road {
  const stops = stopsOf(given.kind).map(({ id }) => ({ id, stop: STATES[id](given) }));
  const at = stops.findIndex(({ stop }) => stop.state === 'ahead');
  const waits = stops
    .slice(0, Math.max(0, at))
    .some(({ id, stop }) => stop.state === 'attention' && !LETS_GO_ON.has(id));
  return Object.fromEntries(
    stops.map(({ id, stop }, i) => [id, i === at && !waits ? { ...stop, state: 'next' } : stop]),
  );
}
