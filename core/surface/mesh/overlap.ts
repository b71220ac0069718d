import type { Vec } from '../../measure/vector';
import { cross, sub } from '../../measure/vector';

/**
 * Where the rim of a flat runs over itself: the places where two of its sides cross. Found by a
 * grid of cells about as large as a side, so that a rim of thousands is looked through in a moment.
 */
export function overlapsOf(rim: readonly Vec[]): Vec[] {
  const n = rim.length;
  const xs = rim.map((p) => p[0]);
  const ys = rim.map((p) => p[1]);
  const [minX, minY] = [Math.min(...xs), Math.min(...ys)];
  const wide = Math.max(Math.max(...xs) - minX, Math.max(...ys) - minY) || 1;
  const across = Math.max(1, Math.min(400, Math.round(Math.sqrt(n) * 2)));
  const cell = (wide * 1.0001) / across;
  const cells = new Map<number, number[]>();
  const found: Vec[] = [];
  for (let i = 0; i < n; i++) {
    const [a, b] = [rim[i]!, rim[(i + 1) % n]!];
    const [x0, x1] = [a[0], b[0]]
      .map((x) => Math.floor((x - minX) / cell))
      .sort((p, q) => p - q) as [number, number];
    const [y0, y1] = [a[1], b[1]]
      .map((y) => Math.floor((y - minY) / cell))
      .sort((p, q) => p - q) as [number, number];
    const seen = new Set<number>();
    for (let x = x0; x <= x1; x++)
      for (let y = y0; y <= y1; y++) {
        const key = y * (across + 1) + x;
        const list = cells.get(key) ?? [];
        for (const j of list) {
          if (seen.has(j) || j === i || (j + 1) % n === i || (i + 1) % n === j) continue;
          seen.add(j);
          const at = crossing(a, b, rim[j]!, rim[(j + 1) % n]!);
          if (at) found.push(at);
        }
        list.push(i);
        cells.set(key, list);
      }
  }
  return found;
}

/** Where two straight pieces cross, inside both. */
function crossing(a: Vec, b: Vec, p: Vec, q: Vec): Vec | null {
  const [u, v] = [sub(b, a), sub(q, p)];
  const d = cross(u, v);
  if (Math.abs(d) < 1e-12) return null;
  const t = cross(sub(p, a), v) / d;
  const s = cross(sub(p, a), u) / d;
  return t > 0 && t < 1 && s > 0 && s < 1 ? [a[0] + u[0] * t, a[1] + u[1] * t] : null;
}
