import type { FitRecord } from '#core/format/job';

/**
 * Readings that wait in the browser until the server has them: through a lost network, a closed
 * page, a reload.
 */

type EdgeRecord = FitRecord['edges'][number];

export type Kept = {
  record: EdgeRecord;
  /** What they were made from, as the server has it; null where it had none. */
  since: EdgeRecord | null;
  /**
   * Why the server would not take them as they are: not sent again until somebody has said what is
   * to be done.
   */
  told?: string;
  /** What another page has read there meanwhile, where that is why. */
  there?: EdgeRecord;
};

const keyOf = (fit: string, edge: string) => `patrone:fit:${fit}:${edge}`;
const put = (fit: string, kept: Kept): void =>
  localStorage.setItem(keyOf(fit, kept.record.edge), JSON.stringify(kept));

/**
 * Keeps what was read, made from `before`; what already waits was made from something earlier, and
 * goes on from that.
 */
export function keep(fit: string, record: EdgeRecord, before: EdgeRecord | null): void {
  const waiting = keptReadings(fit, record.edge);
  // A quarrel with another page stays until it is settled; what was refused for itself is tried as
  // it is now.
  const quarrel = waiting?.there && { told: waiting.told, there: waiting.there };
  put(fit, { record, since: waiting ? waiting.since : before, ...quarrel });
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
  if (!waiting) return;
  if (JSON.stringify(waiting.record) === JSON.stringify(sent))
    localStorage.removeItem(keyOf(fit, sent.edge));
  else put(fit, { record: waiting.record, since: sent });
}

/** The server would not take them: why, and what is there instead. */
export function refused(fit: string, edge: string, told: string, there?: EdgeRecord): void {
  const waiting = keptReadings(fit, edge);
  if (waiting) put(fit, { ...waiting, told, there });
}

/** Of readings that another page has read differently, one's own are to stand. */
export function keepMine(fit: string, edge: string): void {
  const waiting = keptReadings(fit, edge);
  if (waiting?.there) put(fit, { record: waiting.record, since: waiting.there });
}

export const forget = (fit: string, edge: string): void =>
  localStorage.removeItem(keyOf(fit, edge));

export function keptReadings(fit: string, edge: string): Kept | null {
  // Written by this page's own code; the server checks it again before it is stored. An older
  // program kept the record alone, and an older one still said neither which way the card lay nor
  // that its target was its own.
  const found = JSON.parse(localStorage.getItem(keyOf(fit, edge)) ?? 'null') as
    Kept | EdgeRecord | null;
  if (!found) return null;
  const kept = 'record' in found ? found : { record: found, since: null };
  return {
    ...kept,
    record: { ...kept.record, turned: kept.record.turned ?? false, own: kept.record.own ?? true },
  };
}

/** Everything that waits to be sent of the given trials. */
export const toBeSent = (fits: readonly { id: string }[]): (Kept & { fit: string })[] =>
  fits.flatMap(({ id }) =>
    Object.keys(localStorage)
      .filter((key) => key.startsWith(keyOf(id, '')))
      .flatMap((key) => {
        const kept = keptReadings(id, key.slice(keyOf(id, '').length));
        return kept && !kept.told ? [{ fit: id, ...kept }] : [];
      }),
  );

/** Along how many edges of these trials readings wait. */
export const edgesWaiting = (fits: readonly string[]): number =>
  Object.keys(localStorage).filter((key) => fits.some((fit) => key.startsWith(keyOf(fit, ''))))
    .length;
