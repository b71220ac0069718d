import type { Mesh } from './mesh';

/**
 * A mesh whose vertices within `withinMm` of one another are one, in the order they are first
 * named; `joined` is how many went. Only neighbours of one another are joined: a row of points
 * closer than that does not run together into one, because each is measured from the first of its
 * place.
 */
export function withMergedVertices(
  { vertices, triangles }: Mesh,
  withinMm: number,
): { mesh: Mesh; joined: number } {
  const count = vertices.length / 3;
  const to = new Uint32Array(count);
  const kept = new Float64Array(vertices.length);
  let known = 0;
  // Cells twice as wide as what is joined: a place has its like in its own cell or one of those
  // beside it.
  const cell = withinMm > 0 ? 2 * withinMm : 1;
  const size = 2 ** Math.ceil(Math.log2(Math.max(16, 2 * count)));
  const first = new Int32Array(size).fill(-1);
  const next = new Int32Array(count).fill(-1);
  const slot = (x: number, y: number, z: number): number =>
    ((Math.imul(x | 0, 73856093) ^ Math.imul(y | 0, 19349663) ^ Math.imul(z | 0, 83492791)) >>> 0) &
    (size - 1);
  const cellOf = (x: number): number => Math.floor(x / cell);
  const inCell = (s: number, x: number, y: number, z: number): number => {
    for (let k = first[s]!; k >= 0; k = next[k]!)
      if (Math.hypot(kept[3 * k]! - x, kept[3 * k + 1]! - y, kept[3 * k + 2]! - z) <= withinMm)
        return k;
    return -1;
  };
  for (let v = 0; v < count; v++) {
    const [x, y, z] = [vertices[3 * v]!, vertices[3 * v + 1]!, vertices[3 * v + 2]!];
    let found = -1;
    const [cx, cy, cz] = [cellOf(x), cellOf(y), cellOf(z)];
    if (withinMm === 0) found = inCell(slot(cx, cy, cz), x, y, z);
    else
      for (let n = 0; n < 27 && found < 0; n++)
        found = inCell(
          slot(cx + (n % 3) - 1, cy + (Math.floor(n / 3) % 3) - 1, cz + Math.floor(n / 9) - 1),
          x,
          y,
          z,
        );
    if (found < 0) {
      found = known++;
      kept.set([x, y, z], 3 * found);
      const s = slot(cx, cy, cz);
      next[found] = first[s]!;
      first[s] = found;
    }
    to[v] = found;
  }
  return {
    mesh: { vertices: kept.slice(0, 3 * known), triangles: triangles.map((v) => to[v]!) },
    joined: count - known,
  };
}
