import fc from 'fast-check';
import type { PatternDoc } from '../../../card/pattern';
import { shortenedFlange } from '../../../card/shortenFlange';
import type { Brake } from '../../../machine/brake';
import { spread } from '../../../measure/spread.arbitrary';
import { develop } from '../develop';
import type { Development } from '../developed';
import { PlainCardSchema, fromPlain } from '../plain';
import { remediesFor } from './remedies';
import { checkedOrder, foldOrder } from './solve';
import type { Stepper } from './foldStep';
import { stepper } from './foldStep';
import { DOWN, UP, strip } from './strips.arbitrary';
import { beadsUnderBar } from './underBar';

/** What is turned over along an edge is in the machine from the first fold on. */

const LONG = 160;
const BRAKE: Brake = {
  lengthMm: 1250,
  openMm: 45,
  noseHeightMm: 100,
  noseDepthMm: 40,
  noseRakeDeg: 30,
  noseRadiusMm: 1,
  apronMm: 15,
  fingersMm: null,
};

const TIPPED = {
  card: 'fold',
  endWidthMm: null,
  radiusMm: null,
  how: 'tipped',
  landMm: 12,
} as const;

/** The edge that begins at a corner of a card. */
function edgeFrom({ corners, sides, edges }: PatternDoc, x: number, y: number) {
  const corner = corners.find((one) => one.x === x && one.y === y)!.id;
  const side = sides.find(({ from }) => from === corner)!.id;
  return edges.find((one) => one.sides.includes(side))!;
}

type Turn = { angleDeg: number; toward: 'face' | 'back' };

const permuted = (all: readonly number[]): number[][] =>
  all.length === 0
    ? [[]]
    : all.flatMap((one) => permuted(all.filter((other) => other !== one)).map((p) => [one, ...p]));

type Card = Extract<ReturnType<typeof fromPlain>, { ok: true }>;

/** A chain of folds, each across a strip, as a card; one of its parts stays put. */
function cardOf(widths: readonly number[], bends: readonly Turn[], still = 0): Card {
  const high = widths.reduce((sum, w) => sum + w, 0);
  let y = 0;
  const folds = bends.map((bend, i) => {
    y += widths[i]!;
    return { from: [0, y] as [number, number], to: [LONG, y] as [number, number], ...bend };
  });
  const outline: [number, number][] = [
    [0, 0],
    [LONG, 0],
    [LONG, high],
    [0, high],
  ];
  const below = widths.slice(0, still).reduce((sum, w) => sum + w, 0);
  const base: [number, number] = [LONG / 2, below + widths[still]! / 2];
  const rule = { kind: 'din6935' };
  const read = fromPlain(PlainCardSchema.parse({ thicknessMm: 1, rule, outline, folds, base }));
  if (!read.ok) throw new Error(JSON.stringify(read));
  return read;
}

function developed({ doc, sheet, practice }: Card): Development {
  const found = develop(doc, sheet, practice);
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found.development;
}

/** A chain of folds, if asked with a flange along the edge beyond the last, turned over by hand. */
function chain(
  widths: readonly number[],
  bends: readonly Turn[],
  flange: { widthMm: number; turnDeg: number; toward: 'face' | 'back' } | null,
): Development {
  const card = cardOf(widths, bends);
  const high = widths.reduce((sum, w) => sum + w, 0);
  if (flange) edgeFrom(card.doc, LONG, high).flange = { ...TIPPED, ...flange };
  return developed(card);
}

const bends = fc.record({
  angleDeg: fc.constantFrom(30, 60, 90, 120),
  toward: fc.constantFrom('face', 'back'),
});
const CHAIN = fc
  .integer({ min: 1, max: 3 })
  .chain((n) =>
    fc.tuple(
      fc.array(spread(15, 90), { minLength: n + 1, maxLength: n + 1 }),
      fc.array(bends, { minLength: n, maxLength: n }),
    ),
  );

/** Hits that are no deeper may be those of a corner that is drawn sharp, mm. */
const CORNER_MM = 3;

