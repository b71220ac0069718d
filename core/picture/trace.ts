import { worst } from '../measure/arcFit';
import { boxOf, perimeter, polygonArea } from '../measure/path';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import type { Segment } from '../measure/segment';
import { crossingsWithLine, line, pointAt } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, dot, scale, sub, unit } from '../measure/vector';
import { edgePlace, evenly } from './cardEdge';
import { withSharpCorners } from './sharpCorners';
import { doubtfulAlong } from './doubtful';
import type { FoundCard } from './findCard';
import { findCard, rimOf } from './findCard';
import type { FoundFrame, Scale } from './findFrame';
import { findFrame } from './findFrame';
import type { FittedOutline } from './fitOutline';
import { circleOf, fitOutline } from './fitOutline';
import { BENCH_MM, benchPlaces, litAt, whereOf } from './look';
import type { Picture } from './picture';
import type { Region } from './regions';
import type { ShadowEdge } from './shadows';
import { isBeside } from './shadows';
import type { PlaneView } from './straighten';
import { toMm } from './straighten';
import type { StraightPicture } from './straightPicture';
import { coarser, mmPerPx, placeOf, straightPicture } from './straightPicture';
import { strokesOn } from './strokes';

/**
 * A round hole: cut through (what lies under the card is seen), or drawn as a ring (a rubbing's
 * bolt hole).
 */
export type TracedHole = { x: number; y: number; diameterMm: number; seen: 'through' | 'ring' };

export type Traced = {
  /** Counter-clockwise, closed, in the frame's mm. */
  outline: Segment[];
  holes: TracedHole[];
  /** Cut-outs that are not round, counter-clockwise. */
  openings: Segment[][];
  /** Lines drawn on the card. */
  lines: [Vec, Vec][];
  /** How sure a place on the outline is, one standard deviation, mm. */
  uMm: number;
  /** How far the farthest edge place lies off the outline, single specks left out, mm. */
  worstMm: number;
  /**
   * Stretches of the outline that may not be the card's edge, counter-clockwise along it: where no
   * edge was seen, or one that looks otherwise than along most of the outline. For them `uMm` does
   * not speak.
   */
  doubtful: Vec[][];
  /** Whether the card reaches to where it was looked for, so that some of it may be missing. */
  cutOff: boolean;
  view: PlaneView;
  /** What was looked at, seen square on. */
  straight: StraightPicture;
};

/** What is being done, and how much of all is done, 0 to 1. */
export type Progress = { share: number; doing: 'frame' | 'straight' | 'card' | 'edge' | 'drawn' };

/** How far edge places may lie off the lines and arcs they follow, mm, where nothing is said. */
export const TRACE_TOLERANCE_MM = 0.5;
/**
 * Maximum size of a rectified picture, and size of the one in which the card is looked for, pixels.
 */
const FINE_PIXELS = 1_050_000;
const COARSE_PIXELS = 260_000;
/** Maximum number of edge places, and their minimum distance, mm. */
const MAX_PLACES = 1400;
const PLACES_APART = 0.7;
/** Half as wide, on the average, is a cut-out at least, mm. */
const MIN_OPENING_MM = 1.2;
/** Distance from the outline within which a line's end runs to it, mm. */
const TO_OUTLINE_MM = 4;

/**
 * What a picture shows of a card: its outline as few lines and arcs, holes, and what is drawn on
 * it. A generator: it tells how far it is, so that it can be stopped. Where the corners of the card
 * were pointed at (`cardAt`, px), it has straight sides between them and nothing more is looked
 * for.
 *
 * Problems: those of `findFrame`; `card-not-found` (nothing in the frame differs from what lies
 * along it), `too-few-corners` (fewer than three were pointed at, or all in line).
 */
