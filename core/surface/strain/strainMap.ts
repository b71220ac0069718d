import type { Vec } from '../../measure/vector';
import type { Disc } from '../mesh/disc';
import { sidesOf } from '../mesh/disc';
import type { SideLine } from '../mesh/isoLines';
import { isoLines } from '../mesh/isoLines';
import type { Panel } from './strain';
import { strainsOf } from './strain';

/** Which of the two ways metal has to go. */
export type Way = 'stretch' | 'shrink';

/**
 * What has to be done to each vertex of a flat to make it the panel, as a mean over its triangles:
 * the greatest stretch and the greatest shrink there, both 0 or above, and what the area grows by
 * (below 0: what is lost).
 */
export type StrainMap = { stretch: Float64Array; shrink: Float64Array; area: Float64Array };

export function strainMap(panel: Panel, flat: Float64Array): StrainMap {
  const strains = strainsOf(panel, flat);
  const count = flat.length / 2;
  const weight = new Float64Array(count);
  const [stretch, shrink, area] = [
    new Float64Array(count),
    new Float64Array(count),
    new Float64Array(count),
  ];
  for (let t = 0; t < panel.area.length; t++) {
    const [more, less] = [strains[2 * t]!, strains[2 * t + 1]!];
    for (let k = 0; k < 3; k++) {
      const v = panel.triangles[3 * t + k]!;
      weight[v]! += panel.area[t]!;
      stretch[v]! += panel.area[t]! * Math.max(0, more);
      shrink[v]! += panel.area[t]! * Math.max(0, -less);
      area[v]! += panel.area[t]! * ((1 + more) * (1 + less) - 1);
    }
  }
  for (let v = 0; v < count; v++)
    for (const values of [stretch, shrink, area]) values[v]! /= weight[v]! || 1;
  return { stretch, shrink, area };
}

/**
 * Values at vertices, each half its own and half what its triangles have in the mean: lines of
 * equal value then do not follow every side of the net.
 */
function smoothedOver({ triangles, area }: Panel, values: Float64Array): Float64Array {
  const [sum, weight] = [new Float64Array(values.length), new Float64Array(values.length)];
  for (let t = 0; t < area.length; t++) {
    const corners = triangles.subarray(3 * t, 3 * t + 3);
    const mean = corners.reduce((total, v) => total + values[v]! / 3, 0);
    for (const v of corners) {
      sum[v]! += area[t]! * mean;
      weight[v]! += area[t]!;
    }
  }
  return values.map((value, v) => (value + sum[v]! / (weight[v]! || 1)) / 2);
}

/** Rounds of evening out before lines are drawn: an uneven net shows as ragged lines. */
const EVENED = 3;
export function evened(panel: Panel, values: Float64Array): Float64Array {
  let found = values;
  for (let i = 0; i < EVENED; i++) found = smoothedOver(panel, found);
  return found;
}

/** Steps that a bench can tell apart, as shares. */
const STEPS = [0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5];
/** No more lines than this one within another. */
const MAX_LINES = 6;

/** The step between contour lines for a map whose greatest value is `most`. */
export const benchStep = (most: number): number =>
  STEPS.find((step) => most / step <= MAX_LINES) ?? 0.5;

/** A line of equal value over the panel. */
export type Contour = SideLine & { value: number };

/** Lines of equal value at every step above 0. */
export function contours(panel: Panel, values: Float64Array, step: number): Contour[] {
  const most = values.reduce((a, b) => Math.max(a, b), 0);
  const found: Contour[] = [];
  for (let value = step; value < most; value += step)
    found.push(...isoLines(panel.triangles, values, value).map((line) => ({ ...line, value })));
  return found;
}

/**
 * A part of the panel where metal is to be gained, or lost, all over: mean change of its area, how
 * large it is on the flat and by how much it changes, mm²; its middle in the flat; whether it
 * reaches the rim.
 */
export type Zone = {
  way: Way;
  share: number;
  flatMm2: number;
  changeMm2: number;
  middle: Vec;
  atRim: boolean;
  most: number;
};

/**
 * Changes of area below this share of the greatest belong to no zone, nor do those below a
 * thousandth.
 */
const COUNTS = 0.15;
/** A zone smaller than this share of the blank is not told. */
const SMALL_ZONE = 0.02;

/** The zones of a flat, those that change most first. */
export function zonesOf({ mesh, rim }: Disc, panel: Panel, flat: Float64Array): Zone[] {
  const strains = strainsOf(panel, flat);
  const { across } = sidesOf(mesh);
  const change = Float64Array.from(
    panel.area,
    (_, t) => (1 + strains[2 * t]!) * (1 + strains[2 * t + 1]!) - 1,
  );
  const greatest = change.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  const enough = Math.max(0.001, greatest * COUNTS);
  const sign = (t: number): number => (Math.abs(change[t]!) < enough ? 0 : Math.sign(change[t]!));
  const onRim = new Uint8Array(flat.length / 2);
  for (const v of rim) onRim[v] = 1;
  const seen = new Uint8Array(change.length);
  const zones: Zone[] = [];
  let whole = 0;
  for (let start = 0; start < change.length; start++) {
    whole += panel.area[start]! / (1 + change[start]!);
    if (seen[start] || sign(start) === 0) continue;
    const waiting = [start];
    seen[start] = 1;
    let [flatMm2, changeMm2, x, y, most] = [0, 0, 0, 0, 0];
    let atRim = false;
    for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
      const size = panel.area[at]! / (1 + change[at]!);
      flatMm2 += size;
      changeMm2 += size * change[at]!;
      most = Math.max(most, Math.abs(change[at]!));
      for (let k = 0; k < 3; k++) {
        const v = panel.triangles[3 * at + k]!;
        x += (size * flat[2 * v]!) / 3;
        y += (size * flat[2 * v + 1]!) / 3;
        if (onRim[v]) atRim = true;
        const beyond = across[3 * at + k]!;
        const next = Math.floor(beyond / 3);
        if (beyond < 0 || seen[next] || sign(next) !== sign(start)) continue;
        seen[next] = 1;
        waiting.push(next);
      }
    }
    zones.push({
      way: changeMm2 > 0 ? 'stretch' : 'shrink',
      share: changeMm2 / flatMm2,
      flatMm2,
      changeMm2,
      middle: [x / flatMm2, y / flatMm2],
      atRim,
      most,
    });
  }
  return zones
    .filter((zone) => zone.flatMm2 > SMALL_ZONE * whole)
    .sort((a, b) => Math.abs(b.changeMm2) - Math.abs(a.changeMm2));
}
