import { polygonArea } from '../measure/path';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { adjustNetwork } from '../measure/network/network';
import type { Vec } from '../measure/vector';
import { mix, sub } from '../measure/vector';
import type { FoundAngle } from './findAngles';
import { HULL, findAngles } from './findAngles';
import type { Homography } from './homography';
import { homographyThrough, mapped } from './homography';
import type { Picture } from './picture';
import { brightness, shrunk } from './picture';
import type { Paper, Standing } from './scaleFrame';
import {
  ARM_WIDE,
  BAR_WIDE,
  CORNERS,
  LOOSE_SIZE,
  PAPERS,
  RIM,
  loosePaper,
  scaleFrame,
  stood,
} from './scaleFrame';
import type { PlaneView } from './straighten';
import { centred, straightened, toMm } from './straighten';

/**
 * A distance taped between two loose corner cards, by their names; ± one standard deviation, mm.
 */
export type CornerTape = { from: string; to: string; mm: number; uMm?: number };

/**
 * What tells how large things in a picture are: a printed frame (`printedMm`: how wide and high its
 * marks measure on the paper, outside to outside, where the printer did not print true), four loose
 * corner cards and the tapes between them, a scanner's resolution, or places that were pointed at
 * and where they are on the plane.
 */
export type Scale =
  | { kind: 'paper'; paper: Paper; printedMm?: readonly [number, number] | null }
  | { kind: 'corners'; tapes: readonly CornerTape[] }
  | { kind: 'scan'; dpi: number }
  | { kind: 'places'; places: readonly { at: Vec; mm: Vec }[] };

/**
 * How a picture shows the plane, where the card is looked for in it, and where white is to be seen.
 */
export type FoundFrame = {
  view: PlaneView;
  /** The card is looked for inside this, and not inside those. */
  inside: Vec[];
  notInside: Vec[][];
  /** A wider place to look in where nothing but white paper lies between; null for none. */
  wider: Vec[] | null;
  /** Places that are white paper, in order round the frame; none where it is not known of any. */
  white: Vec[];
  /** How sure places are through the frame, one standard deviation, mm. */
  uMm: number;
};

/** Angles are looked for in a picture no longer than this, px. */
const LOOK_PX = 1500;
/** Marks that are off by more than this are not those of this frame, mm. */
const MAX_OFF_MM = 0.8;
/** Minimum share of the places where edges should be at which one is seen. */
const MIN_SEEN = 0.5;
/**
 * Misfit above which a frame of another paper may be what lies there, mm, and how much better that
 * has to fit.
 */
const DOUBTFUL_MM = 0.1;
const DOUBTFUL_SEEN = 0.95;
const BETTER = 0.85;
const MORE_SEEN = 0.1;
/** A tape between corner cards where nothing is said of it. */
export const TAPE_U_MM = 1;

/**
 * Finds the scale frame in a picture.
 *
 * Problems: `no-frame` (too few of its marks are to be seen, or they do not fit this frame; about:
 * the corner cards that are missing, and how many), `other-paper` (about: the paper whose frame it
 * is), `scan-dpi`, `places-too-few` (under four places, or three in line), and those of
 * `adjustNetwork` for tapes between corner cards.
 */
export function findFrame(picture: Picture, scale: Scale): Result<FoundFrame> {
  switch (scale.kind) {
    case 'scan':
      return scanned(picture, scale.dpi);
    case 'places':
      return pointedAt(picture, scale.places);
    case 'paper':
      return onPaper(picture, scale);
    case 'corners':
      return byCorners(picture, scale.tapes);
  }
}

const NO_LENS = { k1: 0, k2: 0 };
const plain = (picture: Picture, toMm: Homography): PlaneView => ({
  width: picture.width,
  height: picture.height,
  toMm,
  ...NO_LENS,
});

function scanned(picture: Picture, dpi: number): Result<FoundFrame> {
  if (!(dpi >= 20 && dpi <= 10_000)) return failure({ code: 'scan-dpi', about: [] });
  const px = 25.4 / dpi;
  const [w, h] = [picture.width * px, picture.height * px];
  const half = (Math.hypot(picture.width, picture.height) / 2) * px;
  const view = plain(picture, [half, 0, w / 2, 0, -half, h / 2, 0, 0, 1]);
  const inside = rectangle(1, 1, w - 1, h - 1);
  return { ok: true, view, inside, notInside: [], wider: null, white: [], uMm: px / 4 };
}