export function* trace(
  picture: Picture,
  scale: Scale,
  toleranceMm = TRACE_TOLERANCE_MM,
  cardAt: readonly Vec[] | null = null,
): Generator<Progress, Result<Traced>> {
  yield { share: 0, doing: 'frame' };
  const frame = findFrame(picture, scale);
  if (!frame.ok) return frame;
  yield { share: 0.3, doing: 'straight' };
  const { minX, minY, maxX, maxY } = boxOf(frame.wider ?? frame.inside);
  const box = [minX, minY, maxX, maxY] as const;
  const area = (box[2] - box[0]) * (box[3] - box[1]);
  const px = mmPerPx(frame.view, [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2]);
  const fineMm = Math.max(px, Math.sqrt(area / FINE_PIXELS));
  const straight = straightPicture(picture, frame.view, box, fineMm);
  const coarse = coarser(
    straight,
    Math.max(1, Math.sqrt((straight.width * straight.height) / COARSE_PIXELS)),
  );
  if (cardAt) return pointedAt(picture, frame, straight, cardAt);
  yield { share: 0.4, doing: 'card' };
  const { where, shadows } = whereOf(coarse, frame);
  const edge = edgePlace(picture, frame.view);
  yield { share: 0.5, doing: 'edge' };
  let best: Seen | null = null;
  for (const by of lights(coarse, frame, shadows)) {
    const card = findCard(coarse, where, by.lit(), by.shadows);
    const seen = card && outlined(card, coarse, edge, by.shadows, toleranceMm);
    if (seen && (!best || seen.doubt < best.doubt)) best = seen;
    if (best && best.doubt < LITTLE_DOUBT) break;
    yield { share: 0.65, doing: 'edge' };
  }
  if (!best) return failure({ code: 'card-not-found', about: [] });
  const { card: found, around, outline, path, doubtful } = best;
  const cut = found.holes.map((region) => holeOf(region, coarse, edge, toleranceMm));
  yield { share: 0.8, doing: 'drawn' };
  const drawn = strokesOn(
    straight,
    finer(
      found.card,
      found.holes.filter((_, i) => cut[i]!.hole || cut[i]!.opening),
      coarse,
      straight,
    ),
  );
  const holes = cut.flatMap(({ hole }) => hole ?? []);
  const rings = drawn.rings
    .map(({ centre, radius }): TracedHole => ({
      x: centre[0],
      y: centre[1],
      diameterMm: 2 * radius,
      seen: 'ring',
    }))
    .filter(
      (ring) =>
        !holes.some(
          (hole) =>
            distance([ring.x, ring.y], [hole.x, hole.y]) <
            Math.max(ring.diameterMm, hole.diameterMm) / 2,
        ),
    );
  return {
    ok: true,
    outline: path,
    holes: [...holes, ...rings].sort((a, b) => a.y - b.y || a.x - b.x),
    openings: cut.flatMap(({ opening }) => (opening ? [opening] : [])),
    lines: drawn.lines.map((line) => toOutline(line, path)),
    uMm: Math.hypot(frame.uMm, outline.rmsMm),
    worstMm: farthest(around, path),
    doubtful,
    cutOff: found.cutOff,
    view: frame.view,
    straight,
  };
}

type Edge = ReturnType<typeof edgePlace>;

/**
 * A card as it is seen in one light: its outline, the places it goes through, and how much of it is
 * in doubt, 0 to 1 and more.
 */
type Seen = {
  card: FoundCard;
  around: Vec[];
  outline: FittedOutline;
  path: Segment[];
  doubtful: Vec[][];
  doubt: number;
};

/** An outline of which so little is in doubt is taken as it is. */
const LITTLE_DOUBT = 0.06;
/** Share of the outline in doubt that counts as much as a card that is cut off. */
const CUT_OFF_DOUBT = 0.5;

/**
 * The lights in which a card is looked for, one after the other while what is found is much in
 * doubt: with what looks like hard shadows; without (the joint of two boards steps like one); and
 * with even light (a shadow that is round or has a corner bends what is reckoned from its edge).
 */
function lights(straight: StraightPicture, frame: FoundFrame, shadows: readonly ShadowEdge[]) {
  const from = (by: readonly ShadowEdge[]) => () =>
    frame.white.length > 0
      ? litAt(straight, frame.white, by)
      : litAt(straight, benchPlaces(frame), by, BENCH_MM);
  return [
    { shadows, lit: from(shadows) },
    ...(shadows.length > 0 ? [{ shadows: [], lit: from([]) }] : []),
    { shadows: [], lit: () => litAt(straight, [], []) },
  ];
}

function outlined(
  card: FoundCard,
  straight: StraightPicture,
  edge: Edge,
  shadows: readonly ShadowEdge[],
  toleranceMm: number,
): Seen | null {
  const rim = rimOf(card.card, straight.width, straight.height);
  // Beside the edge of a shadow light goes over into shade, and would pass for card into bench.
  const around = placesAlong(rim, straight, edge, 1, (p) => !isBeside(shadows, straight, p));
  const outline = around && fitOutline(around, toleranceMm);
  if (!outline) return null;
  const path = withSharpCorners(outline.path, edge, 4 * straight.stepMm);
  const doubtful = doubtfulAlong(path, around, straight, shadows);
  const long = doubtful.reduce(
    (sum, run) => sum + run.reduce((all, p, i) => (i > 0 ? all + distance(p, run[i - 1]!) : 0), 0),
    0,
  );
  return {
    card,
    around,
    outline,
    path,
    doubtful,
    doubt: long / perimeter(path) + (card.cutOff ? CUT_OFF_DOUBT : 0),
  };
}

/** A finger is as sure as the shorter side of the picture over this. */
const FINGER = 400;

/** A card by its corners, as they were pointed at. */
function pointedAt(
  picture: Picture,
  frame: FoundFrame,
  straight: StraightPicture,
  at: readonly Vec[],
): Result<Traced> {
  const corners = at.map((p) => toMm(frame.view, p));
  const around = polygonArea(corners) < 0 ? [...corners].reverse() : corners;
  if (around.length < 3 || Math.abs(polygonArea(around)) < 1)
    return failure({ code: 'too-few-corners', numbers: { corners: around.length } });
  const px = mmPerPx(frame.view, around[0]!);
  return {
    ok: true,
    outline: around.map((a, i) => line(a, around[(i + 1) % around.length]!)),
    holes: [],
    openings: [],
    lines: [],
    uMm: Math.hypot(frame.uMm, (px * Math.min(picture.width, picture.height)) / FINGER),
    worstMm: 0,
    doubtful: [],
    cutOff: false,
    view: frame.view,
    straight,
  };
}

