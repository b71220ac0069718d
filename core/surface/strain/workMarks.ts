import type { Vec } from '../../measure/vector';
import type { Panel } from './strain';
import { directionsOf, strainsOf } from './strain';
import type { Way } from './strainMap';

/**
 * A mark on the flat: what is done there, how much (above 0), and the direction it is done in,
 * radians from +x.
 */
export type WorkMark = { at: Vec; way: Way; strain: number; turn: number };

/**
 * Places with less than this share of the greatest strain have no mark, those with more than the
 * second share have four times as many.
 */
const [LEAST, DENSE] = [0.12, 0.55];

/** Marks over a flat at places of a net `apartMm` wide, closer where there is more to do. */
export function workMarks(panel: Panel, flat: Float64Array, apartMm: number): WorkMark[] {
  const strains = strainsOf(panel, flat);
  const turns = directionsOf(panel, flat);
  const most = strains.reduce((greatest, x) => Math.max(greatest, Math.abs(x)), 0);
  if (most < 1e-4) return [];
  const fine = apartMm / 2;
  const found = new Map<string, WorkMark>();
  for (let t = 0; t < turns.length; t++) {
    const [a, b, c] = [0, 1, 2].map((k): Vec => {
      const v = 2 * panel.triangles[3 * t + k]!;
      return [flat[v]!, flat[v + 1]!];
    }) as [Vec, Vec, Vec];
    const [more, less] = [strains[2 * t]!, strains[2 * t + 1]!];
    const way: Way = more > -less ? 'stretch' : 'shrink';
    const strain = Math.max(more, -less);
    if (strain < LEAST * most) continue;
    const [x0, x1] = [
      Math.ceil(Math.min(a[0], b[0], c[0]) / fine),
      Math.floor(Math.max(a[0], b[0], c[0]) / fine),
    ];
    const [y0, y1] = [
      Math.ceil(Math.min(a[1], b[1], c[1]) / fine),
      Math.floor(Math.max(a[1], b[1], c[1]) / fine),
    ];
    for (let i = x0; i <= x1; i++)
      for (let j = y0; j <= y1; j++) {
        // Every other place of the net in every other row; all of them where there is much to do.
        if (strain < DENSE * most && (i % 2 !== 0 || j % 2 !== 0)) continue;
        const p: Vec = [i * fine, j * fine];
        if (!within(p, a, b, c)) continue;
        found.set(`${i} ${j}`, {
          at: p,
          way,
          strain,
          turn: way === 'stretch' ? turns[t]! : turns[t]! + Math.PI / 2,
        });
      }
  }
  return [...found.values()];
}

function within(p: Vec, a: Vec, b: Vec, c: Vec): boolean {
  const side = (u: Vec, v: Vec): number =>
    (v[0] - u[0]) * (p[1] - u[1]) - (v[1] - u[1]) * (p[0] - u[0]);
  return side(a, b) >= 0 && side(b, c) >= 0 && side(c, a) >= 0;
}
