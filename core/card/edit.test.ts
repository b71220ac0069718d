import fc from 'fast-check';
import type { Path } from '../measure/path';
import { area, perimeter } from '../measure/path';
import { pointAt, segmentLength } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { checkCard } from './check';
import {
  cornerAngle,
  joinEdges,
  letterAgain,
  moveCorner,
  partEdge,
  removeCorner,
  setCornerAngle,
  reshapeSide,
  setEdge,
  setFold,
  setHole,
  setSideLength,
  splitSide,
  without,
} from './edit';
import { emptyPattern } from './emptyPattern';
import { endsOfFold } from './foldPlace';
import { between, done } from './given.arbitrary';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { mirrored } from './mirror';
import { outlineOf, patternParts, segmentOfSide, segmentsOfEdge, spotNearest } from './outline';
import type { PatternDoc, Side } from './pattern';
import { PatternSchema } from './pattern';
import { edgeOfRecord } from './recordPlace';

/** A round-about card of straight and bowed sides, a fold across it, holes in it. */
const anyCard: fc.Arbitrary<PatternDoc> = fc
  .record({
    corners: fc.array(
      fc.record({ r: spread(60, 100), bulge: spread(-0.15, 0.25), bowed: fc.boolean() }),
      {
        minLength: 5,
        maxLength: 9,
      },
    ),
    fold: fc.tuple(fc.nat(8), spread(0.1, 0.9), fc.nat(8), spread(0.1, 0.9)),
    holes: fc.array(fc.tuple(spread(-25, 25), spread(-25, 25)), { maxLength: 3 }),
  })
  .map(({ corners, fold: [a, s, b, t], holes }) => {
    const built = outlineFromPoints(
      corners.map(({ r }, i): Vec => {
        const angle = (2 * Math.PI * i) / corners.length;
        return [r * Math.cos(angle), r * Math.sin(angle)];
      }),
    );
    if (!built.ok) throw new Error('no outline');
    let doc: PatternDoc = {
      ...emptyPattern(),
      ...patternParts(built.path, countingIds()),
      base: [3, 4],
    };
    corners.forEach(({ bulge, bowed }, i) => {
      if (bowed) doc = reshapeSide(doc, doc.sides[i]!.id, bulge);
    });
    const side = (k: number) => doc.sides[k % doc.sides.length]!.id;
    const fold = {
      id: 'f1',
      path: between({ side: side(a), at: s }, { side: side(b), at: t }),
      angleDeg: 90,
      toward: 'face' as const,
      radiusMm: null,
      convention: 'outside-sharp' as const,
    };
    const folded = { ...doc, folds: [fold] };
    if (checkCard(folded).length === 0) doc = folded;
    return { ...doc, holes: holes.map(([x, y], i) => ({ id: `h${i}`, x, y, diameterMm: 4 })) };
  });

const foldEnds = (doc: PatternDoc) => doc.folds.flatMap((f) => [...endsOfFold(doc, f)!]);
const same = (a: readonly Vec[], b: readonly Vec[], within = 1e-6) => {
  expect(a).toHaveLength(b.length);
  a.forEach((p, i) => expect(distance(p, b[i]!)).toBeLessThan(within));
};
/** Whatever was done to it, a card stays a card: valid, closed, every side in exactly one edge. */
const sound = (doc: PatternDoc) => {
  expect(PatternSchema.safeParse(doc).success).toBe(true);
  const inEdges = doc.edges.flatMap((edge) => edge.sides);
  expect([...inEdges].sort()).toEqual(doc.sides.map((s) => s.id).sort());
  doc.sides.forEach((s, i) => expect(s.to).toBe(doc.sides[(i + 1) % doc.sides.length]!.from));
  expect(new Set(doc.edges.map((edge) => edge.id)).size).toBe(doc.edges.length);
};

test('a corner put into a side changes nothing but the count: not the outline, the folds, nor the edge', () => {
  fc.assert(
    fc.property(anyCard, fc.nat(8), spread(0.05, 0.95), (doc, k, at) => {
      const side = doc.sides[k % doc.sides.length]!;
      const where = pointAt(segmentOfSide(doc, side.id)!, at);
      const split = done(splitSide(doc, side.id, at, countingIds('n')));
      sound(split);
      expect(area(outlineOf(split).path)).toBeCloseTo(area(outlineOf(doc).path), 6);
      expect(perimeter(outlineOf(split).path)).toBeCloseTo(perimeter(outlineOf(doc).path), 6);
      same(foldEnds(split), foldEnds(doc));
      expect(split.edges.map((e) => e.id)).toEqual(doc.edges.map((e) => e.id));
      const corner = split.corners.find((c) => c.id === 'n1')!;
      expect(distance([corner.x, corner.y], where)).toBeLessThan(1e-9);
      // Taken out of a straight side again, the card is as it was.
      if (side.shape.kind === 'line') {
        const back = done(removeCorner(split, 'n1'));
        sound(back);
        same(
          outlineOf(back).path.map((s) => s.a),
          outlineOf(doc).path.map((s) => s.a),
        );
        same(foldEnds(back), foldEnds(doc));
      }
    }),
  );
});

