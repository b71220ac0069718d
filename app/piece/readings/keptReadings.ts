import { kept } from '../../forms/browserStore';
import type { EdgeRecord, KeptReading, Quarrel } from './keptReading';
import { disputed, outgoing, readOn, settled, standsOn, taken } from './keptReading';
import type { ReadingClash } from '#core/fit/mergeReadings';

/**
 * Readings that wait in the browser until the server has them: through a lost network, a closed
 * page, a reload.
 */
const START = 'patrone:fit:';
const keyOf = (fit: string, edge: string) => `${START}${fit}:${edge}`;

function put(fit: string, edge: string, waits: KeptReading | null): void {
  if (waits) kept.set(keyOf(fit, edge), JSON.stringify(waits));
  else kept.remove(keyOf(fit, edge));
}

/** Whoever shows quarrels is told when there is another, or one less. */
const watchers = new Set<() => void>();
let quarrelsSeen = 0;
const quarrelled = (): void => {
  quarrelsSeen++;
  for (const tell of watchers) tell();
};
export const quarrelsChange = {
  subscribe(tell: () => void) {
    watchers.add(tell);
    return () => watchers.delete(tell);
  },
  /** Grows each time a quarrel begins or is settled. */
  snapshot: () => quarrelsSeen,
  none: () => 0,
};

/** Keeps what was read, made from `before`. */
export function keep(
  fit: string,
  record: EdgeRecord,
  before: EdgeRecord | null,
  of?: KeptReading['of'],
): void {
  const waiting = keptReadings(fit, record.edge);
  const next = readOn(waiting, record, before);
  put(fit, record.edge, of ? { ...next, of } : next);
  if (waiting?.quarrel) quarrelled();
}

/** When the server last said that it has something, for the page that comes after this one. */
const TAKEN = 'patrone:fit-taken';

/**
 * Whether that was said after this page was asked for: what it was loaded with may be older than
 * what was let go.
 */
export const takenMeanwhile = (): boolean =>
  Number(sessionStorage.getItem(TAKEN) ?? 0) > performance.timeOrigin;

/** What the server has is forgotten; readings made since it was sent stay, and stand on it. */
export function letGo(fit: string, sent: EdgeRecord): void {
  sessionStorage.setItem(TAKEN, String(Date.now()));
  const waiting = keptReadings(fit, sent.edge);
  if (waiting) put(fit, sent.edge, taken(waiting, sent));
}

/** The server would not take them for a reason of their own. */
export function refused(fit: string, edge: string, told: string): void {
  const waiting = keptReadings(fit, edge);
  if (waiting) put(fit, edge, { ...waiting, told });
  quarrelled();
}

/** Another page has read differently: what is not disputed went in. */
export function quarrel(fit: string, sent: EdgeRecord, found: Quarrel): void {
  const waiting = keptReadings(fit, sent.edge);
  if (!waiting) return;
  put(fit, sent.edge, disputed(waiting, sent, found));
  quarrelled();
}

/** Somebody has decided: of one place, or of all (`place` null), one's own stands, or what is there. */
export function settle(
  fit: string,
  edge: string,
  place: Pick<ReadingClash, 'atMm' | 'of'> | null,
  mine: boolean,
): void {
  const waiting = keptReadings(fit, edge);
  if (!waiting) return;
  put(fit, edge, settled(waiting, place, mine));
  quarrelled();
}

export function forget(fit: string, edge: string): void {
  put(fit, edge, null);
  quarrelled();
}

export function keptReadings(fit: string, edge: string): KeptReading | null {
  // Written by this page's own code; the server checks it again before it is stored. An older
  // program kept the record alone, and an older one still said neither which way the card lay nor
  // that its target was its own; of a quarrel it kept what is there (`there`), not what was disputed.
  const found = JSON.parse(kept.get<string>(keyOf(fit, edge)) ?? 'null') as
    (KeptReading & { there?: EdgeRecord }) | EdgeRecord | null;
  if (!found) return null;
  const { there, ...waits } = 'record' in found ? found : { record: found, since: null };
  return {
    ...waits,
    // Asked again: the server says what is disputed.
    ...(there && { told: undefined }),
    record: {
      ...waits.record,
      turned: waits.record.turned ?? false,
      own: waits.record.own ?? true,
    },
  };
}

export type Waiting = KeptReading & { fit: string; edge: string };

/** All that waits of the given trials; of every trial where none are given. */
export const waitingReadings = (fits?: readonly { id: string }[]): Waiting[] =>
  kept.keys(START).flatMap((key) => {
    const [fit, edge] = key.slice(START.length).split(':') as [string, string];
    if (fits && !fits.some(({ id }) => id === fit)) return [];
    const waits = keptReadings(fit, edge);
    return waits ? [{ ...waits, fit, edge }] : [];
  });

/** What is to be sent of the given trials, and what it was made from. */
export const toBeSent = (
  fits: readonly { id: string }[],
): { fit: string; record: EdgeRecord; since: EdgeRecord | null }[] =>
  waitingReadings(fits).flatMap((waits) => {
    const record = outgoing(waits);
    return record ? [{ fit: waits.fit, record, since: standsOn(waits) }] : [];
  });
