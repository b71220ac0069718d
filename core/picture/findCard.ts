import type { Vec } from '../measure/vector';
import type { Mixture } from './mixture';
import { logLikelihood, mixtureOf, squaredDistance } from './mixture';
import { grown, means, regionsOf } from './regions';
import type { Region } from './regions';
import type { ShadowEdge } from './shadows';
import { shadowEdgeMm } from './shadows';
import type { StraightPicture } from './straightPicture';

/** Which pixels of a straight picture are card, and which of them lie in holes of it. */
export type FoundCard = {
  card: Uint8Array;
  holes: Region[];
  /** Whether it reaches to where it was looked for: some of it may be cut off. */
  cutOff: boolean;
};

/** Width of the rim from which the background is learnt, mm. */
const RIM_MM = 5;
/**
 * Threshold of the squared distance from the background's mixture above which a pixel is not
 * background.
 */
const STRANGE = 14;
const TURNS = 2;
/** One pixel alone says no more than this, for or against, as a log. */
const MAX_SAID = 5;
/** Of a card's pixels this much is said on the average, and as much against those of the bench. */
const MIN_SAID = 1;
const MAX_SAMPLES = 3000;
/** A card covers this share of where it is looked for at least. */
const MIN_SHARE = 0.004;
/** Narrower than this is a pencil line or a thread, mm. */
const THREAD_MM = 1.2;
/** What is darker than this share of the card's brightness is no card. */
const SHADE = 0.55;
/** Smallest hole that is looked for, mm across. */
const MIN_HOLE_MM = 2.5;

/**
 * The card in a straight picture: what differs from what is seen along the rim of where it is
 * looked for (bench, paper, a black middle), in colour and brightness, each learnt from the picture
 * itself: first the background alone, then both kinds in turn (after Rother, Kolmogorov & Blake
 * 2004, with a mean over neighbours in place of a cut). Null where nothing differs.
 *
 * @param straight the picture
 * @param where 1 for each pixel of where the card is looked for
 * @param lit how bright white is at each pixel: what is dark there is dark by itself and not by a
 * shadow
 * @param shadows the hard shadows whose edges lie across: beside them it is not sure how bright
 * white is
 */
export function findCard(
  straight: StraightPicture,
  where: Uint8Array,
  lit: Float32Array,
  shadows: readonly ShadowEdge[],
): FoundCard | null {
  const { width, height, stepMm } = straight;
  const figures = figuresOf(straight, lit);
  const rimPx = Math.max(2, Math.round(RIM_MM / stepMm));
  const inner = grown(where, width, height, -rimPx);
  const rim = without(where, inner);
  let bench = mixtureOf(samplesOf(figures, rim), 5);
  if (!bench) return null;
  const said = new Float32Array(where.length).fill(-1);
  for (let i = 0; i < said.length; i++) {
    if (
      where[i] &&
      squaredDistance(bench, figures[3 * i]!, figures[3 * i + 1]!, figures[3 * i + 2]!) > STRANGE
    )
      said[i] = 1;
  }
  bridge(said, straight, shadows);
  let card = largest(said, straight, where);
  if (!card) {
    // A card much like the bench: what lies in the middle is taken for card.
    const own = mixtureOf(samplesOf(figures, middleOf(where, width, height)), 3);
    if (!own) return null;
    weigh(said, figures, where, own, bench);
    bridge(said, straight, shadows);
    card = largest(said, straight, where);
  }
  for (let turn = 0; card && turn < TURNS; turn++) {
    const is = card;
    const sure = grown(is, width, height, -Math.max(1, Math.round(1 / stepMm)));
    const outside = without(where, is);
    const own: Mixture | null = mixtureOf(samplesOf(figures, sure), 3);
    bench = mixtureOf(samplesOf(figures, outside), 5) ?? bench;
    if (!own) return null;
    weigh(said, figures, where, own, bench);
    bridge(said, straight, shadows);
    card = largest(said, straight, where);
  }
  if (!card || !standsOut(said, card, where)) return null;
  const whole = filled(card, width, height);
  return {
    card: whole,
    holes: holesIn(whole, openedTo(said, whole, figures), straight),
    cutOff: touches(whole, where, width, height),
  };
}

/** For each pixel how much more likely it is card than bench, as a log. */
function weigh(
  said: Float32Array,
  figures: Float32Array,
  where: Uint8Array,
  own: Mixture,
  bench: Mixture,
): void {
  for (let i = 0; i < said.length; i++) {
    if (!where[i]) continue;
    const x = figures[3 * i]!;
    const y = figures[3 * i + 1]!;
    const z = figures[3 * i + 2]!;
    said[i] = Math.max(
      -MAX_SAID,
      Math.min(MAX_SAID, logLikelihood(own, x, y, z) - logLikelihood(bench, x, y, z)),
    );
  }
}

