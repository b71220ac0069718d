import type { HoleForm } from '../card/pattern';
import { simplified } from '../measure/path';
import { arcOf, isStraight, pointAt, segmentLength } from '../measure/segment';
import { SAME_PLACE_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import type { Blank } from './blank';
import type { Datum } from './datum';
import { datumOf, fromDatum } from './datum';

/**
 * A place on the blank by two distances, mm: along the long edge from the square line, and out from
 * the long edge.
 */
export type Place = { alongMm: number; outMm: number };

/** An arc of the outline: from a centre that compasses reach, or by ordinates where they do not. */
export type MarkedArc = {
  /** Numbers of the corners it runs between. */
  from: number;
  to: number;
  radiusMm: number;
  /** Where the compasses stand; null where the centre lies too far off for them. */
  centre: Place | null;
  /** Points on the arc, ends left out. */
  ordinates: Place[];
};

export type MarkingOut = {
  datum: Datum;
  corners: { number: number; at: Place; point: Vec; sideToNextMm: number | null }[];
  arcs: MarkedArc[];
  /** Where to drill beside the bends before they are sawn in to: centre and drill. */
  reliefs: { fold: string; at: Place; acrossMm: number }[];
  /**
   * Lines marked on the card, and the middles of beads: every place they bend at, ends included.
   */
  marks: { mark: string; name: string; at: Place[] }[];
  holes: { id: string; at: Place; diameterMm: number; form?: HoleForm }[];
  /** Lengths from corner to corner across the blank that prove the marking, the longest first. */
  checks: { from: number; to: number; lengthMm: number }[];
};

/** Maximum radius for compasses and a trammel, in lengths of the blank. */
const REACH = 1.5;
/** Ordinates stand no farther apart than this, mm. */
const ORDINATE_MM = 50;
/** More corners than this are a traced curve: it is printed and glued on, not marked out. */
export const MAX_CORNERS = 60;
const CHECKS = 3;

/**
 * What is needed to mark a blank out with rule, square and compasses, in working order: the two
 * datum lines, every corner of the outline by its distances from them with the length of the side
 * to the next, arcs, relief holes, holes, and diagonals as a check. `plugs` are further holes.
 */
export function markingOut(blank: Blank, plugs: Blank['holes'] = []): MarkingOut {
  const datum = datumOf(blank);
  // A relief is drilled and sawn: its rim is no line to mark.
  const path = simplified(blank.outline.filter((p) => p.kind !== 'relief').map((p) => p.segment));
  const at = (p: Vec): Place => fromDatum(datum, p);
  const { widthMm, heightMm } = blank.size;
  const far = REACH * Math.hypot(widthMm, heightMm);
  const corners: MarkingOut['corners'] = [];
  const numberOf = (p: Vec): number => {
    const known = corners.find((c) => distance(c.point, p) < SAME_PLACE_MM);
    if (known) return known.number;
    corners.push({ number: corners.length + 1, at: at(p), point: p, sideToNextMm: null });
    return corners.length;
  };
  const arcs: MarkedArc[] = [];
  path.forEach((s) => {
    const from = numberOf(s.a);
    const to = numberOf(s.b);
    if (isStraight(s)) {
      corners[from - 1]!.sideToNextMm = segmentLength(s);
      return;
    }
    const { centre, radius } = arcOf(s);
    const reached = radius <= far;
    const parts = Math.max(2, Math.ceil(segmentLength(s) / ORDINATE_MM));
    arcs.push({
      from,
      to,
      radiusMm: radius,
      centre: reached ? at(centre) : null,
      ordinates: reached
        ? [at(pointAt(s, 0.5))]
        : Array.from({ length: parts - 1 }, (_, i) => at(pointAt(s, (i + 1) / parts))),
    });
  });
  const pairs = corners
    .slice(0, MAX_CORNERS)
    .flatMap((a, i) =>
      corners
        .slice(i + 2, MAX_CORNERS)
        .map((b) => ({ from: a.number, to: b.number, lengthMm: distance(a.point, b.point) })),
    );
  return {
    datum,
    corners,
    arcs,
    reliefs: blank.reliefs.map(({ fold, centre, acrossMm }) => ({
      fold,
      at: at(centre),
      acrossMm,
    })),
    marks: blank.lines.flatMap(({ role, of, path, name = '' }) =>
      (role === 'mark' || role === 'bead') && path[0]
        ? [{ mark: of.id, name, at: [path[0].a, ...path.map(({ b }) => b)].map(at) }]
        : [],
    ),
    holes: [...blank.holes, ...plugs].map(({ centre, ...hole }) => ({ ...hole, at: at(centre) })),
    checks: pairs.sort((a, b) => b.lengthMm - a.lengthMm).slice(0, CHECKS),
  };
}
