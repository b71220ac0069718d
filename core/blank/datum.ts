import { isStraight, segmentLength } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { along, cross, dot, left, sub, unit } from '../measure/vector';
import type { Blank } from './blank';
import { outlinePath } from './blank';

/**
 * A line to measure from: a straight edge of the blank where it has a letter, else one to scribe
 * first.
 */
export type DatumLine = { letter: string | null; p: Vec; u: Vec };

/**
 * Two lines square to each other that every place of a blank is measured from: `long` runs along
 * its longest straight edge, `square` across it. Distances are mm, square to each line, into the
 * blank.
 */
export type Datum = { long: DatumLine; square: DatumLine };

/** Lines within this of square to each other (cosine) are square to a try square. */
const SQUARE = 2e-3;
/** Metal this far beyond a line does not hinder a square from being held to it, mm. */
const BEYOND_MM = 1e-6;

const offLine = (line: { p: Vec; u: Vec }, p: Vec): number => cross(line.u, sub(p, line.p));

/**
 * The two lines to measure a blank from: edges with all the metal to one side where there are any,
 * the longest of them.
 */
export function datumOf(blank: Pick<Blank, 'edges' | 'outline'>): Datum {
  const corners = outlinePath(blank).map((s) => s.a);
  const rules = blank.edges.flatMap((edge) =>
    edge.cut
      .filter((s) => isStraight(s) && segmentLength(s) > 1)
      .map((s) => ({
        letter: edge.letter,
        p: s.a,
        u: unit(sub(s.b, s.a)),
        lengthMm: segmentLength(s),
      })),
  );
  const reach = (rule: { p: Vec; u: Vec }) => Math.min(0, ...corners.map((p) => offLine(rule, p)));
  const longest = (list: typeof rules) =>
    [...list].sort((a, b) => b.lengthMm - a.lengthMm || a.letter.localeCompare(b.letter))[0];
  const free = rules.filter((rule) => reach(rule) >= -BEYOND_MM);
  const first = longest(free) ?? longest(rules);
  const u: Vec = first?.u ?? [1, 0];
  // Down to the lowest metal, so that no distance is less than nothing.
  const lowest = first ? reach(first) : Math.min(...corners.map((p) => cross(u, p)));
  const long: DatumLine = {
    letter: first && lowest >= -BEYOND_MM ? first.letter : null,
    p: along(first?.p ?? [0, 0], left(u), first && lowest >= -BEYOND_MM ? 0 : lowest),
    u,
  };
  const second = longest(free.filter((rule) => Math.abs(dot(rule.u, u)) < SQUARE));
  if (second) return { long, square: { letter: second.letter, p: second.p, u: second.u } };
  const leftmost = Math.min(...corners.map((p) => dot(u, sub(p, long.p))));
  return { long, square: { letter: null, p: along(long.p, u, leftmost), u: left([-u[0], -u[1]]) } };
}

/**
 * How far a point lies from the two lines, mm: from `square` (along the long edge) and from `long`
 * (out from it).
 */
export function fromDatum(datum: Datum, p: Vec): { alongMm: number; outMm: number } {
  return { alongMm: offLine(datum.square, p) + 0, outMm: offLine(datum.long, p) + 0 };
}
