import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import {
  letterAgain,
  moveCorner,
  partEdge,
  removeCorner,
  reshapeSide,
  setEdge,
  splitSide,
} from '../edit';
import { emptyPattern } from '../emptyPattern';
import { countingIds } from '../kinds';
import { outlineFromPoints } from '../legs';
import { mirrored } from '../mirror';
import { otherSide } from '../otherSide';
import { patternParts } from '../outline';
import type { Fold, PatternDoc, EdgeOffset } from '../pattern';
import { readPattern } from '../read';
import { edgeDistances } from './edgeDistances';
import { alike, valuesOf } from './atoms';
import type { Difference } from './differences';
import { madeFrom, translatedTo } from './alignment';
import type { At, Linked } from './linked';
import { catchUp, leave, seenFrom, withEdgeOffsets } from './linked';

const got = <T extends { ok: boolean }>(found: T): Extract<T, { ok: true }> => {
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found as Extract<T, { ok: true }>;
};

/** A plate with a bowed top, a fold across it and two holes. */
function plate(off: readonly Vec[], bow: number): PatternDoc {
  const corners = [
    [0, 0],
    [400, 0],
    [400, 260],
    [0, 260],
  ].map(([x, y], i): Vec => [x! + off[i]![0], y! + off[i]![1]]);
  const built = got(outlineFromPoints(corners));
  const flat = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
  const doc = reshapeSide(flat, flat.sides[2]!.id, bow);
  const at = (i: number, share: number) => ({ side: doc.sides[i]!.id, share });
  const fold: Fold = {
    id: 'f',
    path: { kind: 'between', from: at(0, 0.5), to: at(2, 0.5) },
    angleDeg: 90,
    toward: 'face',
    radiusMm: null,
    convention: 'outside-sharp',
  };
  const holes = [
    { id: 'h1', x: 80, y: 120, diameterMm: 8 },
    { id: 'h2', x: 310, y: 90, diameterMm: 12 },
  ];
  return { ...doc, folds: [fold], holes };
}
const off = fc.tuple(spread(-30, 30), spread(-30, 30));
const anyPlate = fc
  .tuple(fc.tuple(off, off, off, off), spread(-0.2, 0.2))
  .map(([a, bow]) => plate(a, bow));

/** Edits of the first card, each by a number it makes of it what it will. */
type Edit = (doc: PatternDoc, i: number, by: Vec) => PatternDoc;
const moves: Edit = (doc, i, [dx, dy]) => {
  const c = doc.corners[i % 4]!;
  return moveCorner(doc, c.id, [c.x + dx, c.y + dy]);
};
const EDITS: Edit[] = [
  moves,
  (doc, i, [mm]) => reshapeSide(doc, doc.sides[(i % 2) * 2]!.id, mm / 200),
  (doc, i, [mm]) =>
    setEdge(doc, doc.edges[i % 4]!.id, {
      joint: { kind: 'hem', widthMm: 8 + Math.abs(mm), gapMm: 0 },
    }),
  (doc, _, [dx, dy]) => ({
    ...doc,
    holes: doc.holes.map((h) => (h.id === 'h1' ? { ...h, x: h.x + dx, y: h.y + dy } : h)),
  }),
  (doc, _, [mm]) => ({
    ...doc,
    folds: doc.folds.map((f) => ({ ...f, angleDeg: 60 + Math.abs(mm) })),
  }),
  (doc, i, [x, y]) => ({
    ...doc,
    holes: [...doc.holes, { id: `new${i}`, x: 200 + x, y: 200 + y, diameterMm: 5 }],
  }),
  (doc) => ({ ...doc, holes: doc.holes.filter(({ id }) => id !== 'h1') }),
  (doc, i, [mm]) => ({
    ...doc,
    meetings: [
      {
        folds: i % 2 === 0 ? ['f', 'g'] : ['g', 'f'],
        kind: 'mitred',
        over: null,
        gapMm: Math.abs(mm),
      },
    ],
  }),
  (doc) => ({
    ...doc,
    profiles: [
      {
        id: 'p',
        name: 'Lip',
        ordinates: [
          [0, 0],
          [40, 3],
        ],
        toleranceMm: 0.3,
      },
    ],
  }),
];
const edits = fc.array(fc.tuple(fc.integer({ min: 0, max: EDITS.length - 1 }), fc.nat(9), off), {
  minLength: 1,
  maxLength: 4,
});
const edited = (doc: PatternDoc, list: readonly (readonly [number, number, Vec])[]): PatternDoc =>
  list.reduce((d, [which, i, by]) => EDITS[which]!(d, i, by), doc);
/** What only the second one has. */
const ownOf = (doc: PatternDoc): PatternDoc => ({
  ...doc,
  holes: doc.holes.map((hole) => (hole.id === 'h2' ? { ...hole, diameterMm: 14 } : hole)),
});
const takeOffOf = (doc: PatternDoc, mm: number): EdgeOffset[] => [{ edge: doc.edges[1]!.id, mm }];

