import type { Mesh, Vec3 } from './mesh';

/** Least and most places along a side of a grid. */
const [LEAST, MOST] = [2, 2000];

/**
 * A surface of about `triangles` triangles, as a grid of `place(u, v)` over 0 … 1 both ways: u
 * along `longMm`, v along `wideMm`. The outside is where u, v and the normal make a right-handed
 * three. Diagonals go one way and the other in turn.
 */
export function gridMesh(
  triangles: number,
  longMm: number,
  wideMm: number,
  place: (u: number, v: number) => Vec3,
): Mesh {
  const cells = Math.max(1, triangles / 2);
  const fit = (n: number): number => Math.min(MOST, Math.max(LEAST, Math.round(n)));
  const n = fit(Math.sqrt((cells * longMm) / wideMm));
  const m = fit(cells / n);
  const vertices = new Float64Array(3 * (n + 1) * (m + 1));
  for (let j = 0; j <= m; j++)
    for (let i = 0; i <= n; i++) vertices.set(place(i / n, j / m), 3 * (j * (n + 1) + i));
  const found = new Uint32Array(6 * n * m);
  for (let j = 0; j < m; j++)
    for (let i = 0; i < n; i++) {
      const a = j * (n + 1) + i;
      const [b, c, d] = [a + 1, a + n + 2, a + n + 1];
      found.set((i + j) % 2 === 0 ? [a, b, c, a, c, d] : [a, b, d, b, c, d], 6 * (j * n + i));
    }
  return { vertices, triangles: found };
}

/**
 * A round surface of about `triangles` triangles: rings of six more places each round `place(0,
 * 0)`, with `place(r, turn)` for a share r of the way out and a turn in radians, counter-clockwise
 * seen from outside.
 */
export function roundMesh(triangles: number, place: (share: number, turn: number) => Vec3): Mesh {
  const rings = Math.max(2, Math.round(Math.sqrt(triangles / 6)));
  const first = (ring: number): number => (ring === 0 ? 0 : 1 + 3 * ring * (ring - 1));
  const vertices = new Float64Array(3 * first(rings + 1));
  vertices.set(place(0, 0));
  const found: number[] = [];
  for (let ring = 1; ring <= rings; ring++) {
    const count = 6 * ring;
    for (let i = 0; i < count; i++)
      vertices.set(place(ring / rings, (2 * Math.PI * i) / count), 3 * (first(ring) + i));
    const outer = (i: number): number => first(ring) + (i % count);
    const inner = (i: number): number => first(ring - 1) + (ring === 1 ? 0 : i % (count - 6));
    for (let sixth = 0; sixth < 6; sixth++)
      for (let i = 0; i < ring; i++) {
        const [o, n] = [sixth * ring + i, sixth * (ring - 1) + i];
        found.push(outer(o), outer(o + 1), inner(n));
        if (i < ring - 1) found.push(outer(o + 1), inner(n + 1), inner(n));
      }
  }
  return { vertices, triangles: Uint32Array.from(found) };
}
