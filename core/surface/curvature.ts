import type { Disc } from './disc';
import { dot3, length3, sub3, triangleCount, vertexAt, vertexCount } from './mesh';

/**
 * Where the curvature of a panel sits, radians: inside it at each vertex, along its rim as turning;
 * the sums are both.
 */
export type Curvature = { at: Float64Array; inside: number; rim: number };

/**
 * The integral of Gaussian curvature over a panel as what the angles round each vertex lack of a
 * whole turn, and the turning along its rim as what they lack of half a turn. Together they are one
 * turn (Gauss–Bonnet).
 */
export function curvatureOf({ mesh, rim }: Disc): Curvature {
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
  return { at, inside: at.reduce((sum, x) => sum + x, 0) - along, rim: along };
}