/**
 * Whether card and bench are told apart by what is said of most of their pixels: two that look
 * alike are none.
 */
function standsOut(said: Float32Array, card: Uint8Array, where: Uint8Array): boolean {
  const [sums, counts] = [
    [0, 0],
    [0, 0],
  ];
  for (let i = 0; i < said.length; i++) {
    if (!where[i]) continue;
    sums[card[i]!]! += said[i]!;
    counts[card[i]!]!++;
  }
  return sums[1]! > MIN_SAID * counts[1]! && sums[0]! < -MIN_SAID * counts[0]!;
}

/** The middle third, in width and height, of where a card is looked for. */
function middleOf(where: Uint8Array, width: number, height: number): Uint8Array {
  const found = new Uint8Array(where.length);
  for (let y = Math.floor(height / 3); y < (2 * height) / 3; y++)
    for (let x = Math.floor(width / 3); x < (2 * width) / 3; x++)
      found[y * width + x] = where[y * width + x]!;
  return found;
}

/**
 * Beside the edge of a shadow, where it is not sure how bright white is, what is said is said
 * between both sides of it.
 */
function bridge(
  said: Float32Array,
  straight: StraightPicture,
  shadows: readonly ShadowEdge[],
): void {
  const { width, height, stepMm } = straight;
  const half = shadowEdgeMm(straight) / stepMm;
  for (const { nx, ny, c } of shadows) {
    const at = (x: number, y: number) =>
      said[
        Math.min(height - 1, Math.max(0, y | 0)) * width + Math.min(width - 1, Math.max(0, x | 0))
      ]!;
    const before = Float32Array.from(said);
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++) {
        const off = nx * (x + 0.5) + ny * (y + 0.5) - c;
        if (Math.abs(off) >= half) continue;
        const [down, up] = [-half - off, half - off];
        const low = at(x + 0.5 + nx * down, y + 0.5 + ny * down);
        const high = at(x + 0.5 + nx * up, y + 0.5 + ny * up);
        before[i] = (low * up - high * down) / (2 * half);
      }
    said.set(before);
  }
}

/**
 * Brightness against what white would be there, and two colours that a shadow does not change; all
 * of some 0 to 255.
 */
function figuresOf({ data, width, height }: StraightPicture, lit: Float32Array): Float32Array {
  const found = new Float32Array(3 * width * height);
  for (let i = 0, k = 0; i < found.length; i += 3, k += 4) {
    const r = data[k]!;
    const g = data[k + 1]!;
    const b = data[k + 2]!;
    const bright = 0.3 * r + 0.59 * g + 0.11 * b;
    found[i] = (210 * bright) / lit[i / 3]!;
    found[i + 1] = (160 * (r - g)) / (bright + 24);
    found[i + 2] = (160 * (b - g)) / (bright + 24);
  }
  return found;
}

/** What is set in the one and not in the other. */
function without(all: Uint8Array, some: Uint8Array): Uint8Array {
  const found = new Uint8Array(all.length);
  for (let i = 0; i < found.length; i++) if (all[i] && !some[i]) found[i] = 1;
  return found;
}

function samplesOf(figures: Float32Array, of: Uint8Array): Float64Array {
  let count = 0;
  for (const is of of) count += is;
  const every = Math.max(1, Math.floor(count / MAX_SAMPLES));
  const found: number[] = [];
  let seen = 0;
  for (let i = 0; i < of.length; i++)
    if (of[i] && seen++ % every === 0)
      found.push(figures[3 * i]!, figures[3 * i + 1]!, figures[3 * i + 2]!);
  return Float64Array.from(found);
}

/**
 * The largest region of what is said to be card, neighbours heard and threads cut; null where it is
 * small.
 */
