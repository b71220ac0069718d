import { z } from 'zod';
import type { Result } from '../../measure/result';
import { above } from '../mesh/cutTo';
import { compact, partWith } from '../mesh/clean';
import { nearestOnTriangle } from '../mesh/deviation';
import type { Disc } from '../mesh/disc';
import { discOf } from '../mesh/disc';
import { axesOf } from './firstFlat';
import type { Mesh, Vec3 } from '../mesh/mesh';
import {
  cornersOf,
  cross3,
  dot3,
  length3,
  sub3,
  triangleCount,
  triangleNormal,
  unit3,
  vertexAt,
  vertexCount,
} from '../mesh/mesh';
import { sectionOf } from '../mesh/section';

const Place = z.tuple([z.number().finite(), z.number().finite(), z.number().finite()]).readonly();

/**
 * What lies between two cuts straight across a panel’s length (`across`) or its width (`along`), at
 * shares of it.
 */
const SharePartSchema = z.strictObject({
  runs: z.enum(['across', 'along']),
  from: z.number().min(0).max(1),
  to: z.number().min(0).max(1),
});
/**
 * What lies on one side of a cut through two places on the panel, straight as it is seen along
 * `up`; `side` 1: on the left of the way from the first to the second, as one looks down on it.
 */
const LinePartSchema = z.strictObject({
  runs: z.literal('line'),
  from: Place,
  to: Place,
  up: Place,
  side: z.union([z.literal(1), z.literal(-1)]),
});
/** A part of a panel that is made of two or more. */
export const PartSchema = z.union([SharePartSchema, LinePartSchema]);
export type Part = z.infer<typeof PartSchema>;
export type SharePart = z.infer<typeof SharePartSchema>;
export type LinePart = z.infer<typeof LinePartSchema>;

/** The direction that cuts are square to, and where a panel begins and ends along it, mm. */
export function spanOf(
  disc: Disc,
  runs: SharePart['runs'],
): { normal: Vec3; up: Vec3; from: number; to: number } {
  const [e1, e2] = axesOf(disc);
  const up: Vec3 = [
    e1[1] * e2[2] - e1[2] * e2[1],
    e1[2] * e2[0] - e1[0] * e2[2],
    e1[0] * e2[1] - e1[1] * e2[0],
  ];
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
  return (runs === 'across') === lengthwise
    ? { normal: e1, up, ...one }
    : { normal: e2, up, ...other };
}

/** A cut: the plane it lies in, and which side of it stays (that `normal` points to). */
type Cut = { point: Vec3; normal: Vec3 };

/** The cuts that part it off: one or two. */
function cutsOf(disc: Disc, part: Part): Cut[] {
  if (part.runs === 'line') {
    const normal = unit3(cross3(part.up, sub3(part.to, part.from)));
    return [{ point: part.from, normal: scaled(normal, part.side) }];
  }
  const { normal, from, to } = spanOf(disc, part.runs);
  return [
    ...(part.from > 0 ? [{ point: scaled(normal, from + (to - from) * part.from), normal }] : []),
    ...(part.to < 1
      ? [{ point: scaled(normal, from + (to - from) * part.to), normal: scaled(normal, -1) }]
      : []),
  ];
}

const scaled = ([x, y, z]: Vec3, by: number): Vec3 => [x * by, y * by, z * by];

/** The part of a panel as a panel of its own. Problems: those of `discOf`. */
export function partOf(disc: Disc, part: Part): Result<{ disc: Disc }> {
  let mesh: Mesh = disc.mesh;
  for (const { point, normal } of cutsOf(disc, part)) {
    const values = Float64Array.from({ length: vertexCount(mesh) }, (_, v) =>
      dot3(sub3(vertexAt(mesh, v), point), normal),
    );
    const cut = compact(above(mesh, values, normal));
    // A tapped line may cut a corner off twice: what lies by it stays.
    mesh = part.runs === 'line' && triangleCount(cut) > 0 ? partWith(cut, middleOf(part)) : cut;
  }
  return discOf(mesh);
}

const middleOf = ({ from, to }: LinePart): Vec3 =>
  scaled([from[0] + to[0], from[1] + to[1], from[2] + to[2]], 0.5);

/**
 * A part beside a line that was tapped: straight as it is seen square on between its two ends. Null
 * for ends that are one.
 */
export function partBy(mesh: Mesh, from: Vec3, to: Vec3): LinePart | null {
  const [a, b] = [normalNear(mesh, from), normalNear(mesh, to)];
  const up = unit3([a[0] + b[0], a[1] + b[1], a[2] + b[2]]);
  const across = cross3(up, sub3(to, from));
  return length3(across) < 1e-6 ? null : { runs: 'line', from, to, up, side: 1 };
}

function normalNear(mesh: Mesh, p: Vec3): Vec3 {
  let [least, nearest] = [Infinity, 0];
  for (let t = 0; t < triangleCount(mesh); t++) {
    const { off } = nearestOnTriangle(p, cornersOf(mesh, t));
    if (off < least) [least, nearest] = [off, t];
  }
  return triangleNormal(mesh, nearest);
}

/**
 * What is left of the panel beside a part: the same cut, its other side. Null for a part between
 * two cuts, which leaves two.
 */
export function otherPart(part: Part): Part | null {
  if (part.runs === 'line') return { ...part, side: part.side === 1 ? -1 : 1 };
  if (part.from > 0 && part.to < 1) return null;
  return part.from > 0 ? { ...part, from: 0, to: part.from } : { ...part, from: part.to, to: 1 };
}

/**
 * The rim of a part within this of its cut lies on it, mm: cutting puts it there, and cards are
 * kept to hundredths.
 */
const ON_CUT_MM = 0.02;

/**
 * Which of the runs of a part’s rim lie on its cuts: those edges are seams. `whole`: the panel it
 * is part of.
 */
export function onCut(
  whole: Disc,
  part: Part,
  { mesh, rim }: Disc,
  runs: readonly { rimFrom: number; rimCount: number }[],
): boolean[] {
  const cuts = cutsOf(whole, part);
  return runs.map(({ rimFrom, rimCount }) =>
    cuts.some(({ point, normal }) =>
      Array.from({ length: rimCount + 1 }, (_, k) =>
        vertexAt(mesh, rim[(rimFrom + k) % rim.length]!),
      ).every((p) => Math.abs(dot3(sub3(p, point), normal)) < ON_CUT_MM),
    ),
  );
}

/** How long the weld is along the cuts of a part, mm. */
export function seamMm(disc: Disc, part: Part): number {
  return cutsOf(disc, part).reduce((sum, { point, normal }) => {
    const cut = sectionOf(disc.mesh, point, normal);
    return (
      sum +
      (cut
        ? cut.places.slice(1).reduce((long, p, i) => long + length3(sub3(p, cut.places[i]!)), 0)
        : 0)
    );
  }, 0);
}
