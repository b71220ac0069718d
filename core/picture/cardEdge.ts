import type { Vec } from '../measure/vector';
import { along, left, right, sub, unit } from '../measure/vector';
import type { Picture } from './picture';
import { colourAt, isOn } from './picture';
import type { PlaneView } from './straighten';
import { picturing } from './straighten';

/**
 * The rim of a region is pixels; maximum distance to either side at which the true edge is looked
 * for, mm.
 */
const REACH_MM = 2.4;
/** Distance from the edge within which a pixel belongs to neither side for sure, mm. */
const UNSURE_MM = 0.8;
/**
 * Colours of the two sides nearer to each other than this are no edge, nor where within a side they
 * differ by this share of it.
 */
const MIN_APART = 5;
const MAX_UNEVEN = 0.4;
/** Distance between the profiles taken side by side along the edge, mm, and their number. */
const BESIDE_MM = 0.35;
const BESIDE = 3;
const SAMPLES = 49;

/** Places evenly along a closed rim, with the direction outward; the rim's steps smoothed out. */
export function evenly(
  rim: readonly Vec[],
  everyMm: number,
  smoothMm: number,
): { at: Vec; out: Vec }[] {
  const n = rim.length;
  if (n < 8) return [];
  const step = Math.hypot(...sub(rim[1]!, rim[0]!)) || 1;
  const reach = Math.max(1, Math.min(Math.round(smoothMm / step), Math.floor(n / 8)));
  const smooth: Vec[] = [];
  let [sx, sy] = [0, 0];
  for (let k = -reach; k <= reach; k++) {
    sx += rim[(k + n) % n]![0];
    sy += rim[(k + n) % n]![1];
  }
  for (let i = 0; i < n; i++) {
    smooth.push([sx / (2 * reach + 1), sy / (2 * reach + 1)]);
    const [next, gone] = [rim[(i + reach + 1) % n]!, rim[(i - reach + n) % n]!];
    sx += next[0] - gone[0];
    sy += next[1] - gone[1];
  }
  const count = Math.max(8, Math.round((n * step * 0.8) / everyMm));
  return Array.from({ length: count }, (_, i) => {
    const at = Math.floor((i * n) / count);
    const ahead = sub(smooth[(at + reach) % n]!, smooth[(at - reach + n) % n]!);
    return { at: smooth[at]!, out: right(unit(ahead)) };
  });
}

/**
 * Where along an edge of the card one colour goes over into the other: the first place from inside
 * at which it is half way, both colours being taken from beside the edge just there, so that light
 * and shadow do not matter. Null where the two sides look alike.
 */
export function edgePlace(
  picture: Picture,
  view: PlaneView,
): (place: { at: Vec; out: Vec }, reachMm?: number) => Vec | null {
  const place = picturing(view);
  const seen = new Float64Array(3 * SAMPLES);
  const one = new Float64Array(3);
  return ({ at, out }, reachMm = REACH_MM) => {
    const beside = left(out);
    for (let i = 0; i < SAMPLES; i++) {
      const t = ((2 * i) / (SAMPLES - 1) - 1) * reachMm;
      seen.fill(0, 3 * i, 3 * i + 3);
      for (let b = 0; b < BESIDE; b++) {
        const [u, v] = place(along(along(at, out, t), beside, (b - (BESIDE - 1) / 2) * BESIDE_MM));
        if (!isOn(picture, u, v)) return null;
        colourAt(picture, u, v, one);
        for (let c = 0; c < 3; c++) seen[3 * i + c]! += one[c]! / BESIDE;
      }
    }
    const unsure = Math.min(UNSURE_MM, reachMm / 3);
    const from = Math.floor(((1 - unsure / reachMm) * (SAMPLES - 1)) / 2);
    const [inside, outside] = [middleOf(seen, 0, from), middleOf(seen, SAMPLES - from, SAMPLES)];
    const way = outside.map((x, c) => x - inside[c]!);
    const apart = way[0]! ** 2 + way[1]! ** 2 + way[2]! ** 2;
    if (apart < MIN_APART ** 2) return null;
    const share = (i: number) => {
      let sum = 0;
      for (let c = 0; c < 3; c++) sum += (seen[3 * i + c]! - inside[c]!) * way[c]!;
      return sum / apart;
    };
    if (uneven(share, 0, from, 0) || uneven(share, SAMPLES - from, SAMPLES, 1)) return null;
    // From the side that is card for sure.
    let before = share(Math.max(0, from - 8));
    for (let i = Math.max(1, from - 7); i < SAMPLES; i++) {
      const now = share(i);
      if (before <= 0.5 && now > 0.5) {
        // A speck is over again at once; an edge stays.
        if (i + 2 < SAMPLES && share(i + 2) < 0.5) {
          before = now;
          continue;
        }
        const t = ((2 * (i - 1 + (0.5 - before) / (now - before))) / (SAMPLES - 1) - 1) * reachMm;
        return along(at, out, t);
      }
      before = now;
    }
    return null;
  };
}

/**
 * Whether the middle one of some samples is farther from what they should be than an edge allows.
 */
function uneven(share: (i: number) => number, from: number, to: number, like: number): boolean {
  const off = Array.from({ length: to - from }, (_, i) => Math.abs(share(from + i) - like)).sort(
    (a, b) => a - b,
  );
  return off[off.length >> 1]! > MAX_UNEVEN;
}

/** The middle colour of some samples, each of red, green and blue by itself. */
function middleOf(seen: Float64Array, from: number, to: number): number[] {
  return [0, 1, 2].map((c) => {
    const values = [];
    for (let i = from; i < to; i++) values.push(seen[3 * i + c]!);
    values.sort((a, b) => a - b);
    return values[values.length >> 1] ?? 0;
  });
}