function largest(
  said: Float32Array,
  { width, height, stepMm }: StraightPicture,
  where: Uint8Array,
): Uint8Array | null {
  const reach = Math.max(1, Math.round(0.6 / stepMm));
  const heard = means(said, width, height, reach);
  const thread = Math.max(1, Math.round(THREAD_MM / 2 / stepMm));
  const is = new Uint8Array(heard.length);
  for (let i = 0; i < is.length; i++) if (heard[i]! > 0 && where[i]) is[i] = 1;
  // Closed first: a pencil line that runs across must not part the card.
  const closed = grown(grown(is, width, height, thread), width, height, -thread);
  const open = grown(grown(closed, width, height, -thread), width, height, thread);
  const whole = regionsOf(open, width, height, where.length * MIN_SHARE);
  const most = whole.reduce<Region | null>(
    (best, one) => (!best || one.pixels.length > best.pixels.length ? one : best),
    null,
  );
  if (!most) return null;
  const card = new Uint8Array(open.length);
  for (const at of most.pixels) card[at] = 1;
  return card;
}

function filled(card: Uint8Array, width: number, height: number): Uint8Array {
  const full = Uint8Array.from(card);
  for (const region of gapsOf(card, width, height, 1)) for (const at of region.pixels) full[at] = 1;
  return full;
}

/** What is not card and lies all round in card. */
const gapsOf = (card: Uint8Array, width: number, height: number, least: number): Region[] =>
  regionsOf(without(new Uint8Array(card.length).fill(1), card), width, height, least).filter(
    ({ x0, y0, x1, y1 }) => x0 > 0 && y0 > 0 && x1 < width - 1 && y1 < height - 1,
  );

/**
 * Within the card, what is much darker than the card is as if something else were seen there: a
 * hole in the shade.
 */
function openedTo(said: Float32Array, card: Uint8Array, figures: Float32Array): Float32Array {
  const some: number[] = [];
  for (let i = 0; i < card.length; i += 13) if (card[i]) some.push(figures[3 * i]!);
  some.sort((a, b) => a - b);
  const dark = SHADE * (some[some.length >> 1] ?? 0);
  const found = Float32Array.from(said);
  for (let i = 0; i < found.length; i++)
    if (card[i] && figures[3 * i]! < dark) found[i] = -MAX_SAID;
  return found;
}

/** Regions within the card that look like what lies under it, and are no thread. */
function holesIn(
  card: Uint8Array,
  said: Float32Array,
  { width, height, stepMm }: StraightPicture,
): Region[] {
  const reach = Math.max(1, Math.round(0.4 / stepMm));
  const heard = means(said, width, height, reach);
  const inside = grown(card, width, height, -Math.max(1, Math.round(1 / stepMm)));
  const is = new Uint8Array(heard.length);
  for (let i = 0; i < is.length; i++) if (inside[i] && heard[i]! < 0) is[i] = 1;
  const thread = Math.max(1, Math.round(THREAD_MM / 2 / stepMm));
  const open = grown(grown(is, width, height, -thread), width, height, thread);
  const least = (Math.PI * (MIN_HOLE_MM / 2) ** 2 * 0.6) / stepMm ** 2;
  return regionsOf(open, width, height, least);
}

/** Whether more than a corner of the card reaches to where looking ends. */
function touches(card: Uint8Array, where: Uint8Array, width: number, height: number): boolean {
  const inner = grown(where, width, height, -2);
  let [rim, area] = [0, 0];
  for (let i = 0; i < card.length; i++) {
    area += card[i]!;
    if (card[i] && !inner[i]) rim++;
  }
  return rim > Math.sqrt(area) * 0.05 + 4;
}

/**
 * The outline of a region of set pixels, along the pixels' sides, in pixels from the upper left, as
 * seen counter-clockwise with y up.
 */
export function rimOf(mask: Uint8Array, width: number, height: number): Vec[] {
  const first = mask.indexOf(1);
  if (first < 0) return [];
  const set = (x: number, y: number) =>
    x >= 0 && y >= 0 && x < width && y < height && mask[y * width + x] === 1;
  // With the region on the left of the way (y up), which is on the right hand as rows run down:
  // down the first pixel's left side.
  let [x, y] = [first % width, Math.floor(first / width)];
  const start: Vec = [x, y];
  let [dx, dy] = [0, 1];
  const rim: Vec[] = [];
  do {
    rim.push([x, y]);
    x += dx;
    y += dy;
    // The two pixels ahead: on the side of the region, and on the other.
    const [ax, ay] = [x + (dx + dy - 1) / 2, y + (dy - dx - 1) / 2];
    const [bx, by] = [x + (dx - dy - 1) / 2, y + (dy + dx - 1) / 2];
    if (!set(ax, ay)) [dx, dy] = [dy, -dx];
    else if (set(bx, by)) [dx, dy] = [-dy, dx];
  } while (
    (x !== start[0] || y !== start[1] || dx !== 0 || dy !== 1) &&
    rim.length < 4 * mask.length
  );
  return rim;
}
