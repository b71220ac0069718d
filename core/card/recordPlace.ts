import { edgeLength } from './outline';
import type { Edge, PatternDoc } from './pattern';

/**
 * Where a record was made: the id of the edge it names, and whether the card had been turned over
 * by then.
 */
export type RecordedAt = { edge: string; turned: boolean };

/**
 * A record's edge as it is on the card now: the edge itself, or the one that took it in; the letter
 * it was written with; and where a place on it, mm from its start then, lies along that edge now
 * (null where that is not known).
 */
export type FoundEdge = { edge: Edge; letter: string; along: (atMm: number) => number | null };

/**
 * The one look-up of a record's edge: by its id, or by the id of an edge that was made one with it.
 * A card that was turned over since has its starts and ends changed about. Null when the edge is no
 * more.
 */
export function edgeOfRecord(doc: PatternDoc, { edge: id, turned }: RecordedAt): FoundEdge | null {
  const own = doc.edges.find((e) => e.id === id);
  const edge = own ?? doc.edges.find((e) => e.was?.some((old) => old.id === id));
  if (!edge) return null;
  const was = own ? null : edge.was!.find((old) => old.id === id)!;
  const span = was ? was.span : { fromMm: 0, lengthMm: edgeLength(doc, edge) };
  const along = (atMm: number): number | null =>
    span && (turned === doc.turned ? span.fromMm + atMm : span.fromMm + span.lengthMm - atMm);
  return { edge, letter: was?.letter ?? edge.letter, along };
}

/**
 * Whether a record that names an edge is one of `edge` as the card is now: of itself, or of one
 * that was made one with it.
 */
export const isOfEdge = (doc: PatternDoc, named: string, edge: Edge): boolean =>
  edgeOfRecord(doc, { edge: named, turned: doc.turned })?.edge === edge;
