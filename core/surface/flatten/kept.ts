import type { Mesh } from '../mesh/mesh';
import { length3, sub3, vertexAt } from '../mesh/mesh';
import type { Panel } from '../strain/strain';

/**
 * Sides of the rim that keep in the flat the length they have on the panel, where it meets a
 * neighbour that is there: by their triangles, each side as two of its corners (0 … 2) and its
 * length, mm.
 */
export type KeptSides = Map<number, { a: number; b: number; longMm: number }[]>;

/** Stiffness of a kept side, in multiples of the metal's of its triangle. */
const STIFF = 400;

/** The sides of a rim between places `from` and `from + count` of it, for each run. */
export function keptSides(
  mesh: Mesh,
  rim: Uint32Array,
  runs: readonly { rimFrom: number; rimCount: number }[],
): KeptSides {
  const wanted = new Set<number>();
  const count = mesh.vertices.length / 3;
  for (const { rimFrom, rimCount } of runs)
    for (let i = 0; i < rimCount; i++)
      wanted.add(rim[(rimFrom + i) % rim.length]! * count + rim[(rimFrom + i + 1) % rim.length]!);
  const found: KeptSides = new Map();
  if (wanted.size === 0) return found;
  for (let side = 0; side < mesh.triangles.length; side++) {
    const next = side % 3 === 2 ? side - 2 : side + 1;
    const [p, q] = [mesh.triangles[side]!, mesh.triangles[next]!];
    if (!wanted.has(p * count + q)) continue;
    const t = Math.floor(side / 3);
    const one = {
      a: side % 3,
      b: next % 3,
      longMm: length3(sub3(vertexAt(mesh, p), vertexAt(mesh, q))),
    };
    found.set(t, [...(found.get(t) ?? []), one]);
  }
  return found;
}

/** What kept sides cost, as the mean over the panel that the energy is. */
export function keptEnergy(panel: Panel, kept: KeptSides, flat: Float64Array): number {
  let sum = 0;
  for (const [t, sides] of kept)
    for (const { a, b, longMm } of sides) {
      const [v, w] = [2 * panel.triangles[3 * t + a]!, 2 * panel.triangles[3 * t + b]!];
      const off = Math.hypot(flat[v]! - flat[w]!, flat[v + 1]! - flat[w + 1]!) / longMm - 1;
      sum += STIFF * panel.area[t]! * off * off;
    }
  return sum / panel.whole;
}

/** Adds what the kept sides of a triangle give to its gradient and its Hessian (see `newtonOf`). */
export function addKept(
  panel: Panel,
  kept: KeptSides,
  flat: Float64Array,
  t: number,
  gradient: Float64Array,
  hessian: Float64Array,
): void {
  const sides = kept.get(t);
  if (!sides) return;
  for (const { a, b, longMm } of sides) {
    const [v, w] = [2 * panel.triangles[3 * t + a]!, 2 * panel.triangles[3 * t + b]!];
    const [dx, dy] = [flat[v]! - flat[w]!, flat[v + 1]! - flat[w + 1]!];
    const d = Math.hypot(dx, dy);
    const [ux, uy] = [dx / d, dy / d];
    const k = (2 * STIFF * panel.area[t]!) / panel.whole / (longMm * longMm);
    const pull = k * (d - longMm);
    // Across its own direction a side that is too short pushes nothing: what is left out keeps the
    // whole positive.
    const across = k * Math.max(0, 1 - longMm / d);
    const block = [
      across + (k - across) * ux * ux,
      (k - across) * ux * uy,
      across + (k - across) * uy * uy,
    ];
    for (const [i, sign] of [
      [a, 1],
      [b, -1],
    ] as const) {
      gradient[2 * i]! += sign * pull * ux;
      gradient[2 * i + 1]! += sign * pull * uy;
      for (const [j, other] of [
        [a, 1],
        [b, -1],
      ] as const)
        for (let r = 0; r < 2; r++)
          for (let c = 0; c < 2; c++) {
            const [row, column] = [2 * i + r, 2 * j + c];
            if (column <= row) hessian[6 * row + column]! += sign * other * block[r + c]!;
          }
    }
  }
}
