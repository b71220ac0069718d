import type { Segment } from '../../measure/segment';
import { crossingsWithLine, directionAt, isStraight, pointAt, segmentLength } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { cross, distance, dot, mix, sub, unit } from '../../measure/vector';
import type { BlankEdge } from '../blank';
import type { Development } from './developed';

/**
 * One line to scribe on the blank with a rule: parallel to an edge at a distance, or between two marks, each so far
 * along an edge from one of its ends (`next` is the letter of the edge that the measuring starts from the corner with).
 */
export type ScribeLine = {
  fold: string;
  line: 'brake' | 'near' | 'far';
  from:
    | { kind: 'parallel'; letter: string; distanceMm: number }
    | { kind: 'marks'; marks: { letter: string; next: string; alongMm: number }[] };
};

/** A hole's centre from two edges, mm square to each. */
export type ScribeHole = { hole: string; diameterMm: number; from: { letter: string; distanceMm: number }[] };

/** Lines within this of parallel (sine) can be scribed with a rule from the edge. */
const PARALLEL = 0.002;

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

/** The edge to measure a line from: parallel to it, long enough to lay a square against, and the nearest of those. */
function parallelRuler(all: readonly Ruler[], middle: Vec, u: Vec): Ruler | undefined {
  const parallel = all.filter((r) => r.lengthMm > 5 && Math.abs(cross(u, directionAt(r.segment, 0))) < PARALLEL);
  const longest = Math.max(0, ...parallel.map((r) => r.lengthMm));
  return parallel
    .filter((r) => r.lengthMm >= LONG_ENOUGH * longest)
    .sort((a, b) => offLine(middle, a.segment) - offLine(middle, b.segment) || a.letter.localeCompare(b.letter))[0];
}

/** What to scribe and from which edge, fold by fold, measured from the blank as cut. */
export function scribeTable(development: Development): { lines: ScribeLine[]; holes: ScribeHole[] } {
  const edges = rulers(development.edges);
  const lines = development.folds.flatMap((fold) => {
    const which: [ScribeLine['line'], [Vec, Vec]][] = [
      ['brake', fold.brake],
      ['near', fold.tangents[0]],
      ['far', fold.tangents[1]],
    ];
    return which.map(([line, ends]): ScribeLine => {
      const u = unit(sub(ends[1], ends[0]));
      const beside = parallelRuler(edges, mix(ends[0], ends[1], 0.5), u);
      if (beside) {
        const distanceMm = offLine(mix(ends[0], ends[1], 0.5), beside.segment);
        return { fold: fold.id, line, from: { kind: 'parallel', letter: beside.letter, distanceMm } };
      }
      return { fold: fold.id, line, from: { kind: 'marks', marks: ends.map((end) => mark(end, u, development)) } };
    });
  });
  const holes = development.holes.map((hole): ScribeHole => {
    const near = [...edges]
      .filter((r) => r.lengthMm > 5 && faces(hole.centre, r.segment))
      .sort((a, b) => offLine(hole.centre, a.segment) - offLine(hole.centre, b.segment));
    const first = near[0];
    const second = near.find(
      (r) => first && Math.abs(cross(directionAt(r.segment, 0), directionAt(first.segment, 0))) > 0.5,
    );
    const from = [first, second].filter((r) => r !== undefined);
    return {
      hole: hole.id,
      diameterMm: hole.diameterMm,
      from: from.map((r) => ({ letter: r.letter, distanceMm: offLine(hole.centre, r.segment) })),
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

/** Where a line that ends at `p` along `u` comes out on the cut outline: how far along which edge, from its nearer end. */
function mark(p: Vec, u: Vec, development: Development): { letter: string; next: string; alongMm: number } {
  let best = { letter: '', next: '', alongMm: 0, off: Infinity };
  const { edges } = development;
  edges.forEach((edge, i) => {
    const total = edge.cut.reduce((sum, s) => sum + segmentLength(s), 0);
    let gone = 0;
    for (const s of edge.cut) {
      for (const t of crossingsWithLine(s, p, u)) {
        const off = distance(pointAt(s, t), p);
        if (off < best.off - 1e-6) {
          const along = gone + t * segmentLength(s);
          const fromStart = along <= total / 2;
          const neighbour = edges[(i + (fromStart ? -1 : 1) + edges.length) % edges.length]!;
          best = { letter: edge.letter, next: neighbour.letter, alongMm: fromStart ? along : total - along, off };
        }
      }
      gone += segmentLength(s);
    }
  });
  const { letter, next, alongMm } = best;
  return { letter, next, alongMm };
}
