import type { Measure, ReferencePlace, Surveyed } from './references';

/** The same measure on both sides of the vehicle. */
export type Pair = { left: Surveyed<Measure>; right: Surveyed<Measure> };

/**
 * Measures that have their like on the other side: said to be partners, or between points that are.
 * Each pair once, the one that stands first on the left: which side of the vehicle it is on is the
 * points' to say.
 */
export function pairsOf(
  points: readonly Surveyed<ReferencePlace>[],
  measures: readonly Surveyed<Measure>[],
): Pair[] {
  const across = new Map<string, string>();
  for (const { id, partner } of points)
    if (partner !== null) {
      if (!across.has(id)) across.set(id, partner);
      if (!across.has(partner)) across.set(partner, id);
    }
  // A point of the middle is its own partner: it has one place on both sides.
  const middle = new Set(
    points.filter(({ id, side }) => side === 'centre' && !across.has(id)).map(({ id }) => id),
  );
  const over = (id: string | null) =>
    id === null ? null : (across.get(id) ?? (middle.has(id) ? id : null));
  const done = new Set<string>();
  return measures.flatMap((measure): Pair[] => {
    if (done.has(measure.id)) return [];
    const [a, b] = [over(measure.from), over(measure.to)];
    const like = measures.find(
      (other) =>
        other.id !== measure.id &&
        !done.has(other.id) &&
        other.of === measure.of &&
        (other.id === measure.partner ||
          other.partner === measure.id ||
          (measure.of === 'distance' &&
            a !== null &&
            b !== null &&
            ((other.from === a && other.to === b) || (other.from === b && other.to === a)))),
    );
    if (!like) return [];
    done.add(measure.id).add(like.id);
    const sideOf = (one: Surveyed<Measure>) =>
      points.filter(({ id }) => id === one.from || id === one.to).map(({ side }) => side);
    const turned = sideOf(measure).includes('right') || sideOf(like).includes('left');
    return [turned ? { left: like, right: measure } : { left: measure, right: like }];
  });
}
