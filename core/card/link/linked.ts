import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { middleOf, mirrored } from '../mirror';
import { withEdgesOffset } from '../otherSide';
import type { PatternDoc, EdgeOffset, Link } from '../pattern';
import type { Atom } from './atoms';
import type { Difference, Part } from './differences';
import { differences } from './differences';
import {
  alone,
  alignedBack,
  alignedHere,
  onceHere,
  onceThere,
  translationTo,
  translated,
  translatedTo,
} from './alignment';
import { adopted, toAdopt } from './adopt';

/**
 * Two cards of which one was made from the other, seen from one of them: the other laid as this one
 * lies (what is taken off along edges reckoned in or out), how far they were one, and what differs
 * since, part by part. `failed`: edges along which what was to be taken off could not be.
 */
export type Seen = { there: PatternDoc; differences: Difference[]; failed: string[] };

/**
 * Which of the two one stands at: the one that was made from the other, or the one it was made
 * from.
 */
export type At = 'made' | 'first';

/** The two cards, of which `made` was made from `first`. */
export type Linked = { first: PatternDoc; made: PatternDoc };

/** Problems: `nothing-taken` (the card was begun anew since, and knows of no other). */
export function seenFrom(at: At, { first, made }: Linked): Result<Seen> {
  const { linkedFrom: taken } = made;
  if (!taken) return failure({ code: 'nothing-taken' });
  const here = at === 'made' ? made : first;
  const { doc, failed } =
    at === 'made' ? alignedHere(first, taken, made) : alignedBack(made, taken, first);
  const once = at === 'made' ? onceHere(taken, made) : turnedLike(onceThere(taken), taken, first);
  const there = translatedTo(doc, once);
  return { ok: true, there, differences: differences(once, there, here), failed };
}

/**
 * The other card laid over the one at which one stands, with nothing taken off: how the two compare
 * on the vehicle. `as` they were made, where what was taken is no longer known.
 */
export function laidOver(at: At, { first, made }: Linked, as: 'other-side' | 'again'): PatternDoc {
  const way = { aboutMm: made.linkedFrom?.aboutMm ?? middleOf(first), edgeOffsets: [] };
  const [there, here] = at === 'made' ? [first, made] : [made, first];
  if (made.linkedFrom)
    return translatedTo(
      at === 'made' ? alignedHere(there, way, here).doc : alignedBack(there, way, here).doc,
      here,
    );
  return translatedTo(as === 'again' ? there : mirrored(there, way.aboutMm), here);
}

/**
 * A card of the one that was made from, lying as another of it lies that may have been turned over
 * since.
 */
function turnedLike(doc: PatternDoc, { aboutMm }: Link, like: PatternDoc): PatternDoc {
  return translatedTo(doc.turned === like.turned ? doc : mirrored(doc, aboutMm), like);
}

const same = (a: Part, b: Part) => a.of === b.of && a.id === b.id;
/** What hangs on sides goes with them: taken over with the outline. */
const HANGS = new Set<Part['of']>(['fold', 'tuck', 'rule']);

/** What is meant by some parts: with the outline whatever was changed there and hangs on it. */
function meant(all: readonly Difference[], parts: readonly Part[]): Difference[] {
  const outline = parts.some(({ of }) => of === 'outline');
  const hangs = ({ part, there }: Difference) => outline && HANGS.has(part.of) && there.length > 0;
  return all.filter((one) => parts.some((p) => same(p, one.part)) || hangs(one));
}

/**
 * Takes parts over from the other card to the one at which one stands; what was changed on both
 * goes with them only where `over`. From then on the two are one in these parts.
 *
 * Problems: those of `seenFrom` and `takenOver`.
 */
export function catchUp(
  at: At,
  linked: Linked,
  parts: readonly Part[],
  over: boolean,
): Result<Linked> {
  const seen = seenFrom(at, linked);
  if (!seen.ok) return seen;
  const atoms = meant(seen.differences, parts).flatMap((difference) => toAdopt(difference, over));
  const mine = adopted(at === 'made' ? linked.made : linked.first, seen.there, atoms);
  if (!mine.ok) return mine;
  const now: Linked =
    at === 'made' ? { ...linked, made: mine.doc } : { ...linked, first: mine.doc };
  return { ok: true, ...asOne(now, atoms) };
}

/**
 * Leaves parts as they are here though they were changed there: they are the made card's own from
 * then on.
 */
export function leave(linked: Linked, parts: readonly Part[]): Result<Linked> {
  const seen = seenFrom('made', linked);
  if (!seen.ok) return seen;
  const atoms = meant(seen.differences, parts).flatMap(({ there, both }) => [...there, ...both]);
  return { ok: true, ...asOne(linked, atoms) };
}

/** The made card knowing of the first one's atoms as they are now. */
function asOne({ first, made }: Linked, atoms: readonly Atom[]): Linked {
  const taken = made.linkedFrom!;
  const [there, here] = [onceThere(taken), taken.here && { ...taken.here, linkedFrom: null }];
  const now = (once: PatternDoc, next: PatternDoc) => {
    const found = adopted(once, translatedTo(next, once), atoms, 'drop');
    return alone(found.ok ? found.doc : once);
  };
  return {
    first,
    made: {
      ...made,
      linkedFrom: {
        ...taken,
        card: now(there, turnedLike(first, taken, there)),
        here: here && now(here, alignedHere(first, taken, here).doc),
      },
    },
  };
}

/**
 * What is taken off along the edges changed, on a card made from another: what it has of that one
 * moves, what is its own stays.
 *
 * Problems: those of `takenOff` and `takenOver`, `nothing-taken`.
 */
export function withEdgeOffsets(
  made: PatternDoc,
  takeOff: readonly EdgeOffset[],
): Result<{ doc: PatternDoc }> {
  const { linkedFrom: taken } = made;
  if (!taken) return failure({ code: 'nothing-taken' });
  const card = onceThere(taken);
  let next = alignedHere(card, { ...taken, edgeOffsets: [] }, made).doc;
  for (const one of takeOff) {
    const tried = withEdgesOffset(next, one);
    if (!tried.ok) return tried;
    next = tried.doc;
  }
  const lain = alignedHere(card, taken, made).doc;
  const by = translationTo(lain, made);
  const [before, there] = [lain, next].map((doc) => translated(doc, by)) as [
    PatternDoc,
    PatternDoc,
  ];
  const atoms = differences(before, there, made).flatMap((difference) => toAdopt(difference));
  const found = adopted(made, there, atoms);
  if (!found.ok) return found;
  const here = takeOff.length > 0 ? alone(there) : null;
  return {
    ok: true,
    doc: { ...found.doc, linkedFrom: { ...taken, edgeOffsets: [...takeOff], here } },
  };
}
