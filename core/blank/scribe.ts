import type { HoleForm } from '../card/pattern';
import type { Segment } from '../measure/segment';
import {
  crossingsWithLine,
  directionAt,
  isStraight,
  pointAt,
  segmentLength,
} from '../measure/segment';
import type { Vec } from '../measure/vector';
import { cross, distance, dot, mix, sub, unit } from '../measure/vector';
import type { Blank, BlankEdge, BlankLine } from './blank';
import { datumOf, fromDatum } from './datum';

/**
 * A place `alongMm` along an edge from one of its ends; `next` is the letter of the edge that meets
 * it at that corner.
 */
export type Mark = { letter: string; next: string; alongMm: number };

/**
 * One line to scribe on the blank with a rule: parallel to an edge at a distance; between two marks
 * on edges; or, where it comes out on no edge that can be measured along, between two points given
 * from the two datum lines.
 */
export type ScribeLine = {
  fold: string;
  line: 'brake' | 'near' | 'far';
  from:
    | { kind: 'parallel'; letter: string; distanceMm: number }
    | { kind: 'marks'; marks: Mark[] }
    | { kind: 'points'; ends: { alongMm: number; outMm: number }[] };
};

/**
 * A hole's centre from two edges, mm square to each; from the datum lines where no two edges can be
 * used.
 */
export type ScribeHole = {
  hole: string;
  diameterMm: number;
  form?: HoleForm;
  from: { letter: string; distanceMm: number }[];
  datum: { alongMm: number; outMm: number };
};

/** Lines within this of parallel (sine) can be scribed with a rule from the edge. */
const PARALLEL = 0.002;
/** Two marks nearer to each other than this share of the line between them guide no rule. */
const APART = 0.5;

type Ruler = { letter: string; segment: Segment; lengthMm: number };

const rulers = (edges: readonly BlankEdge[]): Ruler[] =>
  edges.flatMap((edge) =>
    edge.cut
      .filter(isStraight)
      .map((segment) => ({ letter: edge.letter, segment, lengthMm: segmentLength(segment) })),
  );

const offLine = (p: Vec, s: Segment): number => Math.abs(cross(unit(sub(s.b, s.a)), sub(p, s.a)));

/** A rule is laid against an edge at least this share as long as the longest that would do. */
const LONG_ENOUGH = 0.5;

/**
 * The edge to measure a line from: parallel to it, long enough to lay a square against, and the
 * nearest of those.
 */
function parallelRuler(all: readonly Ruler[], middle: Vec, u: Vec): Ruler | undefined {
  const parallel = all.filter(
    (r) => r.lengthMm > 5 && Math.abs(cross(u, directionAt(r.segment, 0))) < PARALLEL,
  );
  const longest = Math.max(0, ...parallel.map((r) => r.lengthMm));
  return parallel
    .filter((r) => r.lengthMm >= LONG_ENOUGH * longest)
    .sort(
      (a, b) =>
        offLine(middle, a.segment) - offLine(middle, b.segment) || a.letter.localeCompare(b.letter),
    )[0];
}

/**
 * What to scribe and from which edge, fold by fold, and the holes, measured from the blank as cut.
 */
export function scribeTable(blank: Blank): { lines: ScribeLine[]; holes: ScribeHole[] } {
  const edges = rulers(blank.edges);
  const datum = datumOf(blank);
  const measurable = blank.edges.flatMap(stretchesOf);
  const linesOf = new Map<string, BlankLine[]>(blank.hinges.map(({ fold }) => [fold, []]));
  for (const one of blank.lines) if (one.of.kind === 'fold') linesOf.get(one.of.id)?.push(one);
  const lines = blank.hinges.flatMap(({ fold }) => {
    const own = linesOf.get(fold)!;
    const [near, far] = own.filter((l) => l.role === 'tangent');
    const brake = own.find((l) => l.role === 'brake');
    const which = [
      ['brake', brake],
      ['near', near],
      ['far', far],
    ] as const;
    return which.flatMap(([line, found]): ScribeLine[] => {
      if (!found) return [];
      const ends: [Vec, Vec] = [found.path[0]!.a, found.path[found.path.length - 1]!.b];
      const u = unit(sub(ends[1], ends[0]));
      const middle = mix(ends[0], ends[1], 0.5);
      const beside = parallelRuler(edges, middle, u);
      if (beside) {
        const distanceMm = offLine(middle, beside.segment);
        return [{ fold, line, from: { kind: 'parallel', letter: beside.letter, distanceMm } }];
      }
      const marks = marksOn(middle, u, measurable);
      const [a, b] = ends.map((end) => nearest(marks, end));
      if (a && b && distance(a.point, b.point) >= APART * distance(ends[0], ends[1])) {
        return [{ fold, line, from: { kind: 'marks', marks: [a.mark, b.mark] } }];
      }
      return [
        { fold, line, from: { kind: 'points', ends: ends.map((end) => fromDatum(datum, end)) } },
      ];
    });
  });
  const holes = blank.holes.map((hole): ScribeHole => {
    const near = [...edges]
      .filter((r) => r.lengthMm > 5 && faces(hole.centre, r.segment))
      .sort((a, b) => offLine(hole.centre, a.segment) - offLine(hole.centre, b.segment));
    const first = near[0];
    const second = near.find(
      (r) =>
        first && Math.abs(cross(directionAt(r.segment, 0), directionAt(first.segment, 0))) > 0.5,
    );
    return {
      hole: hole.id,
      diameterMm: hole.diameterMm,
      ...(hole.form && { form: hole.form }),
      from:
        first && second
          ? [first, second].map((r) => ({
              letter: r.letter,
              distanceMm: offLine(hole.centre, r.segment),
            }))
          : [],
      datum: fromDatum(datum, hole.centre),
    };
  });
  return { lines, holes };
}

