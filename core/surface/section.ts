import type { Vec } from '../measure/vector';
import type { Mesh, Vec3 } from './mesh';
import { cross3, dot3, sub3, unit3 } from './mesh';

/**
 * Where a plane cuts a panel: places along the cut, on the panel (mm) and as shares of sides of triangles, so that the same
 * line is known in the flat.
 */
export type Section = { places: Vec3[]; sides: { a: number; b: number; t: number }[] };

/** The longest cut of a plane through `point`, square to `normal`; null where it misses the panel. */
export function sectionOf({ vertices, triangles }: Mesh, point: Vec3, normal: Vec3): Section | null {
  const n = unit3(normal);
  const count = vertices.length / 3;
  const at = (v: number): Vec3 => [vertices[3 * v]!, vertices[3 * v + 1]!, vertices[3 * v + 2]!];
  const height = Float64Array.from({ length: count }, (_, v) => dot3(sub3(at(v), point), n));
  const joined = new Map<number, number[]>();
  const sides = new Map<number, Section['sides'][number]>();
  for (let i = 0; i < triangles.length; i += 3) {
    const ends: number[] = [];
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[i + k]!, triangles[i + ((k + 1) % 3)]!];
      if (height[a]! > 0 === height[b]! > 0) continue;
      const name = Math.min(a, b) * count + Math.max(a, b);
      ends.push(name);
      if (!sides.has(name)) sides.set(name, { a, b, t: height[a]! / (height[a]! - height[b]!) });
    }
    if (ends.length !== 2) continue;
    joined.set(ends[0]!, [...(joined.get(ends[0]!) ?? []), ends[1]!]);
    joined.set(ends[1]!, [...(joined.get(ends[1]!) ?? []), ends[0]!]);
  }
  const walked = new Set<number>();
  const lines: number[][] = [];
  const walk = (start: number): void => {
    const line = [start];
    walked.add(start);
    for (let here = start; ;) {
      const next = joined.get(here)!.find((name) => !walked.has(name));
      if (next === undefined) break;
      walked.add(next);
      line.push(next);
      here = next;
    }
    lines.push(line);
  };
  for (const [name, next] of joined) if (next.length === 1 && !walked.has(name)) walk(name);
  for (const name of joined.keys()) if (!walked.has(name)) walk(name);
  const longest = lines.reduce((a, b) => (b.length > a.length ? b : a), [] as number[]);
  if (longest.length < 2) return null;
  const found = longest.map((name) => sides.get(name)!);
  const places = found.map(({ a, b, t }): Vec3 => {
    const [p, q] = [at(a), at(b)];
    return [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t];
  });
  return { places, sides: found };
}

/** The same line in the flat. */
export const inFlat = ({ sides }: Section, flat: Float64Array): Vec[] =>
  sides.map(({ a, b, t }) => [
    flat[2 * a]! + (flat[2 * b]! - flat[2 * a]!) * t,
    flat[2 * a + 1]! + (flat[2 * b + 1]! - flat[2 * a + 1]!) * t,
  ]);

/**
 * A cut as a strip reads it: a straight edge laid over the panel from one end of the cut to the other, stations along it and
 * the drop from its highest line to the metal, mm. Null where the panel leans so far over that one station has two drops.
 * `up` is which way the strip is held off.
 */
export function ordinatesOf({ places }: Section, up: Vec3, normal: Vec3): [number, number][] | null {
  const n = unit3(normal);
  const lifted = unit3(sub3(up, [n[0] * dot3(up, n), n[1] * dot3(up, n), n[2] * dot3(up, n)]));
  const across = cross3(lifted, n);
  const read = places.map((p): [number, number] => [dot3(p, across), dot3(p, lifted)]);
  const line = read[0]![0] <= read[read.length - 1]![0] ? read : [...read].reverse();
  const [first, top] = [line[0]![0], line.reduce((most, [, h]) => Math.max(most, h), -Infinity)];
  if (line.some(([s], i) => i > 0 && s < line[i - 1]![0] - 1e-9)) return null;
  const found = line.map(([s, h]): [number, number] => [s - first, top - h]);
  return found.filter(([s], i) => i === 0 || s > found[i - 1]![0] + 1e-6);
}
