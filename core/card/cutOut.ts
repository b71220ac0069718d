import type { Path } from '../measure/path';
import { area, box, points } from '../measure/path';
import type { Segment } from '../measure/segment';
import { isStraight, nearest, segmentLength } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { mix, sub } from '../measure/vector';
import type { Formed } from './holeForm';
import { holePath } from './holeForm';

/**
 * A cut-out as a hole of a card: its middle, how wide it is, and its form where it is not round.
 */
export type CutOut = { at: Vec } & Formed;

/**
 * The two are held against each other at places no farther apart than this share of how wide it is.
 */
const APART = 1 / 40;

/**
 * The hole that a closed outline (counter-clockwise) is: round, a slot with round ends, or a
 * square; null where it is none of them within the tolerance, mm. Size from its area and length.
 */
export function cutOutOf(path: Path, toleranceMm: number): CutOut | null {
  const inside = area(path);
  if (!(inside > 0)) return null;
  const { minX, minY, maxX, maxY } = box(path);
  const { at, turnDeg } = spreadOf(path, [(minX + maxX) / 2, (minY + maxY) / 2]);
  const long = extent(path, turnDeg);
  // Of a slot d wide and l long: inside = πd²/4 + d·(long − d).
  const k = 1 - Math.PI / 4;
  const wide = (long - Math.sqrt(Math.max(0, long * long - 4 * k * inside))) / (2 * k);
  const candidates: CutOut[] = [
    { at, diameterMm: 2 * Math.sqrt(inside / Math.PI) },
    { at, diameterMm: wide, form: { kind: 'slot', longMm: long, turnDeg } },
    {
      at,
      diameterMm: Math.sqrt(inside),
      form: { kind: 'square', turnDeg: quarterDirection(path) },
    },
  ];
  return (
    candidates.find((one) => farthest(path, outlineOf(one), toleranceMm) <= toleranceMm) ?? null
  );
}

const outlineOf = ({ at: [x, y], ...hole }: CutOut): Segment[] => {
  const r = hole.diameterMm / 2;
  const [a, b]: [Vec, Vec] = [
    [x - r, y],
    [x + r, y],
  ];
  return (
    holePath([x, y], hole) ?? [
      { a, b, bulge: 1 },
      { a: b, b: a, bulge: 1 },
    ]
  );
};

/**
 * The middle of an area and the direction, degrees, in which most of it lies, by its outline as
 * places.
 */
function spreadOf(path: Path, near: Vec): { at: Vec; turnDeg: number } {
  const around = points(path, 0.01).map((p) => sub(p, near));
  let [twice, x, y, xx, yy, xy] = [0, 0, 0, 0, 0, 0];
  around.forEach((p, i) => {
    const q = around[(i + 1) % around.length]!;
    const part = p[0] * q[1] - q[0] * p[1];
    twice += part;
    x += (p[0] + q[0]) * part;
    y += (p[1] + q[1]) * part;
    xx += (p[0] ** 2 + p[0] * q[0] + q[0] ** 2) * part;
    yy += (p[1] ** 2 + p[1] * q[1] + q[1] ** 2) * part;
    xy += (2 * p[0] * p[1] + p[0] * q[1] + q[0] * p[1] + 2 * q[0] * q[1]) * part;
  });
  const [cx, cy] = [x / (3 * twice), y / (3 * twice)];
  // Second moments about the middle, each over the area.
  const [mxx, myy, mxy] = [
    xx / (6 * twice) - cx * cx,
    yy / (6 * twice) - cy * cy,
    xy / (12 * twice) - cx * cy,
  ];
  return {
    at: [near[0] + cx, near[1] + cy],
    turnDeg: (Math.atan2(2 * mxy, mxx - myy) * 90) / Math.PI,
  };
}

/**
 * The direction, degrees, that straight sides share where what lies a quarter turn apart counts as
 * one.
 */
function quarterDirection(path: Path): number {
  let [c, s] = [0, 0];
  for (const side of path) {
    if (!isStraight(side)) continue;
    const turn = 4 * Math.atan2(side.b[1] - side.a[1], side.b[0] - side.a[0]);
    c += segmentLength(side) * Math.cos(turn);
    s += segmentLength(side) * Math.sin(turn);
  }
  return (Math.atan2(s, c) * 45) / Math.PI;
}

/** How long it is along a direction, mm. */
function extent(path: Path, turnDeg: number): number {
  const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  let [least, most] = [Infinity, -Infinity];
  for (const [x, y] of points(path, 0.01)) {
    least = Math.min(least, x * c + y * s);
    most = Math.max(most, x * c + y * s);
  }
  return most - least;
}

/** How far the two lie apart at most, either way; no longer looked at once beyond a tolerance. */
function farthest(path: Path, other: Path, toleranceMm: number): number {
  const { minX, minY, maxX, maxY } = box(path);
  const step = APART * Math.max(maxX - minX, maxY - minY);
  let most = 0;
  for (const [from, to] of [
    [path, other],
    [other, path],
  ] as const)
    for (const p of placesOn(from, step)) {
      let least = Infinity;
      for (const s of to) least = Math.min(least, nearest(s, p).distance);
      most = Math.max(most, least);
      if (most > toleranceMm) return most;
    }
  return most;
}

const placesOn = (path: Path, step: number): Vec[] =>
  points(path, 0.01).flatMap((a, i, all) => {
    const b = all[(i + 1) % all.length]!;
    const n = Math.max(1, Math.min(200, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / step)));
    return Array.from({ length: n }, (_, k) => mix(a, b, k / n));
  });
