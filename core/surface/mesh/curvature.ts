import type { Disc } from './disc';
import type { Vec3 } from './mesh';
import { cross3, dot3, length3, sub3, triangleCount, vertexAt, vertexCount } from './mesh';

/**
 * Where the curvature of a panel sits, radians: inside it at each vertex, along its rim as turning;
 * the sums are both. `onRim` estimates which part of the turning is Gaussian curvature of the metal
 * that belongs to the rim's vertices, `uOnRim` its standard uncertainty: of a coarse net that is
 * much, and goes to 0 as the net gets finer.
 */
export type Curvature = {
  at: Float64Array;
  inside: number;
  rim: number;
  onRim: number;
  uOnRim: number;
};

/**
 * The integral of Gaussian curvature over a panel as what the angles round each vertex lack of a
 * whole turn, and the turning along its rim as what they lack of half a turn. Together they are one
 * turn (Gauss–Bonnet).
 */
export function curvatureOf(disc: Disc): Curvature {
  const { mesh, rim } = disc;
  const at = new Float64Array(vertexCount(mesh)).fill(2 * Math.PI);
  for (const v of rim) at[v] = Math.PI;
  for (let t = 0; t < triangleCount(mesh); t++)
    for (let k = 0; k < 3; k++) {
      const v = mesh.triangles[3 * t + k]!;
      const p = vertexAt(mesh, v);
      const a = sub3(vertexAt(mesh, mesh.triangles[3 * t + ((k + 1) % 3)]!), p);
      const b = sub3(vertexAt(mesh, mesh.triangles[3 * t + ((k + 2) % 3)]!), p);
      at[v]! -= Math.acos(Math.min(1, Math.max(-1, dot3(a, b) / (length3(a) * length3(b)))));
    }
  let along = 0;
  for (const v of rim) along += at[v]!;
  const inside = at.reduce((sum, x) => sum + x, 0) - along;
  return { at, inside, rim: along, ...curvatureOnRim(disc, at, inside) };
}

/**
 * The curvature of the metal that belongs to rim vertices (a third of each triangle), taken to be as
 * curved for its area as the ring of vertices next to it. How well that does is tried one ring
 * farther in, where the answer is known; where there is no such ring nothing is known but its size.
 */
function curvatureOnRim(
  { mesh, rim }: Disc,
  at: Float64Array,
  inside: number,
): { onRim: number; uOnRim: number } {
  const { triangles } = mesh;
  const area = new Float64Array(vertexCount(mesh));
  for (let t = 0; t < triangleCount(mesh); t++) {
    const [p, q, r] = [0, 1, 2].map((k) => vertexAt(mesh, triangles[3 * t + k]!)) as [
      Vec3,
      Vec3,
      Vec3,
    ];
    const own = length3(cross3(sub3(q, p), sub3(r, p))) / 6;
    for (let k = 0; k < 3; k++) area[triangles[3 * t + k]!]! += own;
  }
  // Rings counted inward: 0 the rim, 1 and 2 its next neighbours, 3 all else.
  const ring = new Uint8Array(vertexCount(mesh)).fill(3);
  for (const v of rim) ring[v] = 0;
  for (const next of [1, 2])
    for (let t = 0; t < triangles.length; t += 3) {
      const corners = triangles.subarray(t, t + 3);
      if (corners.some((v) => ring[v] === next - 1))
        for (const v of corners) if (ring[v]! > next) ring[v] = next;
    }
  const of = (which: number) => {
    let [curved, mm2] = [0, 0];
    ring.forEach((one, v) => {
      if (one === which) [curved, mm2] = [curved + (which === 0 ? 0 : at[v]!), mm2 + area[v]!];
    });
    return { curved, mm2 };
  };
  const [edge, first, second] = [of(0), of(1), of(2)];
  if (first.mm2 === 0) return { onRim: 0, uOnRim: Math.PI };
  const onRim = (edge.mm2 * first.curved) / first.mm2;
  if (second.mm2 === 0) return { onRim, uOnRim: Math.abs(onRim) };
  const tried = (first.mm2 * second.curved) / second.mm2;
  // What facets leave out goes with the square of their size, and the rim's share with the size.
  const facets = onRim ** 2 / Math.max(Math.abs(inside + onRim), Number.MIN_VALUE);
  return {
    onRim,
    uOnRim: Math.hypot((Math.abs(tried - first.curved) * edge.mm2) / first.mm2, facets),
  };
}