/**
 * True places of an edge along a rim of pixels, those that are wanted; null for too few. `outward`
 * 1 where the card is inside, −1 where it is round about.
 */
function placesAlong(
  rim: readonly Vec[],
  straight: StraightPicture,
  edge: Edge,
  outward: 1 | -1,
  wanted: (at: Vec) => boolean = () => true,
): Vec[] | null {
  const onPlane = rim.map(([x, y]) => placeOf(straight, x, y));
  const long = rim.length * straight.stepMm;
  const small = outward < 0;
  const every = Math.max(
    small ? Math.min(PLACES_APART, long / 60) : PLACES_APART,
    long / MAX_PLACES,
  );
  const across = long / 4;
  const places = evenly(onPlane, every, small ? Math.min(1.5, across / 8) : 1.5);
  const reach = small ? Math.min(2.4, across / 3) : 2.4;
  const found = places.flatMap(({ at, out }) => {
    const p = wanted(at) ? edge({ at, out: scale(out, outward) }, reach) : null;
    return p ? [p] : [];
  });
  return found.length >= Math.max(8, places.length / 3) ? found : null;
}

/**
 * Distance by which a place sticks out from both its neighbours that makes it a speck, or the end
 * of a pencil line, mm.
 */
const SPIKE_MM = 0.35;

/** How far the farthest edge place lies off an outline, those that jump alone left out. */
function farthest(places: readonly Vec[], path: readonly Segment[]): number {
  const off = places.map((p) => worst([p], path));
  const n = off.length;
  return off.reduce((most, one, i) => {
    const beside = Math.max(off[(i + n - 1) % n]!, off[(i + 1) % n]!);
    return one - beside > SPIKE_MM ? most : Math.max(most, one);
  }, 0);
}

/**
 * A hole as a circle, or as an opening of lines and arcs where it is none; neither where its edge
 * is not to be seen.
 */
function holeOf(
  region: Region,
  straight: StraightPicture,
  edge: Edge,
  toleranceMm: number,
): { hole?: TracedHole; opening?: Segment[] } {
  const mask = new Uint8Array(straight.width * straight.height);
  for (const at of region.pixels) mask[at] = 1;
  const places = placesAlong(rimOf(mask, straight.width, straight.height), straight, edge, -1);
  const circle = places && circleOf(places);
  if (!places) return {};
  const area = region.pixels.length * straight.stepMm ** 2;
  const asRound = circle ? area / (Math.PI * circle.radius ** 2) : 0;
  if (circle && asRound > 0.55 && asRound < 1.6) {
    const off = places
      .map((p) => Math.abs(distance(p, circle.centre) - circle.radius))
      .sort((a, b) => a - b);
    if (off[Math.floor(off.length * 0.9)]! < Math.max(toleranceMm, circle.radius * 0.05))
      return {
        hole: {
          x: circle.centre[0],
          y: circle.centre[1],
          diameterMm: 2 * circle.radius,
          seen: 'through',
        },
      };
  }
  // A narrow strip is the edge of a shadow or a thick line.
  const long = places.reduce((sum, p, i) => sum + distance(p, places[(i + 1) % places.length]!), 0);
  const fitted = area > MIN_OPENING_MM * long ? fitOutline(places, toleranceMm) : null;
  return fitted ? { opening: fitted.path } : {};
}

/** Which pixels of a finer picture are card and not hole. */
function finer(
  card: Uint8Array,
  holes: readonly Region[],
  coarse: StraightPicture,
  fine: StraightPicture,
): Uint8Array {
  const solid = Uint8Array.from(card);
  for (const { pixels } of holes) for (const at of pixels) solid[at] = 0;
  const found = new Uint8Array(fine.width * fine.height);
  const k = fine.stepMm / coarse.stepMm;
  for (let y = 0; y < fine.height; y++) {
    const row = Math.min(coarse.height - 1, Math.floor((y + 0.5) * k)) * coarse.width;
    for (let x = 0; x < fine.width; x++)
      found[y * fine.width + x] =
        solid[row + Math.min(coarse.width - 1, Math.floor((x + 0.5) * k))]!;
  }
  return found;
}

/** A line whose ends lie near the outline taken out to it. */
function toOutline([a, b]: [Vec, Vec], path: readonly Segment[]): [Vec, Vec] {
  const way = unit(sub(b, a));
  const outTo = (end: Vec, ahead: Vec): Vec => {
    const meets = path
      .flatMap((s) => crossingsWithLine(s, end, ahead).map((t) => pointAt(s, t)))
      .filter((p) => Math.abs(dot(sub(p, end), ahead)) < TO_OUTLINE_MM)
      .sort((p, q) => distance(p, end) - distance(q, end));
    return meets[0] ?? end;
  };
  return [outTo(a, scale(way, -1)), outTo(b, way)];
}