test('turned over twice a card is what it was; once, it is the mirror image with everything where it hung', () => {
  fc.assert(
    fc.property(anyCard, (doc) => {
      const once = mirrored(doc);
      sound(once);
      expect(area(outlineOf(once).path)).toBeCloseTo(area(outlineOf(doc).path), 6);
      const xs = doc.corners.map((c) => c.x);
      const flip = ([x, y]: Vec): Vec => [Math.min(...xs) + Math.max(...xs) - x, y];
      same(foldEnds(once), foldEnds(doc).map(flip));
      for (const edge of doc.edges) {
        const there = once.edges.find((e) => e.id === edge.id)!;
        expect(there.letter).toBe(edge.letter);
        expect(
          segmentsOfEdge(once, there).reduce((sum, s) => sum + segmentLength(s), 0),
        ).toBeCloseTo(
          segmentsOfEdge(doc, edge).reduce((sum, s) => sum + segmentLength(s), 0),
          6,
        );
      }
      const twice = mirrored(once);
      same(
        twice.corners.map((c): Vec => [c.x, c.y]),
        doc.corners.map((c): Vec => [c.x, c.y]),
      );
      expect(twice.sides).toEqual(doc.sides);
      expect(twice.edges).toEqual(doc.edges);
      same(foldEnds(twice), foldEnds(doc));
    }),
  );
});

test('a typed length is kept, in a rectangle without skewing it', () => {
  fc.assert(
    fc.property(anyCard, fc.nat(8), spread(10, 200), (doc, k, mm) => {
      const side = doc.sides[k % doc.sides.length]!;
      fc.pre(side.shape.kind === 'line');
      const s = segmentOfSide(done(setSideLength(doc, side.id, mm)), side.id)!;
      expect(distance(s.a, s.b)).toBeCloseTo(mm, 6);
    }),
  );
  const built = outlineFromPoints([
    [0, 0],
    [100, 0],
    [100, 60],
    [0, 60],
  ]);
  if (!built.ok) throw new Error('no outline');
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
  const wide = done(setSideLength(doc, doc.sides[0]!.id, 130));
  expect(wide.corners.map((c) => [c.x, c.y])).toEqual([
    [0, 0],
    [130, 0],
    [130, 60],
    [0, 60],
  ]);
  expect(setSideLength(doc, doc.sides[0]!.id, 0)).toMatchObject({
    ok: false,
    problems: [{ code: 'side-length-not-positive' }],
  });
});

test('edges joined and parted keep every side and every record; the first keeps its id', () => {
  fc.assert(
    fc.property(anyCard, fc.array(fc.nat(8), { minLength: 1, maxLength: 6 }), (start, steps) => {
      let doc = start;
      const ids = start.edges.map((edge) => edge.id);
      for (const [i, k] of steps.entries()) {
        const edge = doc.edges[k % doc.edges.length]!;
        const within = edge.sides.length > 1 && i % 2 === 1;
        const before = doc;
        if (within) {
          const corner = doc.sides.find((s) => s.id === edge.sides[1])!.from;
          doc = done(partEdge(doc, corner, countingIds(`q${i}`)));
          expect(doc.edges).toHaveLength(before.edges.length + 1);
        } else {
          const joined = joinEdges(doc, edge.id);
          if (doc.edges.length < 2)
            expect(joined).toMatchObject({ ok: false, problems: [{ code: 'only-edge' }] });
          else doc = done(joined);
        }
        sound(doc);
        // Whatever was read or welded on an edge at any time has an edge that tells it.
        for (const id of ids) expect(edgeOfRecord(doc, { edge: id, turned: false })).not.toBeNull();
        expect(new Set(doc.edges.map((e) => e.letter)).size).toBe(doc.edges.length);
      }
      expect(
        letterAgain(doc)
          .edges.map((e) => e.letter)
          .sort(),
      ).toEqual(doc.edges.map((_, i) => String.fromCharCode(65 + i)).sort());
    }),
  );
});

test('a corner taken out takes its edge’s record along', () => {
  const built = outlineFromPoints([
    [0, 0],
    [100, 0],
    [100, 60],
    [0, 60],
  ]);
  if (!built.ok) throw new Error('no outline');
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
  const [first, second] = doc.edges;
  const out = done(removeCorner(doc, doc.sides[0]!.to));
  expect(out.edges).toHaveLength(3);
  const found = edgeOfRecord(out, { edge: second!.id, turned: false });
  expect([found?.edge.id, found?.along(10)]).toEqual([first!.id, 110]);
  expect(removeCorner(out, out.corners[0]!.id)).toMatchObject({
    ok: false,
    problems: [{ code: 'last-corners' }],
  });
});

