import { degrees } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Vec } from '../../measure/vector';
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
 * Problems: `shape-figures` (about: the figures out of range; both diameters where they are the
 * same: that is a strip).
 */
export function frustum(
  lowerMm: number,
  upperMm: number,
  heightMm: number,
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
  const [wide, narrow] = [Math.max(lowerMm, upperMm) / 2, Math.min(lowerMm, upperMm) / 2];
  const slantMm = Math.hypot(heightMm, wide - narrow);
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
   * Where it is bent, in the flat, from the rectangle to the circle; so far, degrees, away from one
   * who sees it from outside.
   */
  bends: [Vec, Vec][];
  bendDeg: number[];
};

/**
 * A square-to-round transition by triangulation: from a rectangle of `wideMm` by `deepMm` up to a
 * circle of `roundMm` at `heightMm`, its middle shifted by `shiftMm`. Four flat triangles stand on
 * the sides, four quarter cones on the corners, each in `parts` triangles. Parted at the middle of
 * the first side (where y is least), so that it begins and ends with a half of it.
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
}): Result<Transition> {
  const { wideMm, deepMm, roundMm, heightMm, shiftMm = [0, 0], parts = 8 } = given;
  const bad = Object.entries({ wideMm, deepMm, roundMm, heightMm }).flatMap(([name, value]) =>
    value > 0 && Number.isFinite(value) ? [] : [name],
  );
  if (!(Number.isInteger(parts) && parts >= 1 && parts <= 60)) bad.push('parts');
  if (!shiftMm.every(Number.isFinite)) bad.push('shiftMm');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const [w, d, r] = [wideMm / 2, deepMm / 2, roundMm / 2];
  // From the middle of the side at the front to the right, round and back to it.
  const lower: Vec3[] = [
    [0, -d, 0],
    [w, -d, 0],
    [w, d, 0],
    [-w, d, 0],
    [-w, -d, 0],
    [0, -d, 0],
  ];
  const upper = Array.from({ length: 4 * parts + 1 }, (_, i): Vec3 => {
    const turn = -Math.PI / 2 + (2 * Math.PI * i) / (4 * parts);
    return [shiftMm[0] + r * Math.cos(turn), shiftMm[1] + r * Math.sin(turn), heightMm];
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
