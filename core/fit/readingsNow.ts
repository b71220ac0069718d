import type { PatternDoc } from '../card/pattern';
import { edgeOfRecord } from '../card/recordPlace';
import type { Reading } from './gapCondition';

/**
 * What was read along an edge, at its places on the card as it is now: a card that was turned over
 * since has the starts and ends of its edges changed about. Readings stay with their places; those
 * of an edge that is no more come back as they were.
 */
export function readingsNow<R extends { edge: string; turned: boolean; stations: Reading[] }>(
  doc: PatternDoc,
  record: R,
): R {
  const found = record.turned === doc.turned ? null : edgeOfRecord(doc, record);
  if (found?.edge.id !== record.edge) return record;
  const stations = record.stations.map((s) => ({ ...s, atMm: found.along(s.atMm) ?? s.atMm }));
  return { ...record, turned: doc.turned, stations: stations.sort((a, b) => a.atMm - b.atMm) };
}
