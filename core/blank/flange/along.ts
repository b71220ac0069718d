import { rampAt, slopeAt } from '../../measure/ramp';
import type { Segment } from '../../measure/segment';
import { arcOf, isStraight, segmentLength } from '../../measure/segment';
import { ROUNDING } from '../../measure/tolerance';
import type { Limit } from '../../metal/forming';
import type { BlankFlange } from '../blank';
import type { FlangePlace, FlangeWay } from './strain';
import { edgeStrain, openedWithin, widestWithin } from './strain';

/** A place along a flange, mm from the start of its edge: strain at its free edge (+ longer). */
export type FlangeStation = FlangePlace & { alongMm: number; strain: number };

/** A stretch of a flange that is strained about evenly, mm from the start of its edge. */
export type FlangeStretch = {
  fromMm: number;
  toMm: number;
  kind: 'stretch' | 'shrink' | 'plain';
  /** The most of it, signed. */
  strain: number;
  /** What the free edge gains (+) or loses over it, and the middle of the flange, mm. */
  changeMm: number;
  middleChangeMm: number;
  /** How long the free edge is in the flat, mm: what is worked along. */
  freeMm: number;
  /** The place that is strained most. */
  worst: FlangeStation;
};

export type FlangeAlong = {
  way: FlangeWay | 'lip';
  angleDeg: number;
  lengthMm: number;
  stations: FlangeStation[];
  stretches: FlangeStretch[];
  /** What is strained most each way, 0 where nothing is. */
  mostStretch: number;
  mostShrink: number;
};

/** A stretch is at least this long, mm: a marker pen's line. */
const SHORTEST_STRETCH_MM = 1;
/** Shorter parts of a flange are none, mm. */
const SHORTEST_MM = 1e-6;
/**
 * Maximum angle between places at which an arc is evaluated, radians, and minimum number of them:
 * at each this much of a turn, radians, and no fewer than this many times.
 */
const [STEP, LEAST] = [Math.PI / 36, 4];
/**
 * Neighbouring parts whose strain differs by no more than this share of the most there is are one
 * stretch.
 */
const EVEN = 0.12;

/**
 * How a flange along a run of lines and arcs is strained. The run goes counter-clockwise round the
 * card: the flange stands to its right, on the inside of the curve where it is hollow. Pulled
 * round, it is the leg that lies on the panel that is strained.
 */
export function alongFlange(
  run: readonly Segment[],
  flange: BlankFlange,
  landMm: number,
): FlangeAlong {
  const way = flange.made === 'lip' ? 'lip' : flange.made === 'pulled' ? 'pulled' : 'tipped';
  const lengthMm = run.reduce((sum, s) => sum + segmentLength(s), 0);
  const angleDeg = flange.bend.angleDeg;
  const placeAt = (alongMm: number, s: Segment): FlangeStation => {
    const share = lengthMm > 0 ? alongMm / lengthMm : 0;
    const widthMm = way === 'pulled' ? landMm : rampAt(flange.flat, share);
    const curvature = curvatureOf(s, rampAt(flange.fold, share));
    const slope = way === 'pulled' || lengthMm === 0 ? 0 : slopeAt(flange.flat, share) / lengthMm;
    const place = { curvature, widthMm, slope };
    return { ...place, alongMm, strain: way === 'lip' ? 0 : edgeStrain(place, angleDeg, way) };
  };
  const parts: Part[] = [];
  const stations: FlangeStation[] = [];
  let gone = 0;
  for (const s of run) {
    const l = segmentLength(s);
    const turns = isStraight(s) ? 0 : Math.abs(4 * Math.atan(s.bulge));
    const n = turns === 0 ? 1 : Math.max(LEAST, Math.ceil(turns / STEP));
    // Where it gets wider or narrower otherwise a part of its own begins.
    const knots = flange.flat.map(([share]) => share * lengthMm - gone);
    const places = [...Array.from({ length: n + 1 }, (_, i) => (l * i) / n), ...knots]
      .filter((at) => at >= 0 && at <= l)
      .sort((a, b) => a - b)
      .filter((at, i, all) => i === 0 || at - all[i - 1]! > SHORTEST_MM);
    for (let i = 0; i + 1 < places.length; i++) {
      const [fromMm, toMm] = [gone + places[i]!, gone + places[i + 1]!];
      const middle = placeAt((fromMm + toMm) / 2, s);
      const ends = [placeAt(fromMm, s), placeAt(toMm, s)];
      if (i === 0) stations.push(ends[0]!);
      stations.push(ends[1]!);
      parts.push(partOf(middle, fromMm, toMm, angleDeg, way, ends));
    }
    gone += l;
  }
  const strains = stations.map(({ strain }) => strain);
  const [mostStretch, mostShrink] = [Math.max(0, ...strains), Math.min(0, ...strains)];
  const even = EVEN * Math.max(mostStretch, -mostShrink);
  return {
    way,
    angleDeg,
    lengthMm,
    stations,
    stretches: joined(parts, even),
    mostStretch,
    mostShrink,
  };
}

type Part = FlangeStretch & { mean: number };

