import { FIELD_OF, mergedReadings } from '#core/fit/mergeReadings';
import type { ReadingClash } from '#core/fit/mergeReadings';
import type { FitRecord } from '#core/format/job';

/**
 * Readings of one edge at one trial that wait in a browser, as they go on from what happens to
 * them. Pure: where they are kept is another matter (`keptReadings`).
 */

export type EdgeRecord = FitRecord['edges'][number];

/** What another page has read differently. What is not disputed has gone in all the same. */
export type Quarrel = {
  /** The readings as the server has them. */
  there: EdgeRecord;
  /** The places that both read and not alike. */
  disputed: ReadingClash[];
  /** The two do not mean the same places: it is the one or the other, whole. */
  elsewhere: boolean;
  /** Who read it; empty if not known. */
  by: string;
};

export type KeptReading = {
  record: EdgeRecord;
  /** What they were made from, as the server has it; null where it had none. */
  since: EdgeRecord | null;
  /** Why the server would not take them as they are: not sent again until they change. */
  told?: string;
  quarrel?: Quarrel;
  /** Of which piece: to be named on another page. */
  of?: { piece: string; name: string; letter: string };
};

const alike = (a: EdgeRecord, b: EdgeRecord): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The record with those places as `from` has them. */
function withPlaces(
  record: EdgeRecord,
  places: readonly Pick<ReadingClash, 'atMm' | 'of'>[],
  from: EdgeRecord,
): EdgeRecord {
  const stations = record.stations.map((station, i) => {
    const here = places.filter(({ atMm }) => Math.abs(atMm - station.atMm) < 0.05);
    const fields = here.map(({ of }) => FIELD_OF[of]);
    return {
      ...station,
      ...Object.fromEntries(fields.map((field) => [field, from.stations[i]?.[field] ?? null])),
    };
  });
  return { ...record, stations };
}

/** The change from `before` to `next` made to `record`: of two changes of one place the newer. */
function changed(record: EdgeRecord, before: EdgeRecord | null, next: EdgeRecord): EdgeRecord {
  const { merged, clashes, elsewhere } = mergedReadings(before, next, record);
  return elsewhere ? next : withPlaces(merged, clashes, next);
}

/** Read on, or read anew: `next` was made from `before`. */
export function readOn(
  waiting: KeptReading | null,
  next: EdgeRecord,
  before: EdgeRecord | null,
): KeptReading {
  if (!waiting) return { record: next, since: before };
  const record = changed(waiting.record, before, next);
  const { quarrel, since } = waiting;
  if (!quarrel) return { record, since };
  // Places that were read anew are still disputed, unless both now say the same.
  return settledWhereAlike({ ...waiting, record });
}

/** What goes to the server now: all that is not disputed; null where that is nothing. */
export function outgoing(waiting: KeptReading): EdgeRecord | null {
  const { record, told, quarrel } = waiting;
  if (told !== undefined || quarrel?.elsewhere) return null;
  if (!quarrel) return record;
  const agreed = withPlaces(record, quarrel.disputed, quarrel.there);
  return alike(agreed, quarrel.there) ? null : agreed;
}

/** What `outgoing` was made from. */
export const standsOn = ({ since, quarrel }: KeptReading): EdgeRecord | null =>
  quarrel ? quarrel.there : since;

/** The server has what was sent; null where nothing is left to wait. */
export function taken(waiting: KeptReading, sent: EdgeRecord): KeptReading | null {
  if (alike(waiting.record, sent)) return null;
  const { quarrel } = waiting;
  return { ...waiting, since: sent, ...(quarrel && { quarrel: { ...quarrel, there: sent } }) };
}

/** Another page has read differently: what is disputed waits for somebody to decide. */
export function disputed(waiting: KeptReading, sent: EdgeRecord, found: Quarrel): KeptReading {
  if (found.elsewhere) return { ...waiting, since: found.there, quarrel: found };
  const { merged, clashes } = mergedReadings(sent, waiting.record, found.there);
  const earlier = waiting.quarrel?.disputed ?? [];
  const all = [...earlier, ...found.disputed, ...clashes];
  const places = all.filter(
    (one, i) => all.findIndex((other) => other.of === one.of && other.atMm === one.atMm) === i,
  );
  return settledWhereAlike({
    ...waiting,
    record: withPlaces(merged, places, waiting.record),
    since: found.there,
    quarrel: { ...found, disputed: places },
  });
}

/** The disputed places with their two values as they are now. */
export const disputesOf = ({ record, quarrel }: KeptReading): ReadingClash[] =>
  (quarrel?.disputed ?? []).map((one) => {
    if (quarrel!.elsewhere) return one;
    const i = record.stations.findIndex(({ atMm }) => Math.abs(atMm - one.atMm) < 0.05);
    const field = FIELD_OF[one.of];
    const thereMm = quarrel!.there.stations[i]?.[field] ?? null;
    return { ...one, thereMm, hereMm: record.stations[i]?.[field] ?? null };
  });

/** What both say alike is no quarrel any more; without one left it waits like any other. */
function settledWhereAlike(waiting: KeptReading): KeptReading {
  const { record, quarrel, of } = waiting;
  if (!quarrel || quarrel.elsewhere) return waiting;
  const left = disputesOf(waiting).filter(({ thereMm, hereMm }) => thereMm !== hereMm);
  if (left.length > 0) return { ...waiting, quarrel: { ...quarrel, disputed: left } };
  return { record, since: quarrel.there, ...(of && { of }) };
}

/**
 * Somebody has decided: of one place, or of all of them (`place` null), what was read here stands
 * (`mine`) or what is there. Null where nothing is left to wait.
 */
export function settled(
  waiting: KeptReading,
  place: Pick<ReadingClash, 'atMm' | 'of'> | null,
  mine: boolean,
): KeptReading | null {
  const { record, quarrel, of } = waiting;
  if (!quarrel) return waiting;
  const { there, elsewhere } = quarrel;
  if (elsewhere) return mine ? { record, since: there, ...(of && { of }) } : null;
  const same = (one: ReadingClash) =>
    place === null || (one.of === place.of && one.atMm === place.atMm);
  const decided = quarrel.disputed.filter(same);
  const next = settledWhereAlike({
    ...waiting,
    record: mine ? record : withPlaces(record, decided, there),
    quarrel: { ...quarrel, disputed: quarrel.disputed.filter((one) => !same(one)) },
  });
  return !next.quarrel && alike(next.record, there) ? null : next;
}
