import type { Vec } from '../measure/vector';
import { along, distance, dot, sub } from '../measure/vector';
import { circleOf, lineOf } from './fitOutline';
import { grown, means, regionsOf } from './regions';
import type { StraightPicture } from './straightPicture';
import { placeOf } from './straightPicture';

export type Strokes = {
  /** Straight lines, from end to end, mm. */
  lines: [Vec, Vec][];
  /** Rings, by the middle of their stroke, mm. */
  rings: { centre: Vec; radius: number }[];
};

/**
 * Minimum contrast of a stroke with the card about it, as a share, and in multiples of the card's
 * grain.
 */
const DARKER = 0.07;
const OVER_GRAIN = 3.5;
/** A stroke is no wider than this, mm. */
const WIDEST_STROKE_MM = 4;
/** Width along the rim of the card in which no strokes are looked for, mm. */
const OFF_RIM_MM = 1.3;
const SHORTEST_LINE_MM = 10;
/** A line's pixels lie within this of it, and a gap in it is no longer than that, mm. */
const HALF_STROKE_MM = 0.9;
const LONGEST_GAP_MM = 5;
/** Minimum share of a line between its ends that is seen. */
const DRAWN = 0.5;
const MAX_LINES = 60;
const MAX_PIXELS = 30_000;
/**
 * Number of directions in which a ring is looked for, the minimum of them in which it is seen, and
 * its maximum deviation from round, as a share of its radius.
 */
const DIRECTIONS = 24;
const CLOSED = 17;
const OUT_OF_ROUND = 0.14;
const RADII: readonly [number, number] = [1.5, 60];

/**
 * What is drawn on a card in pencil, marker or crayon: rings of bolt holes first, then straight
 * lines, the longest first.
 */
export function strokesOn(straight: StraightPicture, card: Uint8Array): Strokes {
  const dark = darkOn(straight, card);
  const { width, height, stepMm } = straight;
  const rings: Strokes['rings'] = [];
  const place = (at: number): Vec =>
    placeOf(straight, (at % width) + 0.5, Math.floor(at / width) + 0.5);
  for (const { pixels } of regionsOf(
    joinedUp(dark, width, height),
    width,
    height,
    Math.ceil(6 / stepMm),
  )) {
    const own = Array.from(pixels).filter((at) => dark[at]);
    const ring = ringOf(thin(own, 1500).map(place), stepMm);
    if (!ring) continue;
    rings.push(ring);
    for (const at of pixels) dark[at] = 0;
  }
  const left: Vec[] = [];
  const set: number[] = [];
  for (let at = 0; at < dark.length; at++) if (dark[at]) set.push(at);
  for (const at of thin(set, MAX_PIXELS)) left.push(place(at));
  return {
    rings,
    lines: linesThrough(left, stepMm * Math.max(1, Math.sqrt(set.length / MAX_PIXELS))),
  };
}

/** Neighbours across a corner, or one pixel off, belong together. */
const joinedUp = (dark: Uint8Array, width: number, height: number) => grown(dark, width, height, 1);
const thin = <T>(all: readonly T[], most: number): T[] => {
  const every = Math.ceil(all.length / most);
  return every <= 1 ? [...all] : all.filter((_, i) => i % every === 0);
};

/**
 * What is darker than what lies on either side of it: the card closed over what is narrow (the
 * brightest about each pixel, of that the darkest), less the card itself. The edge of a shadow
 * stays as it is and is none.
 */
