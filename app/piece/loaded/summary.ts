import type { Material } from '../../drawing/Thumbnail';
import type { Silhouette } from '../../drawing/silhouette';
import type { PieceKind } from '#core/format/lists';
import type { Road } from '../road/road';
import type { Stop } from '../road/stop';

/** What lists show of a piece. */
export type Summary = {
  silhouette: Silhouette | null;
  /** Null where the piece cannot be summed up: it shows by its name, and opens. */
  road: Road | null;
  /** What the piece is by now. */
  material: Material;
};

export const NOTHING_KNOWN: Summary = { silhouette: null, road: null, material: 'card' };

/**
 * What the piece is by now: card until the pattern has left the house, blue until it was tried,
 * then steel; what was not made here was steel from the start.
 */
export function materialOf(road: Road, kind: PieceKind): Material {
  const begun = (stop?: Stop) =>
    stop?.state === 'done' || stop?.state === 'attention' || stop?.state === 'overtaken';
  if (kind !== 'made') return 'steel';
  if (begun(road.fit)) return 'steel';
  return begun(road.sheet) ? 'blue' : 'card';
}
