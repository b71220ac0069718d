import { boxOf } from '../measure/path';
import { rampBack } from '../measure/ramp';
import { edgeLength } from './outline';
import { turnedMap } from '../surface/panel/drawnMap';
import type { BeadPath, Flange, PatternDoc, Place } from './pattern';

/** A place on a side that now runs the other way. */
const fromOtherEnd = (place: Place): Place => {
  if ('share' in place) return { side: place.side, share: 1 - place.share };
  return 'startMm' in place
    ? { side: place.side, endMm: place.startMm }
    : { side: place.side, startMm: place.endMm };
};

const fromOther = ({ fromMm, lengthMm }: { fromMm: number; lengthMm: number }, total: number) => ({
  fromMm: total - fromMm - lengthMm,
  lengthMm,
});

/** A flange on an edge that now runs the other way. */
const fromOtherWidth = ({ between, ends, ...flange }: Flange): Flange => ({
  ...flange,
  ...(ends && {
    ends: { ...(ends.end && { start: ends.end }), ...(ends.start && { end: ends.start }) },
  }),
  ...(flange.endWidthMm !== null && { widthMm: flange.endWidthMm, endWidthMm: flange.widthMm }),
  ...(between && {
    between: rampBack(between).map(([share, mm]): [number, number] => [share, mm]),
  }),
});

const flippedPath = (path: BeadPath, flip: (x: number) => number): BeadPath =>
  path.kind === 'along'
    ? { ...path, startMm: path.endMm, endMm: path.startMm }
    : {
        ...path,
        from: [flip(path.from[0]), path.from[1]],
        to: [flip(path.to[0]), path.to[1]],
        bulge: path.bulge === 0 ? 0 : -path.bulge,
      };

/** The middle of a card's width, by its corners, mm. */
export function middleOf(doc: PatternDoc): number {
  const { minX, maxX } = boxOf(doc.corners.map((c) => [c.x, c.y]));
  return (minX + maxX) / 2;
}

/**
 * The card for the other side of the vehicle: turned over left to right about the line x =
 * `aboutMm`, or the middle of its width, ids and letters kept. The outline runs counter-clockwise
 * again, the datum corner stays first, and folds go the way they went (toward the face stays toward
 * the face of the mirrored piece).
 */
export function mirrored(doc: PatternDoc, aboutMm = middleOf(doc)): PatternDoc {
  const flip = (x: number) => 2 * aboutMm - x;
  // Reversing the sides about the first corner: last side first, each run backward.
  const sides = [...doc.sides].reverse().map((side) => ({ ...side, from: side.to, to: side.from }));
  const [first, ...others] = doc.corners;
  return {
    ...doc,
    corners: [...(first ? [first] : []), ...others.reverse()].map((c) => ({ ...c, x: flip(c.x) })),
    sides,
    edges: [...doc.edges].reverse().map((edge) => ({
      ...edge,
      ...(edge.flange && { flange: fromOtherWidth(edge.flange) }),
      sides: [...edge.sides].reverse(),
      ...(edge.was && {
        was: edge.was.map((old) => ({
          ...old,
          span: old.span && fromOther(old.span, edgeLength(doc, edge)),
        })),
      }),
    })),
    folds: doc.folds.map((fold) => ({
      ...fold,
      path:
        fold.path.kind === 'along'
          ? fold.path
          : { kind: 'between', from: fromOtherEnd(fold.path.from), to: fromOtherEnd(fold.path.to) },
    })),
    holes: doc.holes.map((hole) => ({
      ...hole,
      x: flip(hole.x),
      ...(hole.form && {
        form: { ...hole.form, turnDeg: hole.form.turnDeg === 0 ? 0 : -hole.form.turnDeg },
      }),
    })),
    marks: doc.marks.map(({ from, to, ...mark }) => ({
      ...mark,
      from: [flip(from[0]), from[1]],
      to: [flip(to[0]), to[1]],
    })),
    beads: doc.beads.map((bead) => ({ ...bead, path: flippedPath(bead.path, flip) })),
    tucks: doc.tucks.map((tuck) => ({ ...tuck, at: fromOtherEnd(tuck.at) })),
    turned: !doc.turned,
    crown: doc.crown && {
      ...doc.crown,
      turned: !doc.crown.turned,
      map: doc.crown.map && turnedMap(doc.crown.map, aboutMm),
    },
    base: doc.base && [flip(doc.base[0]), doc.base[1]],
  };
}