function darkOn(straight: StraightPicture, card: Uint8Array): Uint8Array {
  const { width, height, data, stepMm } = straight;
  const bright = new Uint8Array(width * height);
  for (let i = 0, k = 0; i < bright.length; i++, k += 4)
    if (card[i]) bright[i] = 0.3 * data[k]! + 0.59 * data[k + 1]! + 0.11 * data[k + 2]!;
  const heard = stepMm < 0.3 ? Uint8Array.from(means(bright, width, height, 1)) : bright;
  const reach = Math.max(2, Math.round(WIDEST_STROKE_MM / 2 / stepMm));
  const closed = inverse(
    brightest(inverse(brightest(heard, width, height, reach)), width, height, reach),
  );
  const inside = grown(card, width, height, -Math.max(1, Math.round(OFF_RIM_MM / stepMm)));
  const under = new Float32Array(bright.length);
  const some: number[] = [];
  for (let i = 0; i < bright.length; i++) {
    if (!inside[i]) continue;
    under[i] = (closed[i]! - heard[i]!) / Math.max(1, closed[i]!);
    if (i % 37 === 0) some.push(under[i]!);
  }
  // Closing rests on the brightest grain: what is usual stands under it by the grain's height.
  some.sort((a, b) => a - b);
  const usual = some[some.length >> 1] ?? 0;
  const grain = (1.48 * ((some[Math.floor(some.length * 0.75)] ?? 0) - usual)) / 0.67;
  const least = usual + Math.max(DARKER, OVER_GRAIN * grain);
  const dark = new Uint8Array(under.length);
  for (let i = 0; i < dark.length; i++) if (under[i]! > least) dark[i] = 1;
  return dark;
}

const inverse = (data: Uint8Array): Uint8Array => {
  const found = new Uint8Array(data.length);
  for (let i = 0; i < found.length; i++) found[i] = 255 - data[i]!;
  return found;
};

/** The brightest within each pixel's square: along rows, then columns. */
function brightest(data: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  const rows = new Uint8Array(data.length);
  for (let y = 0; y < height; y++) slide(data, rows, y * width, 1, width, reach);
  const found = new Uint8Array(data.length);
  for (let x = 0; x < width; x++) slide(rows, found, x, width, height, reach);
  return found;
}

/**
 * Van Herk's and Gil's and Werman's: blocks of the window's length, from their beginnings and from
 * their ends.
 */
function slide(
  from: Uint8Array,
  into: Uint8Array,
  start: number,
  step: number,
  count: number,
  reach: number,
): void {
  const block = 2 * reach + 1;
  const ahead = new Uint8Array(count);
  const back = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const value = from[start + i * step]!;
    ahead[i] = i % block === 0 || value > ahead[i - 1]! ? value : ahead[i - 1]!;
  }
  for (let i = count - 1; i >= 0; i--) {
    const value = from[start + i * step]!;
    back[i] =
      i === count - 1 || i % block === block - 1 || value > back[i + 1]! ? value : back[i + 1]!;
  }
  for (let i = 0; i < count; i++) {
    const before = back[i < reach ? 0 : i - reach]!;
    const after = ahead[i + reach < count ? i + reach : count - 1]!;
    into[start + i * step] = before > after ? before : after;
  }
}

/** The ring that some dark places are; null where they are none. */
function ringOf(places: readonly Vec[], stepMm: number): Strokes['rings'][number] | null {
  const circle = places.length >= 12 ? circleOf(places) : null;
  if (!circle || circle.radius < RADII[0] || circle.radius > RADII[1]) return null;
  const off = Math.sqrt(
    places.reduce((sum, p) => sum + (distance(p, circle.centre) - circle.radius) ** 2, 0) /
      places.length,
  );
  if (off > OUT_OF_ROUND * circle.radius + stepMm) return null;
  const seen = new Set(
    places.map(([x, y]) => {
      const turn = Math.atan2(y - circle.centre[1], x - circle.centre[0]) / (2 * Math.PI) + 1;
      return Math.floor(turn * DIRECTIONS) % DIRECTIONS;
    }),
  );
  return seen.size >= CLOSED ? circle : null;
}

const ANGLES = 180;

/**
 * The longest straight rows of places, one after another, each without the places of those before
 * (Hough 1962).
 */
