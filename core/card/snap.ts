import type { Unit } from '../measure/length';
import { MM_PER_INCH } from '../measure/length';
import { ROUNDING_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { add, along, cross, distance, dot, left, meet, scale, sub, unit } from '../measure/vector';

export type SnapReason = 'end' | 'kept' | 'along' | 'square' | 'parallel' | 'round';
export type Snapped = { point: Vec; reasons: SnapReason[]; guides: [Vec, Vec][] };

export type SnapContext = {
  /**
   * Corners the point is joined to by a straight side: one while drawing, two while a corner is
   * moved.
   */
  anchors: readonly Vec[];
  /** Other corners of the card. */
  ends: readonly Vec[];
  /** Unit directions of the other sides. */
  directions: readonly Vec[];
  /** How near counts, mm (a fixed distance on the screen). */
  reachMm: number;
  unit: Unit;
  /**
   * Where the point stood when it was taken in hand. It can be put back there exactly and be led
   * level, upright and along its own sides from there; what it then stood beside by less than the
   * reach, it was put beside on purpose, and is not drawn onto.
   */
  stood?: Vec;
};

/** Nearer than this is on the line, mm: a hundredth, as lengths are typed. */
const ON_MM = 0.005;
/**
 * A side is slanted beyond this, the product of the sine and cosine of its slope: some three
 * degrees.
 */
const SLANT = 0.05;

type Guide = { p: Vec; u: Vec; reason: SnapReason };

/**
 * The roundest step that is still finer than what a hand can aim at: 1, 5, 10 or 50 mm; 1/16, 1/4,
 * 1 or 2 in.
 */
export const roundStep = (unit: Unit, reachMm: number): number => {
  const steps = unit === 'mm' ? [1, 5, 10, 50] : [1 / 16, 1 / 4, 1, 2].map((s) => s * MM_PER_INCH);
  return [...steps].reverse().find((step) => step / 2 <= reachMm) ?? steps[0]!;
};

/**
 * Draws a point to what it is near: other corners first; then where two guide lines cross; then one
 * guide line, at a round length. Guides run from the anchors along the bench (level, upright),
 * along, square and parallel to other sides, and level or upright through other corners. With
 * nothing near, the distance to the first anchor is made round. A point that was moved keeps the
 * small differences it stood with (see `stood`).
 */
export function snap(p: Vec, context: SnapContext): Snapped {
  const { anchors, ends, directions, reachMm, stood } = context;
  const end = (stood ? [stood, ...ends] : ends).find((e) => distance(e, p) <= reachMm);
  if (end) return { point: end, reasons: ['end'], guides: [] };

  const near = [
    ...ownGuides(context),
    ...guides(anchors, ends, directions).filter((guide) => !apart(guide, context)),
  ]
    .map((guide) => ({ ...guide, off: Math.abs(cross(guide.u, sub(p, guide.p))) }))
    .filter((guide) => guide.off <= reachMm && distance(guide.p, p) > reachMm)
    .sort((a, b) => a.off - b.off);
  const first = near[0];
  const drawn = (guide: Guide, point: Vec): [Vec, Vec] => [guide.p, point];
  if (first) {
    for (const second of near) {
      if (Math.abs(cross(first.u, second.u)) < 0.2) continue;
      const point = meet(first.p, first.u, second.p, second.u);
      if (point && distance(point, p) <= 1.5 * reachMm) {
        return {
          point,
          reasons: [first.reason, second.reason],
          guides: [drawn(first, point), drawn(second, point)],
        };
      }
    }
    const on = along(first.p, first.u, dot(sub(p, first.p), first.u));
    const point = rounded(on, first.p, context);
    return { point, reasons: [first.reason, 'round'], guides: [drawn(first, point)] };
  }
  const anchor = anchors[0];
  if (!anchor) {
    const step = roundStep(context.unit, reachMm);
    return {
      point: [Math.round(p[0] / step) * step, Math.round(p[1] / step) * step],
      reasons: ['round'],
      guides: [],
    };
  }
  return { point: rounded(p, anchor, context), reasons: ['round'], guides: [] };
}

/**
 * The lines a moved point can be led along so that something stays as it was: level, upright, and
 * its own sides.
 */
function ownGuides({ stood, anchors }: SnapContext): Guide[] {
  if (!stood) return [];
  const level: Guide = { p: stood, u: [1, 0], reason: 'kept' };
  const upright: Guide = { p: stood, u: [0, 1], reason: 'kept' };
  // A side all but level or upright is kept by the small difference itself, not by its slope.
  const slanted = anchors
    .filter((a) => distance(a, stood) > ROUNDING_MM)
    .map((p): Guide => ({ p, u: unit(sub(stood, p)), reason: 'kept' }))
    .filter(({ u }) => Math.abs(u[0] * u[1]) > SLANT);
  return [level, upright, ...slanted];
}

/**
 * Whether the point stood beside a line, near it but not on it: a difference somebody made, not to
 * be swallowed.
 */
function apart({ p, u }: Guide, { stood, reachMm }: SnapContext): boolean {
  if (!stood) return false;
  const off = Math.abs(cross(u, sub(stood, p)));
  return off > ON_MM && off <= 2 * reachMm;
}

function rounded(p: Vec, from: Vec, { unit: lengths, reachMm }: SnapContext): Vec {
  const d = distance(p, from);
  const step = roundStep(lengths, reachMm);
  const figure = Math.max(step, Math.round(d / step) * step);
  return d < ROUNDING_MM ? p : add(from, scale(unit(sub(p, from)), figure));
}

function guides(
  anchors: readonly Vec[],
  ends: readonly Vec[],
  directions: readonly Vec[],
): Guide[] {
  const level: Vec = [1, 0];
  const upright: Vec = [0, 1];
  return [
    ...anchors.flatMap((p): Guide[] => [
      { p, u: level, reason: 'along' },
      { p, u: upright, reason: 'along' },
      ...directions.flatMap((u): Guide[] => [
        { p, u, reason: 'parallel' },
        { p, u: left(u), reason: 'square' },
      ]),
    ]),
    ...ends.flatMap((p): Guide[] => [
      { p, u: level, reason: 'along' },
      { p, u: upright, reason: 'along' },
    ]),
  ];
}