test('a flange along an edge stands in the way of every fold as the same wall does that was folded first', () => {
  const seen = { hits: 0, goes: 0 };
  fc.assert(
    fc.property(
      CHAIN,
      spread(12, 70),
      fc.constantFrom(30, 60, 90, 120),
      fc.constantFrom('face', 'back'),
      (given, widthMm, turnDeg, toward) => {
        const [widths, turns] = given as [number[], Turn[]];
        const flanged = chain(widths, turns, { widthMm, turnDeg, toward });
        const folded = chain([...widths, widthMm], [...turns, { angleDeg: turnDeg, toward }], null);
        const made = (one: Development): Stepper => {
          const found = stepper(
            one,
            BRAKE,
            one.folds.map(({ bend }) => bend.angleDeg),
          );
          if (!found.ok) throw new Error(JSON.stringify(found));
          return found;
        };
        const [byHand, byFold] = [made(flanged), made(folded)];
        const last = 1 << turns.length;
        for (let before = 0; before < last; before++)
          for (let fold = 0; fold < turns.length; fold++) {
            if (before & (1 << fold)) continue;
            for (const side of ['base', 'far'] as const) {
              const [a, b] = [
                byHand.step(fold, side, before),
                byFold.step(fold, side, before | last),
              ];
              seen[a.ok ? 'goes' : 'hits']++;
              for (const [one, other] of [
                [a, b],
                [b, a],
              ] as const)
                if (!one.ok && one.hit.depthMm > CORNER_MM)
                  expect({ fold, side, before, other, one }).toMatchObject({
                    other: { ok: false },
                  });
            }
          }
      },
    ),
    { numRuns: 60 },
  );
  expect(Math.min(seen.hits, seen.goes)).toBeGreaterThan(50);
});

test('flanges on either side of a sharp inside corner run into each other; turned after the fold it goes', () => {
  const corner = (toward: 'face' | 'back') => {
    const plain = PlainCardSchema.parse({
      thicknessMm: 1,
      rule: { kind: 'din6935' },
      outline: [
        [0, 0],
        [120, 0],
        [120, 120],
        [0, 120],
      ],
      folds: [{ from: [0, 60], to: [120, 60], angleDeg: 115, toward: 'face' }],
    });
    const read = fromPlain(plain);
    if (!read.ok) throw new Error('no card');
    const { doc } = read;
    const edge = edgeFrom(doc, 120, 0);
    edge.flange = { ...TIPPED, widthMm: 15, turnDeg: 90, toward };
    const found = develop(doc, read.sheet, read.practice);
    if (!found.ok) throw new Error(JSON.stringify(found));
    return { development: found.development, edge: edge.id };
  };
  const high = { ...BRAKE, openMm: 60, fingersMm: [20, 40, 50, 50] };
  const inside = corner('face');
  expect(foldOrder(inside.development, high)).toMatchObject({ ok: false });
  expect(remediesFor(inside.development, high)).toContainEqual({
    kind: 'turn-after',
    edges: [inside.edge],
  });
  expect(foldOrder(inside.development, high, { turnedAfter: [inside.edge] }).ok).toBe(true);
});

test('how many folds are left over tells which remedies need not be tried: none is lost by it', () => {
  let offered = 0;
  fc.assert(
    fc.property(
      fc.array(spread(18, 70), { minLength: 3, maxLength: 6 }),
      fc.array(bends, { minLength: 5, maxLength: 5 }),
      (widths, turns) => {
        const piece = chain(widths, turns.slice(0, widths.length - 1) as Turn[], null);
        const found = foldOrder(piece, BRAKE);
        if (found.ok || !('furthest' in found)) return;
        const all = remediesFor(piece, BRAKE);
        expect(remediesFor(piece, BRAKE, {}, found.furthest!.leftMost)).toEqual(all);
        offered += all.length;
      },
    ),
    { numRuns: 40 },
  );
  expect(offered).toBeGreaterThan(10);
});

