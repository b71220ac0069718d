import { points } from '../measure/path';
import type { Segment } from '../measure/segment';
import { line } from '../measure/segment';
import type { Vec } from '../measure/vector';
import type { Hole } from './pattern';

/**
 * A hole as far as its size and form go: `diameterMm` is how wide it is, of a slot across, of a
 * square along a side.
 */
export type Formed = Pick<Hole, 'diameterMm' | 'form'>;

/** How closely a slot's ends are followed by straight bits where they are needed, mm. */
const FLAT_MM = 0.02;

/** How long a slot is over all: no less than it is wide. */
const longOf = ({ diameterMm, form }: Formed): number =>
  form?.kind === 'slot' ? Math.max(form.longMm, diameterMm) : diameterMm;

/** Round a slot or a square hole, counter-clockwise; null for a round one. */
export function holePath(centre: Vec, hole: Formed): Segment[] | null {
  const { form, diameterMm } = hole;
  if (!form) return null;
  const turn = (form.turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const at = (x: number, y: number): Vec => [centre[0] + x * c - y * s, centre[1] + x * s + y * c];
  const half = diameterMm / 2;
  const reach = form.kind === 'slot' ? longOf(hole) / 2 - half : half;
  const corners = [at(-reach, -half), at(reach, -half), at(reach, half), at(-reach, half)] as const;
  const [p, q, r, t] = corners;
  if (form.kind === 'square') return [line(p, q), line(q, r), line(r, t), line(t, p)];
  const ends: Segment[] = [
    { a: q, b: r, bulge: 1 },
    { a: t, b: p, bulge: 1 },
  ];
  return reach === 0 ? ends : [line(p, q), ends[0]!, line(r, t), ends[1]!];
}

/** The same as places, for a round one too. */
export function holePolygon(centre: Vec, hole: Formed, tolerance = FLAT_MM): Vec[] {
  const r = hole.diameterMm / 2;
  const [a, b]: [Vec, Vec] = [
    [centre[0] - r, centre[1]],
    [centre[0] + r, centre[1]],
  ];
  return points(
    holePath(centre, hole) ?? [
      { a, b, bulge: 1 },
      { a: b, b: a, bulge: 1 },
    ],
    tolerance,
  );
}

/** What is cut out, mm². */
export function holeArea(hole: Formed): number {
  const { diameterMm: d, form } = hole;
  if (form?.kind === 'square') return d * d;
  return (Math.PI * d * d) / 4 + d * (longOf(hole) - d);
}

/** How far it reaches from its middle at most, mm. */
export const holeReach = (hole: Formed): number =>
  hole.form?.kind === 'square' ? hole.diameterMm / Math.SQRT2 : longOf(hole) / 2;

/** How far it reaches from its middle along a direction (unit), mm. */
export function holeAlong(hole: Formed, [x, y]: Vec): number {
  const { diameterMm: d, form } = hole;
  if (!form) return d / 2;
  const turn = (form.turnDeg * Math.PI) / 180;
  const [along, across] = [
    Math.abs(x * Math.cos(turn) + y * Math.sin(turn)),
    Math.abs(y * Math.cos(turn) - x * Math.sin(turn)),
  ];
  return form.kind === 'square'
    ? (d / 2) * (along + across)
    : ((longOf(hole) - d) / 2) * along + d / 2;
}