function pointedAt(picture: Picture, places: readonly { at: Vec; mm: Vec }[]): Result<FoundFrame> {
  const found = homographyThrough(
    places.map(({ at }) => centred(picture, at)),
    places.map(({ mm }) => mm),
  );
  if (!found) return failure({ code: 'places-too-few', about: [] });
  const view = plain(picture, found);
  const px = Math.min(picture.width, picture.height) / 400;
  // As good as a finger: some px at each place.
  const near = places.map(({ at }) =>
    Math.hypot(...sub(toMm(view, [at[0] + px, at[1]]), toMm(view, at))),
  );
  return {
    ok: true,
    view,
    inside: hull(places.map(({ mm }) => mm)),
    notInside: [],
    wider: null,
    white: [],
    uMm: Math.max(...near),
  };
}

const rectangle = (x0: number, y0: number, x1: number, y1: number): Vec[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** The angles of each corner in a picture, each at its full size, the best of each corner first. */
function anglesIn(picture: Picture): FoundAngle[][] {
  const by = Math.ceil(Math.max(picture.width, picture.height) / LOOK_PX);
  const found = findAngles(brightness(shrunk(picture, by)));
  return CORNERS.map((_, corner) =>
    found
      .filter((angle) => angle.corner === corner)
      .slice(0, 3)
      .map((angle) => ({ ...angle, hull: angle.hull.map(([u, v]): Vec => [u * by, v * by]) })),
  );
}

/** A frame of some paper held to the angles that were seen; null where it does not go with them. */
function fittedTo(picture: Picture, angles: readonly FoundAngle[][], paper: Paper) {
  const frame = scaleFrame(paper);
  const first = firstView(picture, angles, frame.angles);
  return first && straightened(picture, plain(picture, first), { edges: frame.edges, loose: [] });
}

function onPaper(
  picture: Picture,
  { paper, printedMm }: Extract<Scale, { kind: 'paper' }>,
): Result<FoundFrame> {
  const none = failure({ code: 'no-frame', about: [], numbers: { missing: 0 } });
  const frame = scaleFrame(paper);
  const angles = anglesIn(picture);
  const found = fittedTo(picture, angles, paper);
  if (!found || found.rmsMm > MAX_OFF_MM || found.seen < MIN_SEEN) return none;
  if (found.rmsMm > DOUBTFUL_MM || found.seen < DOUBTFUL_SEEN) {
    // A frame of another paper fits in part: the one that fits better is the one that lies there.
    const others = (Object.keys(PAPERS) as Paper[]).flatMap((one) => {
      const fit = one === paper ? null : fittedTo(picture, angles, one);
      return fit ? [{ one, fit }] : [];
    });
    const [best] = others.sort((a, b) => b.fit.seen - a.fit.seen);
    const truer = best && best.fit.seen >= found.seen && best.fit.rmsMm < BETTER * found.rmsMm;
    const more =
      best && best.fit.seen > found.seen + MORE_SEEN && best.fit.rmsMm < found.rmsMm / BETTER;
    if (truer || more) return failure({ code: 'other-paper', about: [best.one] });
  }
  const [w, h] = [frame.widthMm, frame.heightMm];
  const { wide, high } = printed(frame.angles, printedMm);
  const size = frame.angles[0]!.size;
  const off = RIM + BAR_WIDE * size + 1.5;
  // Between the bars and where a card goes: the paper's own white, as long as no card reaches
  // there.
  const white = rectangle(off + 1.5, off + 1.5, w - off - 1.5, h - off - 1.5).flatMap((a, i, all) =>
    Array.from({ length: 40 }, (_, k) => mix(a, all[(i + 1) % 4]!, 0.2 + (0.6 * k) / 39)),
  );
  const reach = ARM_WIDE * size + 1.5;
  const stretched = (p: Vec): Vec => [p[0] * wide, p[1] * high];
  const arms = frame.angles.flatMap((standing) =>
    [rectangle(-1.5, -1.5, 41.5, reach / size), rectangle(-1.5, -1.5, reach / size, 41.5)].map(
      (r) => r.map((p) => stretched(stood(standing, p))),
    ),
  );
  const view = { ...found.view, toMm: stretch(found.view.toMm, wide, high) };
  return {
    ok: true,
    view,
    inside: inset(frame.inside, 1).map(stretched),
    notInside: arms,
    wider: rectangle(off, off, w - off, h - off).map(stretched),
    white: white.map(stretched),
    uMm: found.rmsMm,
  };
}

const inset = (polygon: readonly Vec[], by: number): Vec[] => {
  const cx = polygon.reduce((s, p) => s + p[0], 0) / polygon.length;
  const cy = polygon.reduce((s, p) => s + p[1], 0) / polygon.length;
  return polygon.map(([x, y]): Vec => [x - Math.sign(x - cx) * by, y - Math.sign(y - cy) * by]);
};

/** How much wider and higher a frame came out of the printer than it is drawn. */
function printed(
  angles: readonly Standing[],
  printedMm: readonly [number, number] | null | undefined,
) {
  if (!printedMm) return { wide: 1, high: 1 };
  const [a, , c] = angles;
  return { wide: printedMm[0] / (c!.at[0] - a!.at[0]), high: printedMm[1] / (c!.at[1] - a!.at[1]) };
}

const stretch = (h: Homography, wide: number, high: number): Homography =>
  h.map((x, i) => x * (i < 3 ? wide : i < 6 ? high : 1)) as unknown as Homography;

/**
 * The first view: through the corners of the angles there are, three at least, the candidates that
 * go together best.
 */
function firstView(
  picture: Picture,
  found: readonly FoundAngle[][],
  angles: readonly Standing[],
): Homography | null {
  const there = found.map((some) => (some.length > 0 ? some : [null]));
  let best: { off: number; view: Homography } | null = null;
  for (const a of there[0]!)
    for (const b of there[1]!)
      for (const c of there[2]!)
        for (const d of there[3]!) {
          const [from, to]: [Vec[], Vec[]] = [[], []];
          [a, b, c, d].forEach((angle, i) =>
            angle?.hull.forEach((p, k) => {
              from.push(centred(picture, p));
              to.push(stood(angles[i]!, HULL[k]!));
            }),
          );
          if (from.length < 3 * HULL.length) continue;
          const view = homographyThrough(from, to);
          if (!view) continue;
          const worst = Math.max(
            ...from.map((p, k) => Math.hypot(...sub(mapped(view, p), to[k]!))),
          );
          if (worst < 12 && (!best || worst < best.off)) best = { off: worst, view };
        }
  return best?.view ?? null;
}

function byCorners(picture: Picture, tapes: readonly CornerTape[]): Result<FoundFrame> {
  const placed = adjustNetwork({
    dimension: 2,
    points: CORNERS.map((name) => ({ name })),
    tapes: tapes.map((tape) => ({ ...tape, uMm: tape.uMm ?? TAPE_U_MM })),
  });
  if (!placed.ok) return placed;
  const found = anglesIn(picture).map(([best]) => best);
  if (found.some((angle) => !angle))
    return failure({
      code: 'no-frame',
      about: CORNERS.filter((_, i) => !found[i]),
      numbers: { missing: found.filter((one) => !one).length },
    });
  const seen = found.map((angle) => centred(picture, angle!.hull[0]!));
  let at = placed.points.map((point): Vec => [point.at[0]!, point.at[1]!]);
  // Laid the other way round they are the mirror picture of what the tapes alone say. v runs down.
  if (polygonArea(seen) * polygonArea(at) > 0) at = at.map(([x, y]): Vec => [x, -y]);
  const first = homographyThrough(seen, at);
  if (!first) return failure({ code: 'no-frame', about: [], numbers: { missing: 0 } });
  const view = plain(picture, first);
  const loose = found.map((angle, i): Standing => {
    const [x, y] = sub(toMm(view, angle!.hull[1]!), at[i]!);
    return { at: at[i]!, turn: Math.atan2(y, x), size: LOOSE_SIZE };
  });
  const exact = straightened(picture, view, { edges: [], loose });
  if (!exact || exact.rmsMm > 3 * MAX_OFF_MM)
    return failure({ code: 'no-frame', about: [], numbers: { missing: 0 } });
  const papers = exact.loose.map(loosePaper);
  const net = Math.max(...placed.points.flatMap(({ uMm }) => uMm));
  return {
    ok: true,
    view: exact.view,
    inside: hull(at),
    notInside: papers,
    wider: null,
    white: [],
    uMm: Math.hypot(exact.rmsMm, net),
  };
}

/** Corners in the order in which they go round, whatever order they were given in. */
function hull(points: readonly Vec[]): Vec[] {
  const cx = points.reduce((s, p) => s + p[0], 0) / points.length;
  const cy = points.reduce((s, p) => s + p[1], 0) / points.length;
  return [...points].sort(
    (a, b) => Math.atan2(a[1] - cy, a[0] - cx) - Math.atan2(b[1] - cy, b[0] - cx),
  );
}
