import { z } from 'zod';
import type { Result } from '../measure/result';
import { above } from './cutTo';
import { compact } from './clean';
import type { Disc } from './disc';
import { discOf } from './disc';
import { axesOf } from './firstFlat';
import type { Mesh, Vec3 } from './mesh';
import { dot3, length3, sub3, vertexAt, vertexCount } from './mesh';
import { sectionOf } from './section';

/**
 * A part of a panel that is made of two or more: what lies between two cuts straight across its length (`across`) or its width
 * (`along`), at shares of it.
 */
export const PartSchema = z.strictObject({
  runs: z.enum(['across', 'along']),
  from: z.number().min(0).max(1),
  to: z.number().min(0).max(1),
});
export type Part = z.infer<typeof PartSchema>;

/** The direction that cuts are square to, and where a panel begins and ends along it, mm. */
export function spanOf(disc: Disc, runs: Part['runs']): { normal: Vec3; up: Vec3; from: number; to: number } {
  const [e1, e2] = axesOf(disc);
  const up: Vec3 = [e1[1] * e2[2] - e1[2] * e2[1], e1[2] * e2[0] - e1[0] * e2[2], e1[0] * e2[1] - e1[1] * e2[0]];
  const reach = (axis: Vec3): { from: number; to: number } => {
    let [from, to] = [Infinity, -Infinity];
    for (let v = 0; v < vertexCount(disc.mesh); v++) {
      const s = dot3(vertexAt(disc.mesh, v), axis);
      from = Math.min(from, s);
      to = Math.max(to, s);
    }
    return { from, to };
  };
  const [one, other] = [reach(e1), reach(e2)];
  const lengthwise = one.to - one.from >= other.to - other.from;
  return (runs === 'across') === lengthwise ? { normal: e1, up, ...one } : { normal: e2, up, ...other };
}

/** The part of a panel as a panel of its own. Problems: those of `discOf`. */
export function partOf(disc: Disc, part: Part): Result<{ disc: Disc }> {
  const { normal, from, to } = spanOf(disc, part.runs);
  let mesh: Mesh = disc.mesh;
  const cuts = [
    { at: from + (to - from) * part.from, sign: 1, is: part.from > 0 },
    { at: from + (to - from) * part.to, sign: -1, is: part.to < 1 },
  ];
  for (const { at, sign, is } of cuts) {
    if (!is) continue;
    const side: Vec3 = [normal[0] * sign, normal[1] * sign, normal[2] * sign];
    const values = Float64Array.from({ length: vertexCount(mesh) }, (_, v) => sign * (dot3(vertexAt(mesh, v), normal) - at)); // prettier-ignore
    mesh = compact(above(mesh, values, side));
  }
  return discOf(mesh);
}

/** How long the weld is where a panel is parted at a share of its length or width, mm. */
export function seamMm(disc: Disc, runs: Part['runs'], share: number): number {
  const { normal, from, to } = spanOf(disc, runs);
  const at = from + (to - from) * share;
  const cut = sectionOf(disc.mesh, [normal[0] * at, normal[1] * at, normal[2] * at], normal);
  return cut ? cut.places.slice(1).reduce((sum, p, i) => sum + length3(sub3(p, cut.places[i]!)), 0) : 0;
}
