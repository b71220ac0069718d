import type { Vec } from '../../measure/vector';
import { nearestOnSegment } from '../../measure/vector';
import { inside } from '../../measure/path';
import { compact, partWith } from './clean';
import type { Mesh, Vec3 } from './mesh';
import { cross3, dot3, sub3, unit3, vertexAt, vertexCount } from './mesh';

/**
 * What of a panel lies within an outline tapped on it: its points are joined straight as they are
 * seen square on, and the panel is cut along those lines, triangle by triangle. Of what is left the
 * part under the outline’s first point stays. Null where the points enclose nothing, or nothing of
 * the panel.
 */
export function cutTo(mesh: Mesh, outline: readonly Vec3[]): Mesh | null {
  if (outline.length < 3) return null;
  // The normal of an outline that is not flat (Newell).
  let normal: Vec3 = [0, 0, 0];
  outline.forEach((p, i) => {
    const c = cross3(sub3(p, outline[0]!), sub3(outline[(i + 1) % outline.length]!, outline[0]!));
    normal = [normal[0] + c[0], normal[1] + c[1], normal[2] + c[2]];
  });
  const n = unit3(normal);
  if (n[0] === 0 && n[1] === 0 && n[2] === 0) return null;
  const e1 = unit3(cross3(n, Math.abs(n[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0]));
  const e2 = cross3(n, e1);
  const seen = (p: Vec3): Vec => [dot3(p, e1), dot3(p, e2)];
  const polygon = outline.map(seen);
  // How far within the outline each vertex is seen, below 0 outside.
  const within = Float64Array.from({ length: vertexCount(mesh) }, (_, v) => {
    const p = seen(vertexAt(mesh, v));
    let least = Infinity;
    for (let i = 0; i < polygon.length; i++)
      least = Math.min(
        least,
        nearestOnSegment(p, polygon[i]!, polygon[(i + 1) % polygon.length]!).distance,
      );
    return inside(p, polygon) ? least : -least;
  });
  const cut = above(mesh, within);
  return cut.triangles.length === 0 ? null : partWith(compact(cut), outline[0]!);
}

/** A vertex nearer to a cut than this share of a side lies on it: no sliver is left beside it. */
const ON_CUT = 0.04;

/**
 * The part of a mesh where figures given at its vertices are above 0: triangles that are crossed
 * are parted. Vertices nearer to the cut than a sliver's height are moved onto it; where the
 * figures are heights along `normal` they are moved there.
 */
export function above(
  { vertices, triangles }: Mesh,
  given: Float64Array,
  normal: Vec3 | null = null,
): Mesh {
  const places = [...vertices];
  const values = Float64Array.from(given);
  const count = values.length;
  let side = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [p, q] = [3 * triangles[i]!, 3 * triangles[i + 1]!];
    side += Math.hypot(
      vertices[p]! - vertices[q]!,
      vertices[p + 1]! - vertices[q + 1]!,
      vertices[p + 2]! - vertices[q + 2]!,
    );
  }
  const near = (ON_CUT * side) / Math.max(1, triangles.length / 3);
  for (let v = 0; v < count; v++) {
    if (Math.abs(values[v]!) > near) continue;
    if (normal) for (let k = 0; k < 3; k++) places[3 * v + k]! -= values[v]! * normal[k]!;
    values[v] = 0;
  }
  const found: number[] = [];
  const known = new Map<number, number>();
  const between = (a: number, b: number): number => {
    const name = Math.min(a, b) * count + Math.max(a, b);
    const had = known.get(name);
    if (had !== undefined) return had;
    const t = values[a]! / (values[a]! - values[b]!);
    const made = places.length / 3;
    for (let k = 0; k < 3; k++)
      places.push(places[3 * a + k]! + (places[3 * b + k]! - places[3 * a + k]!) * t);
    known.set(name, made);
    return made;
  };
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    // What only touches the cut from the other side is left.
    if (!corners.some((v) => values[v]! > 0)) continue;
    const kept: number[] = [];
    corners.forEach((a, k) => {
      const b = corners[(k + 1) % 3]!;
      if (values[a]! >= 0) kept.push(a);
      if (values[a]! * values[b]! < 0) kept.push(between(a, b));
    });
    for (let k = 2; k < kept.length; k++) found.push(kept[0]!, kept[k - 1]!, kept[k]!);
  }
  return { vertices: Float64Array.from(places), triangles: Uint32Array.from(found) };
}
