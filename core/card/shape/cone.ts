import { degrees } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Vec } from '../../measure/vector';
import type { RolledSheet } from './rolledSheet';
import { toNeutral, wrongSheet } from './rolledSheet';
import type { Unfolded, Vec3 } from './unfold';
import { turnedBetween, unfolded } from './unfold';

/** A corner of an outline and the bulge of the side that begins there. */
export type Bulged = { x: number; y: number; bulge: number };

/**
 * A right cone or frustum unrolled: a sector of a ring about the origin, from the x axis round
 * counter-clockwise, its outline counter-clockwise. `lowerMm` and `upperMm` are the diameters at
 * the ends (the upper 0 for a cone), `heightMm` between them. Slant s = √(h² + (r₁ − r₂)²), outer
 * radius s·r₁/(r₁ − r₂), sector 360°·r₁/outer radius.
 *
 * Rolled from `sheet` the diameters are those of its outer or inner edges, which are cut square to
 * it: its middle lies T/2·cos α from them, α how far the wall leans from the axis. The slant stays.
 *
 * Problems: `shape-figures` (about: the figures out of range; both diameters where they are the
 * same: that is a strip).
 */
export function frustum(
  lowerMm: number,
  upperMm: number,
  heightMm: number,
  sheet: RolledSheet | null = null,
): Result<{
  outline: Bulged[];
  innerRadiusMm: number;
  outerRadiusMm: number;
  sectorDeg: number;
  slantMm: number;
}> {
  const bad: string[] = [];
  if (!(lowerMm >= 0) || !Number.isFinite(lowerMm)) bad.push('lowerMm');
  if (!(upperMm >= 0) || !Number.isFinite(upperMm)) bad.push('upperMm');
  if (!(heightMm > 0) || !Number.isFinite(heightMm)) bad.push('heightMm');
  if (bad.length === 0 && lowerMm === upperMm) bad.push('lowerMm', 'upperMm');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const slantMm = Math.hypot(heightMm, (lowerMm - upperMm) / 2);
  const outward = (toNeutral(sheet) * heightMm) / slantMm;
  const middle = (acrossMm: number) => Math.max(0, acrossMm / 2 + outward);
  const wrong = wrongSheet(sheet, Math.max(lowerMm, upperMm));
  if (wrong) return wrong;
  const [wide, narrow] = [middle(Math.max(lowerMm, upperMm)), middle(Math.min(lowerMm, upperMm))];
  const outerRadiusMm = (slantMm * wide) / (wide - narrow);
  const innerRadiusMm = outerRadiusMm - slantMm;
  const sweep = (2 * Math.PI * wide) / outerRadiusMm;
  const at = (radius: number, turn: number, bulge: number): Bulged => ({
    x: radius * Math.cos(turn),
    y: radius * Math.sin(turn),
    bulge,
  });
  // In two arcs each: one of nearly a whole turn would have a bulge without end.
  const half = Math.tan(sweep / 8);
  const outer = [
    at(outerRadiusMm, 0, half),
    at(outerRadiusMm, sweep / 2, half),
    at(outerRadiusMm, sweep, 0),
  ];
  const inner =
    narrow === 0
      ? [at(0, 0, 0)]
      : [
          at(innerRadiusMm, sweep, -half),
          at(innerRadiusMm, sweep / 2, -half),
          at(innerRadiusMm, 0, 0),
        ];
  return {
    ok: true,
    outline: [...outer, ...inner],
    innerRadiusMm,
    outerRadiusMm,
    sectorDeg: degrees(sweep),
    slantMm,
  };
}

export type Transition = {
  /** Counter-clockwise. */
  outline: Vec[];
  /**
   * Where it is bent, in the flat, from the rectangle to the circle; by that angle, degrees, away
   * from one who sees it from outside.
   */
  bends: [Vec, Vec][];
  bendDeg: number[];
};

/**
 * A square-to-round transition by triangulation: from a rectangle of `wideMm` by `deepMm` up to a
 * circle of `roundMm` at `heightMm`, its middle shifted by `shiftMm`. Four flat triangles stand on
 * the sides, four quarter cones on the corners, each in `parts` triangles. Parted at the middle of
 * the first side (where y is least), so that it begins and ends with a half of it. Made of `sheet`
 * it is developed on the middle of that, moved in or out as each side, and the circle above it,
 * leans.
 *
 * Problems: `shape-figures`.
 */
export function squareToRound(given: {
  wideMm: number;
  deepMm: number;
  roundMm: number;
  heightMm: number;
  shiftMm?: readonly [number, number];
  parts?: number;
  sheet?: RolledSheet | null;
}): Result<Transition> {
  const { wideMm, deepMm, roundMm, heightMm, shiftMm = [0, 0], parts = 8, sheet = null } = given;
  const bad = Object.entries({ wideMm, deepMm, roundMm, heightMm }).flatMap(([name, value]) =>
    value > 0 && Number.isFinite(value) ? [] : [name],
  );
  if (!(Number.isInteger(parts) && parts >= 1 && parts <= 60)) bad.push('parts');
  if (!shiftMm.every(Number.isFinite)) bad.push('shiftMm');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const wrong = wrongSheet(sheet, Math.min(wideMm, deepMm, roundMm));
  if (wrong) return wrong;
  const [w, d, r] = [wideMm / 2, deepMm / 2, roundMm / 2];
  // How far a wall moves outward to the middle of the sheet, by how far it leans in over its height.
  const outward = (leansMm: number) =>
    (toNeutral(sheet) * heightMm) / Math.hypot(heightMm, leansMm);
  const front = outward(d - r + shiftMm[1]);
  const back = outward(d - r - shiftMm[1]);
  const right = outward(w - r - shiftMm[0]);
  const left = outward(w - r + shiftMm[0]);
  // From the middle of the side at the front to the right, round and back to it.
  const lower: Vec3[] = [
    [0, -d - front, 0],
    [w + right, -d - front, 0],
    [w + right, d + back, 0],
    [-w - left, d + back, 0],
    [-w - left, -d - front, 0],
    [0, -d - front, 0],
  ];
  const upper = Array.from({ length: 4 * parts + 1 }, (_, i): Vec3 => {
    const turn = -Math.PI / 2 + (2 * Math.PI * i) / (4 * parts);
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    // On the sides the wall leans as they do; between them evenly from one to the next.
    const radius = r + (cos > 0 ? right : left) * cos ** 2 + (sin > 0 ? back : front) * sin ** 2;
    return [shiftMm[0] + radius * cos, shiftMm[1] + radius * sin, heightMm];
  });
  const quarter = Array.from({ length: parts }, (): 'upper' => 'upper');
  const steps = [
    'lower',
    ...quarter,
    'lower',
    ...quarter,
    'lower',
    ...quarter,
    'lower',
    ...quarter,
    'lower',
  ] as const;
  const flat = unfolded(lower, upper, steps);
  return {
    ok: true,
    outline: [...flat.lower, ...[...flat.upper].reverse()],
    bends: bendsOf(flat, parts),
    bendDeg: turnedBetween(lower, upper, steps),
  };
}

/** From each corner of the rectangle to each place of its quarter of the circle. */
const bendsOf = ({ lower, upper }: Unfolded, parts: number): [Vec, Vec][] =>
  [0, 1, 2, 3].flatMap((corner) =>
    Array.from({ length: parts + 1 }, (_, k): [Vec, Vec] => [
      lower[corner + 1]!,
      upper[corner * parts + k]!,
    ]),
  );