/** Whether a square held against a segment can reach a point: its foot falls on the segment. */
function faces(p: Vec, s: Segment): boolean {
  const l = segmentLength(s);
  const t = dot(sub(p, s.a), unit(sub(s.b, s.a)));
  return t >= 0 && t <= l;
}

/**
 * A part of an edge that hangs together (a slot may have parted it), and that can be measured along
 * from a corner of the edge: `fromMm` is where each of its segments begins, mm from the part's start.
 */
type Stretch = {
  letter: string;
  /** The edges that meet it at its two corners; null at an end that is none. */
  before: string | null;
  after: string | null;
  cut: Segment[];
  fromMm: number[];
  totalMm: number;
};

function stretchesOf(
  { letter, cut }: BlankEdge,
  i: number,
  edges: readonly BlankEdge[],
): Stretch[] {
  const parts: Segment[][] = [];
  for (const s of cut) {
    const last = parts[parts.length - 1];
    if (last && distance(last[last.length - 1]!.b, s.a) < 1e-3) last.push(s);
    else parts.push([s]);
  }
  return parts.flatMap((part, k): Stretch[] => {
    const before = k === 0 ? edges[(i - 1 + edges.length) % edges.length]!.letter : null;
    const after = k === parts.length - 1 ? edges[(i + 1) % edges.length]!.letter : null;
    if (before === null && after === null) return [];
    let totalMm = 0;
    const fromMm = part.map((s) => {
      const from = totalMm;
      totalMm += segmentLength(s);
      return from;
    });
    return [{ letter, before, after, cut: part, fromMm, totalMm }];
  });
}

type Marked = { mark: Mark; point: Vec };

/** Nearer to a line than this a segment's end may lie on it, mm. */
const ON_LINE_MM = 1e-3;

/** Whether a straight segment lies all to one side of the line through `p` along `u`. */
const passesBy = (s: Segment, p: Vec, u: Vec): boolean => {
  const [a, b] = [cross(u, sub(s.a, p)), cross(u, sub(s.b, p))];
  return isStraight(s) && (Math.min(a, b) > ON_LINE_MM || Math.max(a, b) < -ON_LINE_MM);
};

/** Where the line through `p` along `u` comes out on edges that can be measured along. */
function marksOn(p: Vec, u: Vec, stretches: readonly Stretch[]): Marked[] {
  return stretches.flatMap(({ letter, before, after, cut, fromMm, totalMm }) =>
    cut.flatMap((s, i) => {
      if (passesBy(s, p, u)) return [];
      return crossingsWithLine(s, p, u).map((t): Marked => {
        const along = fromMm[i]! + t * segmentLength(s);
        const start = before !== null && (after === null || along <= totalMm / 2);
        return {
          mark: {
            letter,
            next: (start ? before : after)!,
            alongMm: start ? along : totalMm - along,
          },
          point: pointAt(s, t),
        };
      });
    }),
  );
}

/** The mark nearest to a place; of two as near the first. Null where there is none. */
function nearest(marks: readonly Marked[], to: Vec): Marked | null {
  let best: Marked | null = null;
  for (const one of marks)
    if (!best || distance(one.point, to) < distance(best.point, to) - 1e-6) best = one;
  return best;
}
