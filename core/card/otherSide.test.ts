import fc from 'fast-check';
import { arcOf } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { emptyPattern } from './emptyPattern';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { mirrored } from './mirror';
import { otherSide, withEdgesOffset } from './otherSide';
import { outlineOf, patternParts } from './outline';
import type { PatternDoc } from './pattern';
import { reshapeSide } from './edit';

function card(points: Vec[]): PatternDoc {
  const built = outlineFromPoints(points);
  if (!built.ok) throw new Error('not closed');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
}
const got = <T extends { ok: boolean }>(found: T): Extract<T, { ok: true }> => {
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found as Extract<T, { ok: true }>;
};
const off = fc.tuple(spread(-40, 40), spread(-40, 40));
const plate = fc.tuple(off, off, off, off, spread(-0.25, 0.25)).map(([a, b, c, d, bow]) => {
  const doc = card([
    [0 + a[0], 0 + a[1]],
    [400 + b[0], b[1]],
    [400 + c[0], 260 + c[1]],
    [d[0], 260 + d[1]],
  ]);
  return reshapeSide(doc, doc.sides[2]!.id, bow);
});
const line = (doc: PatternDoc, i: number) => {
  const { a, b } = outlineOf(doc).path[i]!;
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  // The line as its normal and how far it lies out.
  const normal: Vec = [(b[1] - a[1]) / length, (a[0] - b[0]) / length];
  return { normal, out: normal[0] * a[0] + normal[1] * a[1] };
};

test('an edge moves in by what is taken off, all others run on along the lines and arcs they have; put on again it is as it was', () => {
  fc.assert(
    fc.property(plate, fc.integer({ min: 0, max: 3 }), spread(-15, 15), (doc, i, mm) => {
      const id = doc.edges[i]!.id;
      const found = got(withEdgesOffset(doc, { edge: id, mm })).doc;
      for (const k of [0, 1, 2, 3]) {
        const [before, after] = [doc, found].map((d) => outlineOf(d).path[k]!);
        if (Math.abs(before!.bulge) > 1e-6) {
          const [was, is] = [arcOf(before!), arcOf(after!)];
          expect(
            Math.hypot(is.centre[0] - was.centre[0], is.centre[1] - was.centre[1]),
          ).toBeLessThan(1e-5 * was.radius);
          expect(is.radius - was.radius).toBeCloseTo(
            k === i ? (before!.bulge > 0 ? -mm : mm) : 0,
            4,
          );
          continue;
        }
        const [was, is] = [line(doc, k), line(found, k)];
        expect(is.normal[0] * was.normal[0] + is.normal[1] * was.normal[1]).toBeCloseTo(1, 9);
        expect(was.out - is.out).toBeCloseTo(k === i ? mm : 0, 6);
      }
      const back = got(withEdgesOffset(found, { edge: id, mm: -mm })).doc;
      back.corners.forEach((c, k) =>
        expect(Math.hypot(c.x - doc.corners[k]!.x, c.y - doc.corners[k]!.y)).toBeLessThan(1e-5),
      );
    }),
    { numRuns: 60 },
  );
});

test('the other side is the mirror less what is taken off, in whichever order; taken off first and mirrored then it is the same', () => {
  fc.assert(
    fc.property(plate, spread(1, 12), spread(1, 12), (doc, a, b) => {
      const letters = doc.edges.map(({ letter }) => letter);
      const ways = [
        got(
          otherSide(doc, [
            { edge: letters[0]!, mm: a },
            { edge: letters[1]!, mm: b },
          ]),
        ).doc,
        got(
          otherSide(doc, [
            { edge: letters[1]!, mm: b },
            { edge: letters[0]!, mm: a },
          ]),
        ).doc,
      ];
      const first = got(
        withEdgesOffset(got(withEdgesOffset(doc, { edge: letters[0]!, mm: a })).doc, {
          edge: letters[1]!,
          mm: b,
        }),
      ).doc;
      const shape = (d: PatternDoc) =>
        outlineOf(d).path.map((s) => [Math.hypot(s.b[0] - s.a[0], s.b[1] - s.a[1]), s.bulge]);
      const close = (d: PatternDoc) => shape(d).map((one) => one.map((x) => expect.closeTo(x, 4)));
      expect(shape(ways[1]!)).toEqual(close(ways[0]!));
      expect(shape(mirrored(first))).toEqual(close(ways[0]!));
    }),
    { numRuns: 40 },
  );
});

test('what would leave nothing is refused, with the card as it was', () => {
  const doc = card([
    [0, 0],
    [100, 0],
    [100, 20],
    [0, 20],
  ]);
  const [a] = doc.edges;
  expect(withEdgesOffset(doc, { edge: a!.id, mm: 25 })).toMatchObject({
    ok: false,
    problems: [{ code: 'take-off-too-far' }],
  });
  expect(withEdgesOffset(doc, { edge: 'Z', mm: 1 })).toMatchObject({
    ok: false,
    problems: [{ code: 'edge-gone', about: ['Z'] }],
  });
  expect(withEdgesOffset(doc, { edge: a!.letter, mm: 0 })).toEqual({ ok: true, doc });
  const bowed = reshapeSide(doc, doc.sides[1]!.id, 0.9);
  expect(withEdgesOffset(bowed, { edge: doc.edges[1]!.id, mm: 11 })).toMatchObject({ ok: false });
});
