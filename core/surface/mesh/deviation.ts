import type { Mesh, Vec3 } from './mesh';
import {
  along3,
  cornersOf,
  dot3,
  length3,
  sub3,
  triangleCount,
  vertexAt,
  vertexCount,
} from './mesh';

/** Maximum number of places that are looked at; of more, an even selection. */
const LOOKED_AT = 20_000;

/**
 * How far the vertices of one mesh lie off another, mm: at most, and in the root mean square.
 * Triangles are found by cells about as large as they are.
 */
export function deviationOf(places: Mesh, from: Mesh): { worstMm: number; rmsMm: number } {
  const count = triangleCount(from);
  let size = 0;
  for (let t = 0; t < count; t++)
    size += length3(sub3(...(cornersOf(from, t).slice(0, 2) as [Vec3, Vec3]))) / count;
  const cell = Math.max(size, 1e-6);
  const cells = new Map<string, number[]>();
  const at = (x: number): number => Math.floor(x / cell);
  for (let t = 0; t < count; t++) {
    const corners = cornersOf(from, t);
    const [low, high] = [Math.min, Math.max].map((of) =>
      [0, 1, 2].map((k) => at(of(corners[0][k]!, corners[1][k]!, corners[2][k]!))),
    );
    for (let x = low![0]!; x <= high![0]!; x++)
      for (let y = low![1]!; y <= high![1]!; y++)
        for (let z = low![2]!; z <= high![2]!; z++) {
          const key = `${x} ${y} ${z}`;
          const list = cells.get(key);
          if (list) list.push(t);
          else cells.set(key, [t]);
        }
  }
  const step = Math.max(1, Math.floor(vertexCount(places) / LOOKED_AT));
  let [worst, squares, looked] = [0, 0, 0];
  for (let v = 0; v < vertexCount(places); v += step) {
    const p = vertexAt(places, v);
    const off = nearestOff(from, p, cells, at);
    worst = Math.max(worst, off);
    squares += off * off;
    looked++;
  }
  return { worstMm: worst, rmsMm: Math.sqrt(squares / Math.max(1, looked)) };
}

/** Cells are looked through ring by ring, one ring on after the first that has any. */
function nearestOff(
  mesh: Mesh,
  p: Vec3,
  cells: Map<string, number[]>,
  at: (x: number) => number,
): number {
  let least = Infinity;
  let more = 1;
  for (let ring = 0; ring < 40 && more >= 0; ring++) {
    for (let x = -ring; x <= ring; x++)
      for (let y = -ring; y <= ring; y++)
        for (let z = -ring; z <= ring; z++) {
          if (Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) !== ring) continue;
          for (const t of cells.get(`${at(p[0]) + x} ${at(p[1]) + y} ${at(p[2]) + z}`) ?? [])
            least = Math.min(least, offTriangle(p, cornersOf(mesh, t)));
        }
    if (Number.isFinite(least)) more--;
  }
  return least;
}

/** How far a place is from a triangle, mm. */
export const offTriangle = (p: Vec3, corners: readonly [Vec3, Vec3, Vec3]): number =>
  nearestOnTriangle(p, corners).off;

/**
 * The place of a triangle nearest to a point, as shares of its corners, and how far off it is
 * (Ericson, Real-Time Collision Detection, 5.1.5).
 */
export function nearestOnTriangle(
  p: Vec3,
  corners: readonly [Vec3, Vec3, Vec3],
): { shares: Vec3; off: number } {
  const shares = nearestShares(p, corners);
  const [a, b, c] = corners;
  return {
    shares,
    off: length3(
      sub3(p, along3(along3(along3([0, 0, 0], a, shares[0]), b, shares[1]), c, shares[2])),
    ),
  };
}

function nearestShares(p: Vec3, [a, b, c]: readonly [Vec3, Vec3, Vec3]): Vec3 {
  const [ab, ac, ap] = [sub3(b, a), sub3(c, a), sub3(p, a)];
  const [d1, d2] = [dot3(ab, ap), dot3(ac, ap)];
  if (d1 <= 0 && d2 <= 0) return [1, 0, 0];
  const bp = sub3(p, b);
  const [d3, d4] = [dot3(ab, bp), dot3(ac, bp)];
  if (d3 >= 0 && d4 <= d3) return [0, 1, 0];
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return [1 - d1 / (d1 - d3), d1 / (d1 - d3), 0];
  const cp = sub3(p, c);
  const [d5, d6] = [dot3(ab, cp), dot3(ac, cp)];
  if (d6 >= 0 && d5 <= d6) return [0, 0, 1];
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return [1 - d2 / (d2 - d6), 0, d2 / (d2 - d6)];
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const share = (d4 - d3) / (d4 - d3 + (d5 - d6));
    return [0, 1 - share, share];
  }
  const whole = va + vb + vc;
  return [va / whole, vb / whole, vc / whole];
}
