import type { OnSide } from './isoLines';
import { isoLines, onPanel } from './isoLines';
import type { Mesh, Vec3 } from './mesh';
import { cross3, dot3, sub3, unit3, vertexAt, vertexCount } from './mesh';

/** Where a plane cuts a panel: the line on its sides, and its places on the panel, mm. */
export type Section = { sides: OnSide[]; places: Vec3[] };

/**
 * The longest cut of a plane through `point`, square to `normal`; null where it misses the panel.
 */
export function sectionOf(mesh: Mesh, point: Vec3, normal: Vec3): Section | null {
  const n = unit3(normal);
  const height = Float64Array.from({ length: vertexCount(mesh) }, (_, v) =>
    dot3(sub3(vertexAt(mesh, v), point), n),
  );
  const lines = isoLines(mesh.triangles, height, 0);
  const longest = lines.reduce<OnSide[]>((a, b) => (b.places.length > a.length ? b.places : a), []);
  return longest.length < 2 ? null : { sides: longest, places: onPanel(longest, mesh) };
}

/**
 * A cut as a strip reads it: a straight edge laid over the panel from one end of the cut to the
 * other, stations along it and the drop from its highest line to the metal, mm. Null where the
 * panel leans over and one station has two drops. `up` is which way the strip is held off.
 */
export function ordinatesOf(
  { places }: Section,
  up: Vec3,
  normal: Vec3,
): [number, number][] | null {
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