function partOf(
  middle: FlangeStation,
  fromMm: number,
  toMm: number,
  angleDeg: number,
  way: FlangeWay | 'lip',
  ends: readonly FlangeStation[],
): Part {
  const { curvature, widthMm, slope, strain } = middle;
  // How long the free edge lies in the flat for each mm of the fold line.
  const flat = (width: number, k: number) =>
    way === 'tipped' ? Math.hypot(1 - curvature * width, slope * k) : 1;
  const long = toMm - fromMm;
  const half =
    way === 'lip'
      ? 0
      : edgeStrain({ curvature, widthMm: widthMm / 2, slope: slope / 2 }, angleDeg, way);
  const worst = [middle, ...ends].reduce((a, b) =>
    Math.abs(b.strain) > Math.abs(a.strain) ? b : a,
  );
  return {
    fromMm,
    toMm,
    kind: Math.abs(strain) < ROUNDING ? 'plain' : strain > 0 ? 'stretch' : 'shrink',
    strain: worst.strain,
    mean: strain,
    changeMm: strain * flat(widthMm, 1) * long,
    middleChangeMm: half * flat(widthMm / 2, 0.5) * long,
    freeMm: flat(widthMm, 1) * long,
    worst,
  };
}

/** Parts joined to stretches: neighbours of one kind that are strained about alike. */
function joined(parts: readonly Part[], even: number): FlangeStretch[] {
  const groups: Part[][] = [];
  for (const part of parts) {
    const last = groups.at(-1);
    const fits =
      last?.[0]!.kind === part.kind && last.every(({ mean }) => Math.abs(mean - part.mean) <= even);
    // What is shorter than one can mark goes with what follows it.
    const short = last && part.fromMm - last[0]!.fromMm < SHORTEST_STRETCH_MM;
    if (last && (fits || short)) last.push(part);
    else groups.push([part]);
  }
  return groups.map((group) => {
    const sum = (of: (part: Part) => number) => group.reduce((total, part) => total + of(part), 0);
    const worst = group.reduce((a, b) => (Math.abs(b.strain) > Math.abs(a.strain) ? b : a));
    return {
      fromMm: group[0]!.fromMm,
      toMm: group.at(-1)!.toMm,
      kind: worst.kind,
      strain: worst.strain,
      changeMm: sum(({ changeMm }) => changeMm),
      middleChangeMm: sum(({ middleChangeMm }) => middleChangeMm),
      freeMm: sum(({ freeMm }) => freeMm),
      worst: worst.worst,
    };
  });
}

/**
 * Curvature of the line a flange is turned about, `outMm` outward of a side of the card: above 0
 * where the side is hollow. A line that would have shrunk to a point has none.
 */
function curvatureOf(s: Segment, outMm: number): number {
  if (isStraight(s)) return 0;
  const { radius } = arcOf(s);
  const grown = s.bulge > 0 ? radius + outMm : radius - outMm;
  return grown > 0 ? (s.bulge > 0 ? -1 : 1) / grown : 0;
}

/**
 * Cuts that take the strain out of the outer part of a flange: how many over a stretch, how deep,
 * how far apart.
 */
export type Notches = { count: number; deepMm: number; apartMm: number; opensMm: number };

/** What can be done about a stretch that is strained beyond a limit of its own sign. */
export type FlangeRemedies = {
  /** The stretch it is about, mm from the start of the edge. */
  fromMm: number;
  toMm: number;
  limit: Limit;
  /**
   * The widest flange, in the flat beyond the fold line, that stays within it; and the most it
   * could be turned, degrees.
   */
  widestMm: number;
  openedDeg: number | null;
  notches: Notches | null;
};

/**
 * Maximum distance of the middle of a tab between two cuts from the curve, mm (common practice: a
 * file takes it off).
 */
const TAB_OFF_MM = 0.5;

/**
 * Null where the stretch is within. Cuts are deep enough that the strain of what stays whole is
 * within the limit; they stand no farther apart than they are deep, so that the metal between them
 * is really free, and so close that a straight tab follows the curve. Each opens at the rim by what
 * its share of the edge would have stretched, or is cut out as a wedge as wide as it would have
 * shrunk; both are welded after.
 */
export function remediesOf(
  stretch: FlangeStretch,
  along: Pick<FlangeAlong, 'way' | 'angleDeg'>,
  limit: Limit,
): FlangeRemedies | null {
  const { worst, strain } = stretch;
  if (
    along.way === 'lip' ||
    strain * limit.strain <= 0 ||
    Math.abs(strain) <= Math.abs(limit.strain)
  )
    return null;
  const widest = widestWithin(worst.curvature, along.angleDeg, along.way, limit.strain);
  const widestMm = Math.min(widest ?? worst.widthMm, worst.widthMm);
  const deepMm = worst.widthMm - widestMm;
  const tabMm = Math.sqrt((8 * TAB_OFF_MM) / Math.abs(worst.curvature));
  const long = stretch.toMm - stretch.fromMm;
  const count = Math.max(1, Math.ceil(long / Math.min(deepMm, tabMm)));
  return {
    fromMm: stretch.fromMm,
    toMm: stretch.toMm,
    limit,
    widestMm,
    openedDeg: along.way === 'tipped' ? openedWithin(worst, limit.strain) : null,
    notches:
      deepMm > 0
        ? { count, deepMm, apartMm: long / count, opensMm: Math.abs(stretch.changeMm) / count }
        : null,
  };
}
