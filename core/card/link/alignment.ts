import { SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { distance } from '../../measure/vector';
import { middleOf, mirrored } from '../mirror';
import { withEdgesOffset } from '../otherSide';
import type { PatternDoc, EdgeOffset, Link } from '../pattern';

/**
 * A card laid as another lies, and the edges (ids) along which what was to be taken off could not
 * be.
 */
export type Aligned = { doc: PatternDoc; failed: string[] };

/**
 * How a piece's card follows from the one it was made from: the line it is turned over about, and
 * what is taken off.
 */
export type Alignment = Pick<Link, 'aboutMm' | 'edgeOffsets'>;

/**
 * What a piece begins with that is made from another's card: turned over for the other side, or the
 * same once more.
 */
export function madeFrom(
  from: PatternDoc,
  as: 'other-side' | 'again',
  takeOff: readonly EdgeOffset[],
): Aligned {
  const way: Alignment = { aboutMm: middleOf(from), edgeOffsets: [...takeOff] };
  const over = { turned: as === 'again' ? from.turned : !from.turned };
  const { doc, failed } = alignedHere(from, way, over);
  const taken: Link = { ...way, card: alone(from), here: takeOff.length > 0 ? alone(doc) : null };
  // The picture it was traced from shows the other one.
  return {
    doc: { ...doc, linkedFrom: taken, underlay: as === 'again' ? doc.underlay : null },
    failed,
  };
}

/** A card without what it has of another. */
export function alone({ linkedFrom: _taken, ...card }: PatternDoc): Link['card'] {
  return card;
}

/** The card that was last taken over, lying as it does at home. */
export const onceThere = ({ card }: Link): PatternDoc => ({ ...card, linkedFrom: null });

/** The card that was last taken over, lying as the one made from it: turned over and taken off. */
export function onceHere(taken: Link, like: PatternDoc): PatternDoc {
  const kept: PatternDoc = {
    ...(taken.here ?? alignedHere(onceThere(taken), taken, like).doc),
    linkedFrom: null,
  };
  return translatedTo(kept.turned === like.turned ? kept : mirrored(kept, taken.aboutMm), like);
}

/**
 * A card of the piece that was made from, as it lies on the bench of the one made from it: turned
 * over and taken off.
 */
export function alignedHere(
  there: PatternDoc,
  way: Alignment,
  like: Pick<PatternDoc, 'turned'>,
): Aligned {
  const over = there.turned === like.turned ? there : mirrored(there, way.aboutMm);
  return takenOffEach(over, way.edgeOffsets);
}

/**
 * The other way round: a card of the piece made from another, as it lies on the bench of that one.
 */
export function alignedBack(
  here: PatternDoc,
  way: Alignment,
  like: Pick<PatternDoc, 'turned'>,
): Aligned {
  const back = [...way.edgeOffsets].reverse().map(({ edge, mm }) => ({ edge, mm: -mm }));
  const put = takenOffEach(here, back);
  return here.turned === like.turned ? put : { ...put, doc: mirrored(put.doc, way.aboutMm) };
}

function takenOffEach(doc: PatternDoc, takeOff: readonly EdgeOffset[]): Aligned {
  const failed: string[] = [];
  let found = doc;
  for (const one of takeOff) {
    const next = withEdgesOffset(found, one);
    if (next.ok) found = next.doc;
    else failed.push(one.edge);
  }
  return { doc: found, failed };
}

/** A card shoved to where another lies, by `shoveTo`. */
export const translatedTo = (doc: PatternDoc, like: PatternDoc): PatternDoc =>
  translated(doc, translationTo(doc, like));

/**
 * How far a card has to be shoved to lie where another does: not at all where a single corner lies
 * as it does there, else by what at least half of the corners share. A card that was turned over
 * about another line than it was made by has only been laid elsewhere.
 */
export function translationTo(doc: PatternDoc, like: PatternDoc): Vec {
  const places = new Map(like.corners.map(({ id, x, y }) => [id, [x, y] as Vec]));
  const shoves = doc.corners.flatMap(({ id, x, y }): Vec[] => {
    const at = places.get(id);
    return at ? [[at[0] - x, at[1] - y]] : [];
  });
  const near = (a: Vec, b: Vec) => distance(a, b) <= SAME_PLACE_MM;
  if (shoves.some((by) => near(by, [0, 0]))) return [0, 0];
  // In order, so that equal ones are neighbours however many there are.
  const inOrder = shoves.sort((a, b) =>
    Math.abs(a[0] - b[0]) > SAME_PLACE_MM ? a[0] - b[0] : a[1] - b[1],
  );
  let best: { by: Vec; times: number } = { by: [0, 0], times: 0 };
  for (let i = 0; i < inOrder.length;) {
    let end = i + 1;
    while (end < inOrder.length && near(inOrder[i]!, inOrder[end]!)) end++;
    if (end - i > best.times) best = { by: inOrder[i]!, times: end - i };
    i = end;
  }
  return 2 * best.times >= inOrder.length ? best.by : [0, 0];
}

export const translated = (doc: PatternDoc, [dx, dy]: Vec): PatternDoc =>
  dx === 0 && dy === 0
    ? doc
    : {
        ...doc,
        corners: doc.corners.map((corner) => ({ ...corner, x: corner.x + dx, y: corner.y + dy })),
        holes: doc.holes.map((hole) => ({ ...hole, x: hole.x + dx, y: hole.y + dy })),
        marks: doc.marks.map(({ from, to, ...mark }) => ({
          ...mark,
          from: [from[0] + dx, from[1] + dy],
          to: [to[0] + dx, to[1] + dy],
        })),
        beads: doc.beads.map(({ path, ...bead }) => ({
          ...bead,
          path:
            path.kind === 'along'
              ? path
              : {
                  ...path,
                  from: [path.from[0] + dx, path.from[1] + dy],
                  to: [path.to[0] + dx, path.to[1] + dy],
                },
        })),
        base: doc.base && [doc.base[0] + dx, doc.base[1] + dy],
      };