test('every edit leaves the card it was given alone', () => {
  fc.assert(
    fc.property(anyCard, (doc) => {
      const frozen = (value: unknown): void => {
        if (typeof value !== 'object' || value === null) return;
        Object.freeze(value);
        Object.values(value).forEach(frozen);
      };
      frozen(doc);
      const edge = doc.edges[0]!;
      const side = doc.sides[0]!;
      moveCorner(doc, doc.corners[0]!.id, [1, 2]);
      reshapeSide(doc, side.id, 0.1);
      splitSide(doc, side.id, 0.5, countingIds('n'));
      removeCorner(doc, doc.corners[1]!.id);
      joinEdges(doc, edge.id);
      letterAgain(doc);
      setEdge(doc, edge.id, { letter: 'Q' });
      if (doc.folds[0]) expect(setFold(doc, 'f1', { angleDeg: 45 }).folds[0]!.angleDeg).toBe(45);
      if (doc.holes[0])
        expect(without(setHole(doc, 'h0', { x: 9 }), 'h0').holes).toHaveLength(
          doc.holes.length - 1,
        );
      mirrored(doc);
      expect(spotNearest(doc, [200, 0])).not.toBeNull();
    }),
    { numRuns: 30 },
  );
});

test('a place stays as it was meant: so far from an end, so far in from a side, or a share', () => {
  const built = outlineFromPoints([
    [0, 0],
    [100, 0],
    [100, 60],
    [0, 60],
  ]);
  if (!built.ok) throw new Error('no outline');
  const plain = { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
  const [bottom, right, top] = plain.sides as [Side, Side, Side];
  const bend = {
    angleDeg: 90,
    toward: 'face' as const,
    radiusMm: null,
    convention: 'outside-sharp' as const,
  };
  const doc: PatternDoc = {
    ...plain,
    folds: [
      // 20 in from the right-hand side, wherever that goes.
      { ...bend, id: 'in', path: { kind: 'along', side: right.id, inMm: 20 } },
      {
        ...bend,
        id: 'start',
        path: {
          kind: 'between',
          from: { side: bottom.id, startMm: 30 },
          to: { side: top.id, endMm: 30 },
        },
      },
      {
        ...bend,
        id: 'share',
        path: {
          kind: 'between',
          from: { side: bottom.id, share: 0.5 },
          to: { side: top.id, share: 0.5 },
        },
      },
    ],
  };
  const x = (card: PatternDoc) =>
    card.folds.map((f) => Math.round(endsOfFold(card, f)![0][0] * 1e6) / 1e6);
  expect(x(doc)).toEqual([80, 30, 50]);
  expect(x(done(setSideLength(doc, bottom.id, 130)))).toEqual([110, 30, 65]);
  // Through the edits that move sides about: parted, taken together again, turned over.
  const parted = done(splitSide(doc, bottom.id, 0.2, countingIds('n')));
  expect(x(parted)).toEqual([80, 30, 50]);
  expect(x(done(removeCorner(parted, 'n1')))).toEqual([80, 30, 50]);
  expect(x(mirrored(doc))).toEqual([20, 70, 50]);
  // A side that became too short for its fold says so and keeps it.
  const short = done(setSideLength(doc, bottom.id, 25));
  expect(checkCard(short).map((p) => [p.code, p.about?.[0]])).toContainEqual([
    'fold-off-outline',
    'start',
  ]);
});

test('a corner is opened to an angle: that angle, both its lengths, and every other corner as they were', () => {
  const near = (doc: PatternDoc, id: string) =>
    doc.sides.filter((s) => s.from === id || s.to === id);
  fc.assert(
    fc.property(anyCard, fc.nat(20), spread(20, 340), (doc, which, angleDeg) => {
      const { id } = doc.corners[which % doc.corners.length]!;
      const was = cornerAngle(doc, id);
      const set = setCornerAngle(doc, id, angleDeg);
      const curved = near(doc, id).some((s) => s.shape.kind === 'arc');
      expect([was === null, set.ok]).toEqual([curved, !curved]);
      if (!set.ok || was === null) return;
      expect(cornerAngle(set.doc, id)).toBeCloseTo(angleDeg, 6);
      expect(done(setCornerAngle(set.doc, id, was)).corners.map((c) => c.x)).toEqual(
        doc.corners.map((c) => expect.closeTo(c.x, 6)),
      );
      for (const side of near(doc, id))
        expect(segmentLength(segmentOfSide(set.doc, side.id)!)).toBeCloseTo(
          segmentLength(segmentOfSide(doc, side.id)!),
          6,
        );
      expect(
        set.doc.corners.filter((c, i) => c.x !== doc.corners[i]!.x || c.y !== doc.corners[i]!.y)
          .length,
      ).toBeLessThanOrEqual(1);
    }),
  );
  // A square card: the angles a bevel reads there; 0 and full turns are refused.
  const built = outlineFromPoints([
    [0, 0],
    [100, 0],
    [100, 60],
    [0, 60],
  ]);
  const square = {
    ...emptyPattern(),
    ...patternParts((built as { path: Path }).path, countingIds()),
  };
  expect(square.corners.map((c) => cornerAngle(square, c.id))).toEqual([90, 90, 90, 90]);
  for (const angle of [0, 360, NaN])
    expect(setCornerAngle(square, square.corners[0]!.id, angle).ok).toBe(false);
});
