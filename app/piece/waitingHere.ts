import { useMemo, useSyncExternalStore } from 'react';
import type { FitRecord, InspectionRecord, WeldRecord } from '#core/format/job';
import { waitingRecords } from '../forms/outbox';
import type { Fit } from '../records/records.server';
import type { Inspection, Weld } from '../records/records.server';

/** What pages send of new records: each under an id of its own. */
type Sent =
  | { intent: 'new'; id: string; fit: FitRecord }
  | { intent: 'weld'; id: string; weld: WeldRecord }
  | { intent: 'inspection'; id: string; inspection: InspectionRecord };

export type WaitingHere = {
  fits: Fit[];
  welds: Weld[];
  inspections: Inspection[];
  ids: ReadonlySet<string>;
};

/**
 * Records of a piece that were written here and wait for the server: they count like those it has.
 */
export function useWaitingHere(piece: string): WaitingHere {
  const all = useSyncExternalStore(
    waitingRecords.subscribe,
    waitingRecords.snapshot,
    waitingRecords.none,
  );
  return useMemo(() => {
    const here = all.filter(({ about }) => about === piece);
    const sentBy = (records: typeof here) => records.map(({ body }) => body as Sent);
    // What was refused counts for nothing until somebody has settled it; but a trial stays to be
    // seen, with what was read at it.
    const sent = sentBy(here.filter(({ refused }) => refused === null));
    return {
      fits: sentBy(here).flatMap((one) =>
        one.intent === 'new' ? [{ id: one.id, ...one.fit }] : [],
      ),
      welds: sent.flatMap((one) => (one.intent === 'weld' ? [{ id: one.id, ...one.weld }] : [])),
      inspections: sent.flatMap((one) =>
        one.intent === 'inspection' ? [{ id: one.id, ...one.inspection }] : [],
      ),
      ids: new Set(sentBy(here).map(({ id }) => id)),
    };
  }, [all, piece]);
}

/** Those the server has, then those that wait and that it has not. */
export const withWaiting = <T extends { id: string }>(there: T[], here: readonly T[]): T[] => {
  if (here.length === 0) return there;
  const known = new Set(there.map(({ id }) => id));
  return [...there, ...here.filter(({ id }) => !known.has(id))];
};