test('a flange that is to be shorter is cut shorter on the card by as much, and then it goes', () => {
  let cut = 0;
  fc.assert(
    fc.property(spread(48, 75), spread(60, 110), fc.boolean(), (side, floor, mirrored) => {
      const widths = [side, floor, side + 3];
      const doc = cardOf(mirrored ? widths.reverse() : widths, [UP, UP], 1);
      const piece = developed(doc);
      for (const remedy of foldOrder(piece, BRAKE).ok ? [] : remediesFor(piece, BRAKE)) {
        if (remedy.kind !== 'shorten') continue;
        const { id } = piece.folds[remedy.fold]!;
        const shorter = shortenedFlange(doc.doc, id, remedy.byMm)!;
        expect(foldOrder(developed({ ...doc, doc: shorter }), BRAKE).ok).toBe(true);
        cut++;
      }
    }),
    { numRuns: 15 },
  );
  expect(cut).toBeGreaterThan(3);
});

test('a fold that is left for the gap comes last where the machine lets it, and else where it must', () => {
  const hat = chain([20, 30, 60, 30, 20], [DOWN, UP, UP, DOWN], null);
  for (const last of [0, 1, 2, 3]) {
    const found = foldOrder(hat, BRAKE, { last });
    const free = foldOrder(hat, BRAKE);
    if (!found.ok || !free.ok) throw new Error('no order');
    const goes = [0, 1, 2, 3].filter((fold) => fold !== last);
    const canBeLast = permuted(goes).some((first) => checkedOrder(hat, BRAKE, [...first, last]).ok);
    expect(found.steps.at(-1)!.fold === last).toBe(canBeLast || free.steps.at(-1)!.fold === last);
  }
});

test('what is offered frees the piece, whichever it is', () => {
  const tube = strip([20, 50, 60, 50], [UP, UP, UP]);
  const remedies = remediesFor(tube, BRAKE);
  expect(remedies.map(({ kind }) => kind)).toContain('over-a-bar');
  for (const remedy of remedies)
    if (remedy.kind === 'over-a-bar')
      expect(
        foldOrder(tube, BRAKE, {
          byHand: [remedy.fold, ...(remedy.also === undefined ? [] : [remedy.also])],
        }).ok,
      ).toBe(true);
  const hem = chain([60, 40], [DOWN], { widthMm: 12, turnDeg: 180, toward: 'face' });
  expect(foldOrder(hem, BRAKE).ok).toBe(true);
});

test('a bead on the part that is clamped refuses no fold, and is told where bar or bed would press on it', () => {
  let pressed = 0;
  fc.assert(
    fc.property(
      spread(15, 105),
      fc.constantFrom('face' as const, 'back' as const),
      fc.constantFrom('face' as const, 'back' as const),
      (away, toward, fold) => {
        const card = cardOf([120, 60], [{ angleDeg: 90, toward: fold }]);
        card.doc.beads.push({
          id: 'bead',
          path: { kind: 'between', from: [40, 120 - away], to: [120, 120 - away], bulge: 0 },
          section: { kind: 'arc', widthMm: 12, heightMm: 3 },
          toward,
          drawsIn: null,
          acrossRadiusMm: null,
          acrossOn: null,
          atFolds: null,
          meets: null,
        });
        const piece = developed(card);
        const found = foldOrder(piece, BRAKE);
        if (!found.ok) throw new Error('no order');
        const step = { ...found.steps[0]!, clamped: 'base' as const };
        const told = beadsUnderBar(piece, step, BRAKE);
        // From the tangent of the bend on; nearer than the nose is deep by half of it, it is pressed.
        const clear = away - 6 - BRAKE.noseDepthMm;
        if (Math.abs(clear) > 4) {
          expect(told).toEqual(clear < 0 ? [{ id: 'bead', heightMm: 3 }] : []);
          pressed += told.length;
        }
      },
    ),
    { numRuns: 40 },
  );
  expect(pressed).toBeGreaterThan(5);
});
