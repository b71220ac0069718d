import { curvatureOf } from '../mesh/curvature';
import type { Disc } from '../mesh/disc';
import { dot3, vertexAt, vertexCount } from '../mesh/mesh';
import type { SharePart } from './part';
import { spanOf } from './part';

/**
 * A hand’s width, mm: minimum distance of a weld from edges and from high crown, mm (common
 * practice: it can be got at and planished).
 */
export const HAND_MM = 100;
/** On a panel that leaves no such room, this share of it. */
const MIN_SHARE = 0.25;
/** Cuts are looked for so close to one another, as shares. */
const STEP = 0.05;
/** Crown along a cut above this multiple of the panel's mean is high crown. */
const HIGH = 1.5;

/**
 * A cut that may be made: which way, at what share. `crown`: how much crown lies within half a hand
 * of it against the mean.
 */
export type PartPlace = { runs: SharePart['runs']; share: number; crown: number };

/**
 * Where a panel may be parted by a straight cut: a hand’s width off its ends, and not through high
 * crown where it can be parted anywhere else. `most` of each way, evenly over what is left.
 */
export function partPlaces(disc: Disc, most: number): PartPlace[] {
  const { at } = curvatureOf(disc);
  for (const v of disc.rim) at[v] = 0;
  return (['across', 'along'] as const).flatMap((runs) => {
    const { normal, from, to } = spanOf(disc, runs);
    const long = to - from;
    if (long <= 0) return [];
    const clear = Math.min(MIN_SHARE, HAND_MM / long);
    const reach = Math.min(HAND_MM / 2, long * clear);
    const heights = Float64Array.from(
      { length: vertexCount(disc.mesh) },
      (_, v) => dot3(vertexAt(disc.mesh, v), normal) - from,
    );
    const whole = at.reduce((sum, x) => sum + Math.abs(x), 0);
    const places: PartPlace[] = [];
    for (let k = Math.ceil(clear / STEP - 1e-9); k * STEP <= 1 - clear + 1e-9; k++) {
      const share = Math.round(k * STEP * 100) / 100;
      let near = 0;
      heights.forEach((h, v) => {
        if (Math.abs(h - share * long) < reach) near += Math.abs(at[v]!);
      });
      places.push({
        runs,
        share,
        crown: whole > 1e-9 ? near / (whole * Math.min(1, (2 * reach) / long)) : 0,
      });
    }
    const low = places.filter(({ crown }) => crown <= HIGH);
    const left = low.length > 0 ? low : places;
    const every = Math.max(1, left.length / most);
    return Array.from(
      { length: Math.min(most, left.length) },
      (_, i) => left[Math.floor((i + 0.5) * every)]!,
    );
  });
}
