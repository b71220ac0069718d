import { radians } from '../../measure/angle';
import type { Ramp } from '../../measure/ramp';
import { mostOfRamp, ramped } from '../../measure/ramp';
import { besideRun, runLength } from '../../measure/run';
import type { Segment } from '../../measure/segment';
import { arcOf, directionAt, isStraight, reversed, segmentLength } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { cross, dot } from '../../measure/vector';
import type { BlankFlange } from '../blank';

/** The blank of a flange that is made apart. */
export type SeparateFlange =
  /**
   * A straight strip, folded `foldInMm` from one of its long sides, then pulled round. `standing`:
   * strain of the leg that stands.
   */
  | { kind: 'angle'; lengthMm: number; widths: Ramp; foldInMm: number; standing: number }
  /**
   * A strip that is only rolled to the curve. `weld`: the side along which it is welded on, in the
   * flat, from the end of the panel's edge to its start, the strip on its left; straight where the
   * flange is square to the panel.
   */
  | { kind: 'lip'; lengthMm: number; widths: Ramp; weld: Segment[] };

/** Radii that differ by less than this share are one. */
const ONE_RADIUS = 1e-3;

/**
 * What is to be cut for a flange that is made apart, along a run of the card's edge; null for one
 * that is not. `landMm` lies on the panel. A lip turned by A is part of a cone where the edge is an
 * arc: laid flat, its weld has the edge's curvature times cos A.
 */
export function separateFlangeOf(
  run: readonly Segment[],
  flange: BlankFlange,
  landMm: number,
): SeparateFlange | null {
  if (flange.made !== 'pulled' && flange.made !== 'lip') return null;
  const turned = besideRun(run, flange.fold);
  const cos = Math.cos(radians(flange.bend.angleDeg));
  const lengthMm = runLength(turned);
  if (flange.made === 'lip')
    return {
      kind: 'lip',
      lengthMm,
      widths: ramped(flange.flat, (mm) => mm + flange.deductionMm),
      weld: unrolled(turned, cos),
    };
  const curvatures = turned.map((s) =>
    isStraight(s) ? 0 : (s.bulge > 0 ? -1 : 1) / arcOf(s).radius,
  );
  const most = curvatures.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);
  // Both legs over the outside of the bend, less what the bend takes: the flat of the standing leg
  // has that taken off.
  const standing = most === 0 ? 0 : -most * mostOfRamp(flange.flat) * cos;
  return {
    kind: 'angle',
    lengthMm,
    widths: ramped(flange.flat, (mm) => landMm + mm),
    foldInMm: landMm - flange.setbackMm + flange.allowanceMm / 2,
    standing,
  };
}

/**
 * A run gone backward, its turning angles scaled by `cos` and its lengths kept, from the origin to
 * the right.
 */
function unrolled(run: readonly Segment[], cos: number): Segment[] {
  const back = [...run].reverse().map(reversed);
  let [at, heading]: [Vec, number] = [[0, 0], 0];
  return back.map((s, i): Segment => {
    const before = back[i - 1];
    if (before) {
      const [from, to] = [directionAt(before, 1), directionAt(s, 0)];
      heading += Math.atan2(cross(from, to), dot(from, to)) * cos;
    }
    const sweep = 4 * Math.atan(s.bulge) * cos;
    const long = segmentLength(s);
    const chord = Math.abs(sweep) < 1e-12 ? long : (2 * long * Math.sin(sweep / 2)) / sweep;
    const way = heading + sweep / 2;
    const a = at;
    at = [a[0] + chord * Math.cos(way), a[1] + chord * Math.sin(way)];
    heading += sweep;
    return { a, b: at, bulge: isStraight(s) || Math.abs(sweep) < 1e-9 ? 0 : Math.tan(sweep / 4) };
  });
}

/** The radii along the weld of a lip laid flat, mm, each once as they follow; null for straight. */
export const radiiAlong = (weld: readonly Segment[]): (number | null)[] =>
  weld
    .map((s) => (isStraight(s) ? null : arcOf(s).radius))
    .filter((r, i, all) => i === 0 || !isSame(r, all[i - 1]!));

const isSame = (a: number | null, b: number | null): boolean =>
  a === null || b === null ? a === b : Math.abs(a - b) < ONE_RADIUS * Math.max(a, b);