const seen = (at: At, linked: Linked): Difference[] => got(seenFrom(at, linked)).differences;
const names = (list: readonly Difference[], of: 'there' | 'here' | 'both') =>
  list.filter((d) => d[of].length > 0).map(({ part }) => `${part.of} ${part.id}`);
const places = ({ corners, holes }: PatternDoc) =>
  [...corners, ...holes].map(({ id, x, y }) => [id, x, y]).sort();
const all = (list: readonly Difference[]) => list.map(({ part }) => part);

test('made, and both as they were: nothing differs, from either, and however often either is turned over', () => {
  fc.assert(
    fc.property(
      anyPlate,
      spread(-6, 6),
      fc.nat(3),
      fc.nat(3),
      fc.boolean(),
      (first, mm, a, b, again) => {
        const made = madeFrom(first, again ? 'again' : 'other-side', takeOffOf(first, mm));
        expect(made.failed).toEqual([]);
        if (!again)
          expect(places(made.doc)).toEqual(places(got(otherSide(first, takeOffOf(first, mm))).doc));
        const over = (doc: PatternDoc, times: number) =>
          Array.from({ length: times }).reduce((d: PatternDoc) => mirrored(d), doc);
        const linked = { first: over(first, a), made: over(made.doc, b) };
        expect(readPattern(JSON.parse(JSON.stringify(linked.made))).ok).toBe(true);
        for (const at of ['made', 'first'] as const) expect(seen(at, linked)).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});

test('what changed on the first is taken over, all at once or part by part in any order, and what is its own stays', () => {
  fc.assert(
    fc.property(
      anyPlate,
      edits,
      spread(-5, 5),
      fc.infiniteStream(fc.nat()),
      (first, list, mm, chance) => {
        const takeOff = takeOffOf(first, mm);
        const made = ownOf(madeFrom(first, 'other-side', takeOff).doc);
        const linked = { first: edited(first, list), made };
        if (got(seenFrom('made', linked)).failed.length > 0) return;
        const found = seen('made', linked);
        expect(names(found, 'here')).toEqual(['hole h2']);
        expect(names(found, 'both')).toEqual([]);
        const whole = got(catchUp('made', linked, all(found), false));
        expect(names(seen('made', whole), 'there')).toEqual([]);
        expect(names(seen('made', whole), 'here')).toEqual(['hole h2']);
        expect(whole.made.meetings ?? []).toEqual(linked.first.meetings ?? []);
        // It is the mirror of the first as it is now, with its own hole.
        const mirror = ownOf(madeFrom(linked.first, 'other-side', takeOff).doc);
        const apart = edgeDistances(whole.made, translatedTo(mirror, whole.made));
        expect(Math.max(...apart.map(({ mm }) => Math.abs(mm)))).toBeLessThan(1e-5);
        let by: Linked = linked;
        for (let left = found.filter(({ there }) => there.length > 0); left.length > 0;) {
          const one = left[chance.next().value % left.length]!;
          by = got(catchUp('made', by, [one.part], false));
          const next = seen('made', by).filter(({ there }) => there.length > 0);
          expect(next.length).toBeLessThan(left.length);
          left = next;
        }
        expect(alike(places(by.made), places(whole.made))).toBe(true);
        // What they have in common, in whichever order the lists stand.
        const once = ({ made: { linkedFrom: taken } }: Linked) =>
          Object.fromEntries(valuesOf({ ...taken!.card, linkedFrom: null }));
        expect(alike(once(by), once(whole))).toBe(true);
        expect(seen('first', by).map(({ part }) => part.id)).toEqual(['h2']);
      },
    ),
    { numRuns: 80 },
  );
});

test('the other way round: what the second has of its own the first can take over, and then nothing differs', () => {
  fc.assert(
    fc.property(anyPlate, edits, spread(-5, 5), (first, list, mm) => {
      const made = edited(madeFrom(first, 'other-side', takeOffOf(first, mm)).doc, list);
      const linked = { first, made };
      if (got(seenFrom('first', linked)).failed.length > 0) return;
      const found = seen('first', linked);
      expect(names(found, 'here')).toEqual([]);
      // An edge beside one that is taken off may move with it, seen from there.
      expect(names(found, 'there')).toEqual(
        expect.arrayContaining(names(seen('made', linked), 'here')),
      );
      const both = got(catchUp('first', linked, all(found), false));
      for (const at of ['made', 'first'] as const) expect(seen(at, both)).toEqual([]);
    }),
    { numRuns: 60 },
  );
});

test('what both changed is asked about: taken over it is theirs, left it is one’s own; a later change is asked about again', () => {
  const first = plate(
    [
      [0, 0],
      [0, 0],
      [0, 0],
      [0, 0],
    ],
    0.1,
  );
  const made = madeFrom(first, 'other-side', []).doc;
  const linked = { first: moves(first, 2, [7, 3]), made: moves(made, 2, [0, -4]) };
  const both = seen('made', linked).filter((d) => d.both.length > 0);
  expect(both.length).toBeGreaterThan(0);
  const kept = got(catchUp('made', linked, all(both), false));
  expect(places(kept.made)).toEqual(places(linked.made));
  const over = got(catchUp('made', linked, all(both), true));
  expect(seen('made', over)).toEqual([]);
  const left = got(leave(linked, all(both)));
  expect(places(left.made)).toEqual(places(linked.made));
  expect(names(seen('made', left), 'both')).toEqual([]);
  expect(names(seen('made', left), 'here').length).toBeGreaterThan(0);
  const later = { ...left, first: moves(left.first, 2, [1, 1]) };
  expect(names(seen('made', later), 'both').length).toBeGreaterThan(0);
});

test('corners put in or taken out come with the outline; folds that would hang on nothing are told', () => {
  const first = plate(
    [
      [0, 0],
      [0, 0],
      [0, 0],
      [0, 0],
    ],
    0,
  );
  const takeOff = takeOffOf(first, 3);
  const made = ownOf(madeFrom(first, 'other-side', takeOff).doc);
  const split = got(splitSide(first, first.sides[1]!.id, 0.5, countingIds('n'))).doc;
  const parted = got(partEdge(split, split.corners[2]!.id, countingIds('e'))).doc;
  const pushed = moveCorner(parted, parted.corners[2]!.id, [425, 130]);
  const linked = { first: letterAgain(pushed), made };
  const found = seen('made', linked);
  expect(found[0]!.part.of).toBe('outline');
  const whole = got(catchUp('made', linked, all(found), false));
  expect(seen('made', whole).map(({ part }) => part.of)).toEqual(['hole']);
  expect(whole.made.corners).toHaveLength(5);
  expect(new Set(whole.made.edges.map(({ letter }) => letter)).size).toBe(5);
  expect(readPattern(JSON.parse(JSON.stringify(whole.made))).ok).toBe(true);
  // A fold laid on the new side cannot come alone, and comes with the outline.
  const fold = {
    ...first.folds[0]!,
    id: 'f2',
    path: {
      kind: 'between' as const,
      from: { side: pushed.sides[2]!.id, share: 0.5 },
      to: { side: pushed.sides[0]!.id, share: 0.8 },
    },
  };
  const folded = { first: { ...pushed, folds: [...pushed.folds, fold] }, made };
  expect(catchUp('made', folded, [{ of: 'fold', id: 'f2' }], false)).toMatchObject({
    ok: false,
    problems: [{ code: 'taken-needs-outline', about: ['f2'] }],
  });
  expect(got(catchUp('made', folded, [{ of: 'outline', id: '' }], false)).made.folds).toHaveLength(
    2,
  );
  // A fold of its own on a side that goes.
  const own = {
    ...fold,
    id: 'own',
    path: {
      kind: 'along' as const,
      side: made.sides.find(({ id }) => id === first.sides[1]!.id)!.id,
      inMm: 20,
    },
  };
  const shorter = got(removeCorner(first, first.corners[1]!.id)).doc;
  const gone = { first: shorter, made: { ...made, folds: [own] } };
  expect(catchUp('made', gone, [{ of: 'outline', id: '' }], false)).toMatchObject({
    ok: false,
    problems: [{ code: 'taken-strands-fold', about: ['own'] }],
  });
});

test('what is taken off can be changed: the edge moves by the difference, what is its own stays', () => {
  fc.assert(
    fc.property(anyPlate, spread(-6, 6), spread(-6, 6), fc.boolean(), (first, mm, next, over) => {
      const made = ownOf(madeFrom(first, 'other-side', takeOffOf(first, mm)).doc);
      const lying = over ? mirrored(made) : made;
      const { doc } = got(withEdgeOffsets(lying, takeOffOf(first, next)));
      const found = seen('made', { first, made: doc });
      expect(found.map(({ part }) => part.id)).toEqual(['h2']);
      const edge = first.edges[1]!.id;
      const apart = edgeDistances(doc, lying).find((one) => one.edge === edge)!;
      expect(apart.mm).toBeCloseTo(mm - next, 6);
    }),
    { numRuns: 60 },
  );
  expect(
    withEdgeOffsets(
      {
        ...plate(
          [
            [0, 0],
            [0, 0],
            [0, 0],
            [0, 0],
          ],
          0,
        ),
        linkedFrom: null,
      },
      [],
    ),
  ).toMatchObject({ ok: false, problems: [{ code: 'nothing-taken' }] });
});

test('an edge lies out of another’s by what it was taken out, whichever way one looks; an arc by its rise', () => {
  const flat = plate(
    [
      [0, 0],
      [0, 0],
      [0, 0],
      [0, 0],
    ],
    0,
  );
  const top = flat.edges[2]!.id;
  const bowed = reshapeSide(flat, flat.sides[2]!.id, 0.1);
  // The rise of an arc is half its chord times its bulge.
  expect(
    edgeDistances(bowed, flat).map(({ edge, mm }) => [edge, Math.round(mm * 1e6) / 1e6]),
  ).toEqual(flat.edges.map(({ id }) => [id, id === top ? 20 : 0]));
  expect(edgeDistances(flat, bowed).find(({ edge }) => edge === top)!.mm).toBeCloseTo(-20, 6);
});
