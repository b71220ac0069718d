import type { Segment } from '../../measure/segment';
import {
  carriersMeet,
  directionAt,
  line as straight,
  nearest,
  offsetRight,
  reversed,
} from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { cross, distance, dot, mix } from '../../measure/vector';
import type { BlankBead, BlankLine } from '../blank';

/**
 * Where two beads run into one corner: how far the way turns there, degrees, and the mitre on the
 * flat blank, from where their creases meet on one side to where they meet on the other. Null where
 * the one runs straight on into the other. Only beads that are `alike`, of one section and the same
 * way up, close in it.
 */
export type Mitre = {
  beads: [string, string];
  at: Vec;
  turnDeg: number;
  line: [Vec, Vec] | null;
  alike: boolean;
};

/** Beads that turn by less than this run on as one, degrees. */
const STRAIGHT_ON_DEG = 5;

/**
 * The mitres of beads whose ends lie within half their widths of each other; a bead that ends along
 * another has none.
 */
export function mitresOf(beads: readonly BlankBead[]): Mitre[] {
  return beads.flatMap((a, i) =>
    beads.slice(i + 1).flatMap((b): Mitre[] => {
      const room = (a.flatMm + b.flatMm) / 2;
      const pairs = endsOf(a).flatMap((into) =>
        endsOf(b).map((end) => ({ into, out: reversed(end), apart: distance(into.b, end.b) })),
      );
      const nearest = pairs.reduce(
        (best, pair) => (pair.apart < best.apart ? pair : best),
        pairs[0] ?? { into: null, out: null, apart: Infinity },
      );
      return nearest.apart < room && nearest.into
        ? [mitreAt([a, b], nearest.into, nearest.out)]
        : [];
    }),
  );
}

/**
 * The mitres of beads that are alike as lines to scribe, named by the places of their beads in a
 * list of ids, from 1.
 */
export const mitreLines = (beads: readonly BlankBead[], ids: readonly string[]): BlankLine[] =>
  mitresOf(beads).flatMap(({ beads: [a, b], line, alike }): BlankLine[] =>
    line && alike
      ? [
          {
            role: 'mark',
            of: { kind: 'mark', id: `mitre ${a} ${b}` },
            path: [straight(...line)],
            name: `mitre of beads ${ids.indexOf(a) + 1} and ${ids.indexOf(b) + 1}`,
          },
        ]
      : [],
  );

/** The last part of a bead toward each of its ends, going there. */
const endsOf = ({ runs }: BlankBead): Segment[] => {
  const [first, last] = [runs[0]?.[0], runs.at(-1)?.at(-1)];
  return first && last ? [reversed(first), last] : [];
};

/** Of two beads, the one going into the corner and the other out of it. */
function mitreAt([a, b]: [BlankBead, BlankBead], into: Segment, out: Segment): Mitre {
  const [from, to] = [directionAt(into, 1), directionAt(out, 0)];
  const turnDeg = (Math.atan2(cross(from, to), dot(from, to)) * 180) / Math.PI;
  const at = carriersMeet(into, out, into.b) ?? mix(into.b, out.a, 0.5);
  const crease = (side: 1 | -1) =>
    carriersMeet(
      offsetRight(into, (side * a.flatMm) / 2),
      offsetRight(out, (side * b.flatMm) / 2),
      at,
    );
  const [right, left] = [crease(1), crease(-1)];
  const isStraightOn = Math.abs(turnDeg) < STRAIGHT_ON_DEG || !right || !left;
  return {
    beads: [a.id, b.id],
    at,
    turnDeg,
    line: isStraightOn ? null : [left, right],
    alike: isAlike(a, b),
  };
}

/** Sizes that differ by less are the same, mm. */
const SAME_MM = 0.05;
const isAlike = (a: BlankBead, b: BlankBead): boolean =>
  a.toward === b.toward &&
  (['widthMm', 'heightMm', 'developedMm'] as const).every(
    (of) => Math.abs(a.size[of] - b.size[of]) < SAME_MM,
  );

/**
 * Whether a bead ends along another one, away from that one's ends: it has to run out before it.
 */
export const endsAlong = (a: BlankBead, b: BlankBead): boolean => {
  const room = (a.flatMm + b.flatMm) / 2;
  const near = (p: Vec) => Math.min(...b.runs.flat().map((s) => nearest(s, p).distance)) < room;
  const atEnds = (p: Vec) => endsOf(b).some((end) => distance(end.b, p) < room);
  return endsOf(a).some((end) => near(end.b) && !atEnds(end.b));
};
