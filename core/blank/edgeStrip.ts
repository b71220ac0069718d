import type { Ramp } from '../measure/ramp';
import { mostOfRamp, ramp, rampPart } from '../measure/ramp';
import { besideRun } from '../measure/run';
import type { Segment } from '../measure/segment';
import {
  carriersMeet,
  directionAt,
  line,
  nearest,
  offsetRight,
  part,
  pointAt,
  segmentLength,
  withEnds,
} from '../measure/segment';
import { ROUNDING_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { add, along, cross, distance, dot, mix, right, scale } from '../measure/vector';
import type { EndCut, Profile, StripEnd, StripTurn } from './stripEnds';
import {
  AT_BEND,
  SQUARE,
  besidePlain,
  chosenCut,
  hollowCut,
  stripProfile,
  touchingCut,
} from './stripEnds';

/**
 * What is added beside a piece of the outline: how far out along it, mm (`adds`, at shares of the
 * piece), the edge it belongs to, how it is turned over (null: it lies flat), whether the piece is
 * the end of a bend, and how somebody wants the ends of the edge.
 */
export type EdgeStrip = {
  adds: Ramp;
  edge: string | null;
  turn: StripTurn | null;
  atBend: boolean;
  ends: { start?: StripEnd | undefined; end?: StripEnd | undefined };
};

/** Corners sharper than this reach are cut square across instead of being drawn out to a spike. */
const MITRE_LIMIT = 3;
/** Shorter pieces are none, mm. */
const NOTHING_MM = 1e-9;
/** Neighbours within this sine of running straight on are stepped, not mitred. */
const STRAIGHT_ON = 0.17;

/** Two flanges of one straight run that are unlike wide: one metal, stepped. */
const STEPPED: EndCut = { ...SQUARE, stepped: true };

const startOf = ({ adds }: EdgeStrip): number => adds[0]![1];
const endOf = ({ adds }: EdgeStrip): number => adds[adds.length - 1]![1];
const isAdded = (strip: EdgeStrip): boolean => mostOfRamp(strip.adds) > 0;
const isTurned = (strip: EdgeStrip): boolean => strip.turn !== null && isAdded(strip);

/** The cuts on either side of a place where two pieces meet; null where a strip goes on. */
type Meeting = { first: EndCut | null; second: EndCut | null };

/** How the strips of two pieces end where these meet. */
function meetingOf(s: Segment, first: EdgeStrip, r: Segment, second: EdgeStrip): Meeting {
  const none: Meeting = { first: null, second: null };
  if (!isTurned(first) && !isTurned(second)) return none;
  if (second.atBend || first.atBend)
    return {
      first: isTurned(first) ? AT_BEND : null,
      second: isTurned(second) ? AT_BEND : null,
    };
  const [d1, d2] = [directionAt(s, 1), directionAt(r, 0)];
  const turn = Math.atan2(cross(d1, d2), dot(d1, d2));
  const straightOn = Math.abs(cross(d1, d2)) < STRAIGHT_ON && dot(d1, d2) > 0;
  // What a neighbour loses along its edge is lost of this one's end.
  const lost = (neighbourMm: number) =>
    neighbourMm < 0 && turn > 0 ? { insetMm: -neighbourMm / Math.sin(turn), bare: true } : null;
  const own = (
    strip: EdgeStrip,
    found: EndCut,
    end: StripEnd | undefined,
    neighbourMm: number,
  ): EndCut | null => {
    if (!isTurned(strip)) return null;
    const chosen = first.edge === second.edge ? undefined : end;
    const cut = chosenCut(found, chosen, mostOfRamp(strip.adds));
    const gone = lost(neighbourMm);
    return gone ? { ...cut, insetMm: Math.max(cut.insetMm, gone.insetMm), bare: true } : cut;
  };
  if (straightOn && isTurned(first) && isTurned(second) && sameSide(first.turn!, second.turn!))
    return first.edge === second.edge || Math.abs(endOf(first) - startOf(second)) < ROUNDING_MM
      ? none
      : { first: STEPPED, second: STEPPED };
  if (turn < 0 && !straightOn) {
    const cut = hollowCut(turn);
    const flat = (strip: EdgeStrip) => (isAdded(strip) && !isTurned(strip) ? cut : null);
    return {
      first: own(first, cut, first.ends.end, startOf(second)) ?? flat(first),
      second: own(second, cut, second.ends.start, endOf(first)) ?? flat(second),
    };
  }
  const touching =
    isTurned(first) && isTurned(second) && sameSide(first.turn!, second.turn!) && !straightOn;
  return {
    first: own(
      first,
      touching
        ? touchingCut(first.turn!, second.turn!, turn)
        : first.turn
          ? besidePlain(first.turn, turn)
          : SQUARE,
      first.ends.end,
      startOf(second),
    ),
    second: own(
      second,
      touching
        ? touchingCut(second.turn!, first.turn!, turn)
        : second.turn
          ? besidePlain(second.turn, turn)
          : SQUARE,
      second.ends.start,
      endOf(first),
    ),
  };
}

/** Whether two strips stand on one side of the sheet; what does not say may be on either. */
const sameSide = (a: StripTurn, b: StripTurn): boolean =>
  a.toward === null || b.toward === null || a.toward === b.toward;

/** A piece whose strip ends somewhere, with what is there of it, and the cuts of its run. */
export type StripPart<P> = {
  piece: P;
  profile: Profile;
  start: EndCut | null;
  end: EndCut | null;
};

/**
 * The pieces of a closed outline that have a strip with ends, each with what is there of it. Pieces
 * that go on in each other are one run: an end may reach over several.
 */
function partsOf<P extends { segment: Segment }>(
  pieces: readonly P[],
  strips: readonly EdgeStrip[],
): { parts: Map<P, StripPart<P>>; meetings: Meeting[] } {
  const n = pieces.length;
  const meetings = pieces.map((piece, i) => {
    const before = (i - 1 + n) % n;
    return meetingOf(pieces[before]!.segment, strips[before]!, piece.segment, strips[i]!);
  });
  const cutAtStart = (i: number) => meetings[i]!.second;
  const cutAtEnd = (i: number) => meetings[(i + 1) % n]!.first;
  const parts = new Map<P, StripPart<P>>();
  const inRun = (i: number) => isTurned(strips[i]!) || cutAtStart(i) || cutAtEnd(i);
  /** Whether the strip of a piece goes on from that of the one before. */
  const goesOn = (i: number) =>
    isTurned(strips[(i - 1 + n) % n]!) &&
    isTurned(strips[i]!) &&
    !meetings[i]!.first &&
    !meetings[i]!.second;
  const begins = pieces.flatMap((_, i) => (inRun(i) && !goesOn(i) ? [i] : []));
  // One that goes all the way round begins anywhere.
  for (const first of begins.length === 0 && n > 0 && inRun(0) ? [0] : begins) {
    const run = [first];
    for (let i = (first + 1) % n; i !== first && goesOn(i); i = (i + 1) % n) run.push(i);
    putRun(parts, pieces, strips, run, cutAtStart(first), cutAtEnd(run[run.length - 1]!));
  }
  return { parts, meetings };
}

/** The strip of a run of pieces, shared out to them. */
function putRun<P extends { segment: Segment }>(
  parts: Map<P, StripPart<P>>,
  pieces: readonly P[],
  strips: readonly EdgeStrip[],
  run: readonly number[],
  start: EndCut | null,
  end: EndCut | null,
): void {
  const lengths = run.map((i) => segmentLength(pieces[i]!.segment));
  const total = lengths.reduce((sum, mm) => sum + mm, 0);
  const begins = lengths.map((_, k) => lengths.slice(0, k).reduce((sum, mm) => sum + mm, 0));
  const adds = run.flatMap((i, k) =>
    strips[i]!.adds.map(([share, mm]) => [(begins[k]! + share * lengths[k]!) / total, mm] as const),
  );
  const whole = stripProfile(total, adds, start, end);
  run.forEach((i, k) => {
    const [from, to] = [begins[k]!, begins[k]! + lengths[k]!];
    parts.set(pieces[i]!, {
      piece: pieces[i]!,
      profile: partOfProfile(whole, from, to),
      start: k === 0 ? start : null,
      end: k === run.length - 1 ? end : null,
    });
  });
}

/** A profile between two places, told from the first. */
function partOfProfile(whole: Profile, from: number, to: number): Profile {
  if (whole.length === 0) return [];
  const [first, last] = [whole[0]![0], whole[whole.length - 1]![0]];
  const [start, end] = [Math.max(from, first), Math.min(to, last)];
  if (!(end - start > ROUNDING_MM)) return [];
  const at = (s: number): [number, number] => {
    const k = Math.max(
      1,
      whole.findIndex(([place]) => place >= s - ROUNDING_MM),
    );
    const [[s0, m0], [s1, m1]] = [whole[k - 1]!, whole[k]!];
    return [s - from, s1 > s0 ? m0 + ((m1 - m0) * (s - s0)) / (s1 - s0) : m1];
  };
  const inner = whole.filter(([s]) => s > start + ROUNDING_MM && s < end - ROUNDING_MM);
  return [at(start), ...inner.map(([s, mm]): [number, number] => [s - from, mm]), at(end)];
}

/** What is there of the strips that end somewhere or are turned over, piece by piece. */
export function stripParts<P extends { segment: Segment }>(
  all: readonly P[],
  stripOf: (piece: P) => EdgeStrip,
): StripPart<P>[] {
  const pieces = withLength(all);
  return [...partsOf(pieces, pieces.map(stripOf)).parts.values()];
}

/** A piece of no length (the end of a bend of no radius) has no direction to be moved in. */
const withLength = <P extends { segment: Segment }>(all: readonly P[]): P[] =>
  all.filter(({ segment: { a, b, bulge } }) => bulge !== 0 || distance(a, b) > NOTHING_MM);

/**
 * Moves each piece of a closed counter-clockwise outline outward by its own amount and joins them
 * again: mitred where two flat strips meet at a corner, stepped where one ends on a straight run; one
 * that is turned over ends as `meetingOf` says. Pieces with nothing to add stay where they are but
 * are lengthened or cut back to meet their neighbours.
 */
export function outlineWithStrips<P extends { segment: Segment }>(
  all: readonly P[],
  stripOf: (piece: P) => EdgeStrip,
  make: (segment: Segment, beside: P) => P,
): P[] {
  const pieces = withLength(all);
  const strips = pieces.map(stripOf);
  if (strips.every(({ adds }) => adds.every(([, mm]) => mm === 0))) return [...pieces];
  const n = pieces.length;
  const { parts, meetings } = partsOf(pieces, strips);
  // Corner points between each piece and the one before it; none where a strip goes on.
  const corners = pieces.map((piece, i): Vec[] => {
    const k = (i - 1 + n) % n;
    const [s, r] = [pieces[k]!.segment, piece.segment];
    const [firstDrawn, secondDrawn] = [parts.has(pieces[k]!), parts.has(piece)];
    if (!firstDrawn && !secondDrawn) return join(s, strips[k]!, r, strips[i]!);
    const { first, second } = meetings[i]!;
    if (firstDrawn && secondDrawn && !first && !second) return [];
    if (first?.stepped) return [along(r.a, right(directionAt(s, 1)), endOf(strips[k]!))];
    return besideStrip(
      firstDrawn ? null : { s, strip: strips[k]! },
      secondDrawn ? null : { s: r, strip: strips[i]! },
      r.a,
    );
  });
  const drawn = pieces.map((piece, i): P[] => {
    const own = parts.get(piece);
    if (own) return drawnStrip(own, make);
    const [start, end] = [corners[i]!, corners[(i + 1) % n]!];
    return movedOut(piece.segment, strips[i]!, start[start.length - 1]!, end[0]!).map(
      (segment) => ({ ...piece, segment }),
    );
  });
  const whole = pieces.flatMap((piece, i): P[] => {
    const [before, own] = [drawn[(i - 1 + n) % n]!, drawn[i]!];
    const chain = [before[before.length - 1]!.segment.b, ...corners[i]!, own[0]!.segment.a];
    const links = chain.slice(1).flatMap((b, k): P[] => {
      const a = chain[k]!;
      return corners[i]!.length > 0 && distance(a, b) > ROUNDING_MM
        ? [make(line(a, b), piece)]
        : [];
    });
    return [...links, ...own];
  });
  return joinedUp(whole).filter(
    (p) => distance(p.segment.a, p.segment.b) > ROUNDING_MM || p.segment.bulge !== 0,
  );
}

/** Where the parts of one run come apart by a hair they meet half way. */
const joinedUp = <P extends { segment: Segment }>(drawn: readonly P[]): P[] => {
  const n = drawn.length;
  const starts = drawn.map((piece, i) =>
    mix(drawn[(i - 1 + n) % n]!.segment.b, piece.segment.a, 0.5),
  );
  return drawn.map((piece, i) => ({
    ...piece,
    segment: withEnds(piece.segment, starts[i]!, starts[(i + 1) % n]!),
  }));
};

/** A piece with what there is of its strip: along the edge where there is none, else out and back. */
function drawnStrip<P extends { segment: Segment }>(
  { piece, profile, start, end }: StripPart<P>,
  make: (segment: Segment, beside: P) => P,
): P[] {
  const { segment } = piece;
  const long = segmentLength(segment);
  const asIs = (from: number, to: number): P[] =>
    to - from > ROUNDING_MM ? [{ ...piece, segment: part(segment, from / long, to / long) }] : [];
  if (profile.length === 0) return [{ ...piece }];
  const beside = ([s, out]: readonly [number, number]): Vec =>
    along(pointAt(segment, s / long), right(directionAt(segment, s / long)), out);
  const [first, last] = [profile[0]!, profile[profile.length - 1]!];
  const link = (a: Vec, b: Vec): P[] =>
    distance(a, b) > ROUNDING_MM ? [make(line(a, b), piece)] : [];
  const rim = profile.slice(1).flatMap((next, k): P[] => {
    const [s, out] = profile[k]!;
    return besideRun([part(segment, s / long, next[0] / long)], ramp(out, next[1])).map(
      (moved) => ({ ...piece, segment: moved }),
    );
  });
  return [
    ...(start?.bare ? [] : asIs(0, first[0])),
    ...((start && !start.stepped) || first[0] > ROUNDING_MM
      ? link(beside([first[0], 0]), beside(first))
      : []),
    ...rim,
    ...((end && !end.stepped) || last[0] < long - ROUNDING_MM
      ? link(beside(last), beside([last[0], 0]))
      : []),
    ...(end?.bare ? [] : asIs(last[0], long)),
  ];
}

/**
 * The corner points between two pieces of which one at least draws its own strip (null): `v`, where
 * the outline turns, and what a flat strip beside it adds or takes there.
 */
function besideStrip(
  before: { s: Segment; strip: EdgeStrip } | null,
  after: { s: Segment; strip: EdgeStrip } | null,
  v: Vec,
): Vec[] {
  const first = before ? endOf(before.strip) : 0;
  const second = after ? startOf(after.strip) : 0;
  const from = first !== 0 ? [along(v, right(directionAt(before!.s, 1)), first)] : [];
  const to = second !== 0 ? [along(v, right(directionAt(after!.s, 0)), second)] : [];
  // Where metal is taken away the corner itself is gone.
  return first < 0 || second < 0 ? [...from, ...to] : [...from, v, ...to];
}

/**
 * A piece moved out, from one corner to the next; in several where the distance changes along it.
 */
function movedOut(s: Segment, { adds }: EdgeStrip, from: Vec, to: Vec): Segment[] {
  const first = adds[0]![1];
  if (adds.every(([, mm]) => mm === first)) return [withEnds(offsetRight(s, first), from, to)];
  // A mitre begins and ends elsewhere than the piece does.
  const [start, end] = [nearest(s, from).at, nearest(s, to).at];
  if (!(end > start)) return [line(from, to)];
  const run = besideRun([part(s, start, end)], rampPart(adds, start, end));
  return run.map((piece, i) =>
    withEnds(piece, i === 0 ? from : piece.a, i === run.length - 1 ? to : piece.b),
  );
}

/** The corner points between one moved piece and the next: one for a mitre, two for a step. */
function join(s: Segment, before: EdgeStrip, r: Segment, after: EdgeStrip): Vec[] {
  const v = r.a;
  const [first, second] = [endOf(before), startOf(after)];
  if (first === 0 && second === 0) return [v];
  const d1 = directionAt(s, 1);
  const d2 = directionAt(r, 0);
  const out1 = along(v, right(d1), first);
  const out2 = along(v, right(d2), second);
  const straightOn = Math.abs(cross(d1, d2)) < STRAIGHT_ON && dot(d1, d2) > 0;
  if (straightOn) {
    return Math.abs(first - second) < ROUNDING_MM ? [mean(out1, out2)] : [out1, out2];
  }
  const most = Math.abs(first) > Math.abs(second) ? first : second;
  const near = add(v, scale(add(right(d1), right(d2)), most));
  const doubledBack = Math.abs(cross(d1, d2)) < STRAIGHT_ON;
  const mitre = doubledBack
    ? null
    : carriersMeet(offsetRight(s, first), offsetRight(r, second), near);
  const reach = MITRE_LIMIT * Math.abs(most);
  return mitre && distance(mitre, v) <= reach ? [mitre] : [out1, out2];
}

const mean = (a: Vec, b: Vec): Vec => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
