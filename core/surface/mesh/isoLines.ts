import type { Vec } from '../../measure/vector';
import type { Mesh, Vec3 } from './mesh';

/**
 * A place on a side of a triangle: at the share `t` (0 … 1) from one vertex to another. The same on
 * the panel and in the flat.
 */
export type OnSide = { a: number; b: number; t: number };

/**
 * A line over a panel from side to side of its triangles, closed where it comes back to where it
 * began.
 */
export type SideLine = { places: OnSide[]; closed: boolean };

/**
 * The lines on which figures given at vertices have the value `level` (marching triangles), joined
 * from triangle to triangle; those that end at the rim come first.
 */
export function isoLines(triangles: Uint32Array, values: Float64Array, level: number): SideLine[] {
  const count = values.length;
  // Each crossing stands on a side, named by its two ends; a triangle that is crossed joins two of
  // them.
  const joined = new Map<number, number[]>();
  const places = new Map<number, OnSide>();
  for (let i = 0; i < triangles.length; i += 3) {
    const ends: number[] = [];
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[i + k]!, triangles[i + ((k + 1) % 3)]!];
      if (values[a]! > level === values[b]! > level) continue;
      const name = Math.min(a, b) * count + Math.max(a, b);
      ends.push(name);
      if (!places.has(name))
        places.set(name, { a, b, t: (level - values[a]!) / (values[b]! - values[a]!) });
    }
    const [one, other] = ends;
    if (one === undefined || other === undefined) continue;
    joined.set(one, [...(joined.get(one) ?? []), other]);
    joined.set(other, [...(joined.get(other) ?? []), one]);
  }
  const walked = new Set<number>();
  const walk = (start: number): OnSide[] => {
    const line: OnSide[] = [];
    for (
      let at: number | undefined = start;
      at !== undefined;
      at = joined.get(at)!.find((next) => !walked.has(next))
    ) {
      walked.add(at);
      line.push(places.get(at)!);
    }
    return line;
  };
  const open = [...joined].filter(([, next]) => next.length === 1).map(([name]) => name);
  const found: SideLine[] = [];
  for (const name of open) if (!walked.has(name)) found.push({ places: walk(name), closed: false });
  for (const name of joined.keys())
    if (!walked.has(name)) found.push({ places: walk(name), closed: true });
  return found;
}

/** Places on sides, in the flat. */
export const inFlat = (places: readonly OnSide[], flat: Float64Array): Vec[] =>
  places.map(({ a, b, t }) => [
    flat[2 * a]! + (flat[2 * b]! - flat[2 * a]!) * t,
    flat[2 * a + 1]! + (flat[2 * b + 1]! - flat[2 * a + 1]!) * t,
  ]);

/** The same on the panel. */
export const onPanel = (places: readonly OnSide[], { vertices }: Mesh): Vec3[] =>
  places.map(({ a, b, t }) => {
    const at = (axis: number): number =>
      vertices[3 * a + axis]! + (vertices[3 * b + axis]! - vertices[3 * a + axis]!) * t;
    return [at(0), at(1), at(2)];
  });