function linesThrough(places: readonly Vec[], stepMm: number): [Vec, Vec][] {
  if (places.length < 8) return [];
  const middle: Vec = [
    places.reduce((s, p) => s + p[0], 0) / places.length,
    places.reduce((s, p) => s + p[1], 0) / places.length,
  ];
  const reach = Math.max(...places.map((p) => distance(p, middle))) + 2;
  const bins = Math.ceil((2 * reach) / HALF_STROKE_MM) + 2;
  const votes = new Int32Array(ANGLES * bins);
  const ways = Array.from({ length: ANGLES }, (_, a): Vec => [
    Math.cos((a * Math.PI) / ANGLES),
    Math.sin((a * Math.PI) / ANGLES),
  ]);
  const vote = (p: Vec, by: number) => {
    const q = sub(p, middle);
    for (let a = 0; a < ANGLES; a++)
      votes[a * bins + Math.round((dot(q, ways[a]!) + reach) / HALF_STROKE_MM)]! += by;
  };
  for (const p of places) vote(p, 1);
  let left = [...places];
  const found: [Vec, Vec][] = [];
  const least = Math.max(6, (SHORTEST_LINE_MM * DRAWN) / stepMm);
  for (let turn = 0; turn < 3 * MAX_LINES && found.length < MAX_LINES; turn++) {
    let at = 0;
    for (let i = 1; i < votes.length; i++) if (votes[i]! > votes[at]!) at = i;
    if (votes[at]! < least) break;
    const normal = ways[Math.floor(at / bins)]!;
    const rho = (at % bins) * HALF_STROKE_MM - reach;
    const row = longestRow(left, middle, normal, rho);
    const gone = new Set(
      row.length > 0
        ? row
        : left.filter((p) => Math.abs(dot(sub(p, middle), normal) - rho) <= HALF_STROKE_MM),
    );
    const line = endsOf(row, stepMm);
    if (line) {
      found.push(line);
      for (const p of left) if (nearLine(p, line)) gone.add(p);
    }
    for (const p of gone) vote(p, -1);
    left = left.filter((p) => !gone.has(p));
    if (gone.size === 0) break;
  }
  return found;
}

function nearLine(p: Vec, [a, b]: [Vec, Vec]): boolean {
  const l = distance(a, b);
  const way: Vec = [(b[0] - a[0]) / l, (b[1] - a[1]) / l];
  const q = sub(p, a);
  const x = dot(q, way);
  return x > -1 && x < l + 1 && Math.abs(q[0] * way[1] - q[1] * way[0]) < 2 * HALF_STROKE_MM;
}

/** The longest row without a gap among the places near a line. */
function longestRow(places: readonly Vec[], middle: Vec, normal: Vec, rho: number): Vec[] {
  const way: Vec = [-normal[1], normal[0]];
  // A degree over a long line is more than a stroke: the line is made better by what lies near it,
  // twice.
  let [at, ahead]: [Vec, Vec] = [along(middle, normal, rho), way];
  let row: Vec[] = [];
  for (const within of [2 * HALF_STROKE_MM, 1.4 * HALF_STROKE_MM, HALF_STROKE_MM]) {
    const near = places
      .filter((p) => Math.abs((p[0] - at[0]) * ahead[1] - (p[1] - at[1]) * ahead[0]) <= within)
      .map((p) => ({ p, x: dot(sub(p, at), ahead) }))
      .sort((a, b) => a.x - b.x);
    let [best, from] = [[0, 0], 0];
    for (let i = 1; i <= near.length; i++)
      if (i === near.length || near[i]!.x - near[i - 1]!.x > LONGEST_GAP_MM) {
        if (
          i > from &&
          near[i - 1]!.x - near[from]!.x > (near[best[1]! - 1]?.x ?? 0) - (near[best[0]!]?.x ?? 0)
        )
          best = [from, i];
        from = i;
      }
    row = near.slice(best[0], best[1]).map(({ p }) => p);
    if (row.length < 6) return row;
    const line = lineOf(row);
    [at, ahead] = [line.at, line.way];
  }
  return row;
}

/** A row of places as a line from end to end; null where it is too short or too thin. */
function endsOf(row: readonly Vec[], stepMm: number): [Vec, Vec] | null {
  if (row.length < 6) return null;
  const { at, way } = lineOf(row);
  const all = row.map((p) => dot(sub(p, at), way)).sort((a, b) => a - b);
  const [from, to] = [all[0]! - stepMm / 2, all[all.length - 1]! + stepMm / 2];
  if (to - from < SHORTEST_LINE_MM || all.length * stepMm < DRAWN * (to - from)) return null;
  // What is as wide as long is a blot.
  const wide = Math.sqrt(
    row.reduce((sum, p) => sum + ((p[0] - at[0]) * way[1] - (p[1] - at[1]) * way[0]) ** 2, 0) /
      row.length,
  );
  return wide > HALF_STROKE_MM ? null : [along(at, way, from), along(at, way, to)];
}
