import fc from 'fast-check';
import { area } from '../measure/path';
import { arcOf, bulgeOfRadius, bulgeThrough, pointAt } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { checkCard } from './check';
import {
  joinEdges,
  moveCorner,
  partEdge,
  removeCorner,
  reshapeSide,
  setSideLength,
  splitSide,
} from './edit';
import { emptyPattern } from './emptyPattern';
import { facesOf } from './faces';
import { endsOfFold } from './foldPlace';
import { between, done } from './given.arbitrary';
import { countingIds } from './kinds';
import {
  outlineFromLegs,
  outlineFromPoints,
  parseLegs,
  parsePlaces,
  parsePoints,
  walk,
  writtenLeg,
} from './legs';
import { mirrored } from './mirror';
import { edgeLength, letterAt, outlineOf, patternParts } from './outline';
import type { PatternDoc } from './pattern';
import { PatternSchema } from './pattern';
import { edgeOfRecord } from './recordPlace';
import { snap } from './snap';

const card = (points: Vec[]): PatternDoc => {
  const built = outlineFromPoints(points);
  if (!built.ok) throw new Error('no outline');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
};
const rectangle = (w = 100, h = 60) =>
  card([
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ]);
const codes = (doc: PatternDoc) => checkCard(doc).map((p) => p.code);

describe('legs', () => {
  test('"120 @ 90, then 45 @ 60" is two legs; commas inside figures and inches are understood', () => {
    expect(parseLegs('120 @ 90, then 45 @ 60', 'mm')).toEqual({
      ok: true,
      legs: [
        { lengthMm: 120, turnDeg: 90 },
        { lengthMm: 45, turnDeg: 60 },
      ],
    });
    expect(parseLegs('4 1/2" right 45°\n20.5; 30 straight on', 'mm')).toMatchObject({
      legs: [{ lengthMm: 114.3, turnDeg: -45 }, { lengthMm: 20.5, turnDeg: 90 }, { turnDeg: 0 }],
    });
    expect(parseLegs('300, left 60, 180 left 60\n5\'-8" left', 'mm')).toMatchObject({
      legs: [
        { lengthMm: 300, turnDeg: 60 },
        { lengthMm: 180, turnDeg: 60 },
        { lengthMm: 1727.2, turnDeg: 90 },
      ],
    });
    // A comma between two figures may be a decimal comma or part two legs: asked about.
    for (const text of ['300\n20,5', '20,5 left 60', '1,234'])
      expect(parseLegs(text, 'mm')).toMatchObject({
        ok: false,
        problems: [{ code: 'leg-ambiguous' }],
      });
    expect(parseLegs('1,234.5', 'mm')).toMatchObject({ legs: [{ lengthMm: 1234.5 }] });
    // What a drag of the walk writes is read back.
    for (const leg of [
      { lengthMm: 300.25, turnDeg: 90 },
      { lengthMm: 20, turnDeg: -33.5 },
      { lengthMm: 7, turnDeg: 0 },
    ])
      expect(parseLegs(writtenLeg(leg, 'mm'), 'mm')).toEqual({ ok: true, legs: [leg] });
    expect(parseLegs('120 @ 90, x, 0', 'mm')).toMatchObject({
      ok: false,
      problems: [{ code: 'leg-unreadable', numbers: { leg: 2 } }, { code: 'leg-zero' }],
    });
    expect(parseLegs(' , ', 'mm')).toMatchObject({ ok: false, problems: [{ code: 'no-legs' }] });
  });

  test('a walk round any closed polygon closes; spread or left, an error is never more than it was', () => {
    const legs = fc.array(
      fc.record({
        lengthMm: spread(1, 500),
        turnDeg: spread(10, 80),
      }),
      { minLength: 3, maxLength: 9 },
    );
    fc.assert(
      fc.property(legs, (list) => {
        const { closingMm } = walk(list);
        const spread = outlineFromLegs(list, 'spread');
        const left = outlineFromLegs(list, 'leave');
        if (!spread.ok || !left.ok) throw new Error('refused');
        expect(spread.path).toHaveLength(list.length);
        expect(left.path).toHaveLength(closingMm > 1e-3 ? list.length + 1 : list.length);
        if (closingMm < 1e-9) return;
        // Each leg changes by no more than its share of the error.
        const total = list.reduce((sum, leg) => sum + leg.lengthMm, 0);
        const lengths = spread.path.map((s) => distance(s.a, s.b)).sort((a, b) => a - b);
        const typed = list.map((leg) => leg.lengthMm).sort((a, b) => a - b);
        const changed = lengths.reduce((sum, l, i) => sum + Math.abs(l - typed[i]!), 0);
        expect(changed).toBeLessThanOrEqual((closingMm * total) / total + 1e-6);
      }),
    );
  });

  test('points pasted from a spreadsheet, with a heading, either way round', () => {
    const pasted = parsePoints('x\ty\n0\t0\n0\t60\n100\t60\n100\t0\n', 'mm');
    if (!pasted.ok) throw new Error('refused');
    const built = outlineFromPoints(pasted.points);
    expect(built.ok && area(built.path)).toBe(6000);
    expect(parsePoints('0, 0\n1 1/2", 3', 'mm')).toMatchObject({
      points: [
        [0, 0],
        [expect.closeTo(38.1, 9), 3],
      ],
    });
    expect(parsePoints('1,5 2,5\n300,5\n1 1/2 3 1/4', 'mm')).toMatchObject({
      points: [
        [1.5, 2.5],
        [300, 5],
        [38.1, 82.55],
      ],
    });
    expect(parsePlaces('along\tacross\tup\n0\t1 1/2\t-2\n6; 3; 1/4', 'in')).toMatchObject({
      places: [
        [0, 38.1, -50.8],
        [152.4, 76.2, 6.35],
      ],
    });
    expect(parsePlaces('0 0 0\n1 2', 'mm')).toMatchObject({
      ok: false,
      problems: [{ code: 'row-unreadable', numbers: { row: 2, cells: 3 } }],
    });
    expect(parsePoints('300,200,5', 'mm')).toMatchObject({
      ok: false,
      problems: [{ code: 'row-ambiguous', numbers: { row: 1 } }],
    });
    expect(parsePoints('0 0\nten 5', 'mm')).toMatchObject({
      ok: false,
      problems: [{ code: 'row-unreadable', numbers: { row: 2 } }],
    });
    expect(
      outlineFromPoints([
        [0, 0],
        [1, 1],
      ]),
    ).toMatchObject({ ok: false });
  });
});

test('an arc through three points passes through all three, and one of a radius has that radius', () => {
  const p = fc.tuple(spread(-100, 100), spread(-100, 100));
  fc.assert(
    fc.property(p, p, p, (a, via, b) => {
      fc.pre(distance(a, b) > 1 && distance(a, via) > 1 && distance(b, via) > 1);
      const bulge = bulgeThrough(a, via, b);
      fc.pre(Math.abs(bulge) > 1e-3 && Math.abs(bulge) < 50);
      const s = { a, b, bulge };
      const { centre, radius } = arcOf(s);
      for (const q of [a, via, b])
        expect(Math.abs(distance(q, centre) - radius)).toBeLessThan(1e-6 * Math.max(1, radius));
      expect(
        Math.min(...Array.from({ length: 401 }, (_, i) => distance(pointAt(s, i / 400), via))),
      ).toBeLessThan(radius / 50);
    }),
  );
  const bulge = bulgeOfRadius([0, 0], [80, 0], 50, 1)!;
  expect(arcOf({ a: [0, 0], b: [80, 0], bulge }).radius).toBeCloseTo(50, 9);
  expect(bulgeOfRadius([0, 0], [80, 0], 39, 1)).toBeNull();
});

describe('edits', () => {
  test('letters run clockwise from the datum corner', () => {
    const doc = rectangle();
    const edgeOf = (letter: string) => doc.edges.find((e) => e.letter === letter)!;
    // From the corner at 0, 0 clockwise: up the left side, along the top, down the right, back
    // along the bottom.
    expect(['A', 'B', 'C', 'D'].map((l) => edgeLength(doc, edgeOf(l)))).toEqual([60, 100, 60, 100]);
    expect(doc.sides.find((s) => s.id === edgeOf('A').sides[0])!.to).toBe(doc.corners[0]!.id);
    expect([0, 25, 26, 51, 52].map(letterAt)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA']);
  });

  test('splitting a side keeps its edge and its length, and folds stay where they were', () => {
    fc.assert(
      fc.property(spread(0.01, 0.99), spread(0.05, 0.95), (at, foldAt) => {
        const doc = rectangle();
        doc.folds.push({
          id: 'f',
          path: between(
            { side: doc.sides[0]!.id, at: foldAt },
            { side: doc.sides[2]!.id, at: 1 - foldAt },
          ),
          angleDeg: 90,
          toward: 'face',
          radiusMm: null,
          convention: 'outside-sharp',
        });
        const split = done(splitSide(doc, doc.sides[0]!.id, at, countingIds('n')));
        expect(split.edges).toHaveLength(4);
        expect(edgeLength(split, split.edges[0]!)).toBeCloseTo(100, 9);
        expect(endsOfFold(split, split.folds[0]!)![0][0]).toBeCloseTo(100 * foldAt, 6);
        const back = done(removeCorner(split, split.corners.find((c) => c.id.startsWith('n'))!.id));
        expect(endsOfFold(back, back.folds[0]!)![0][0]).toBeCloseTo(100 * foldAt, 6);
        expect(PatternSchema.safeParse(split).success).toBe(true);
      }),
    );
  });

  test('a rectangle stays square when a side is given a length; a corner moved alone does not carry others', () => {
    const wide = done(setSideLength(rectangle(), rectangle().sides[0]!.id, 130));
    expect(outlineOf(wide).path.map((s) => distance(s.a, s.b))).toEqual([130, 60, 130, 60]);
    const bent = moveCorner(rectangle(), rectangle().corners[2]!.id, [110, 70]);
    expect(bent.corners.filter((c, i) => c.x !== rectangle().corners[i]!.x)).toHaveLength(1);
  });

  test('parting an edge and joining it again gives the edge back with its id', () => {
    const split = done(splitSide(rectangle(), rectangle().sides[0]!.id, 0.4, countingIds('n')));
    const at = split.corners.find((c) => c.id.startsWith('n'))!.id;
    const parted = done(partEdge(split, at, countingIds('m')));
    expect(parted.edges.map((e) => e.letter)).toEqual(['D', 'E', 'C', 'B', 'A']);
    // It remembers the one it took in, so that what was read and welded there is still told.
    const joined = done(joinEdges(parted, parted.edges[0]!.id));
    const { was, ...edge } = joined.edges[0]!;
    expect([edge, ...joined.edges.slice(1)]).toEqual(split.edges);
    expect(was).toEqual([{ id: 'm1', letter: 'E', span: { fromMm: 40, lengthMm: 60 } }]);
    const found = edgeOfRecord(joined, { edge: 'm1', turned: false });
    expect([found?.edge.id, found?.letter, found?.along(10)]).toEqual([edge.id, 'E', 50]);
    // Turned over since, a distance from its start is one from its end.
    expect(edgeOfRecord(mirrored(joined), { edge: 'm1', turned: false })?.along(10)).toBe(50);
    expect(edgeOfRecord(mirrored(joined), { edge: edge.id, turned: false })?.along(10)).toBe(90);
  });
});

describe('checks', () => {
  const fold = (doc: PatternDoc, a: [number, number], b: [number, number]) => {
    const place = ([side, at]: [number, number]) => ({ side: doc.sides[side]!.id, at });
    doc.folds.push({
      id: `f${doc.folds.length}`,
      path: between(place(a), place(b)),
      angleDeg: 90,
      toward: 'face',
      radiusMm: null,
      convention: 'outside-sharp',
    });
    return doc;
  };
  test('what is wrong with a card is named', () => {
    expect(codes(rectangle())).toEqual([]);
    expect(codes(emptyPattern())).toEqual(['outline-empty']);
    expect(codes(moveCorner(rectangle(), rectangle().corners[2]!.id, [-50, 20]))).toContain(
      'outline-crosses',
    );
    expect(codes(moveCorner(rectangle(), rectangle().corners[1]!.id, [0, 0]))).toContain(
      'side-zero',
    );
    expect(codes(fold(fold(rectangle(), [0, 0.5], [2, 0.5]), [1, 0.5], [3, 0.5]))).toEqual([
      'folds-cross',
    ]);
    expect(codes(fold(rectangle(), [0, 0.2], [0, 0.8]))).toEqual(['fold-leaves-card']);
    expect(
      codes(
        fold(
          card([
            [0, 0],
            [100, 0],
            [100, 20],
            [50, 5],
            [0, 20],
          ]),
          [1, 1],
          [4, 0],
        ),
      ),
    ).toEqual(['fold-leaves-card']);
    const holed = rectangle();
    holed.holes.push(
      { id: 'h', x: 150, y: 0, diameterMm: 5 },
      { id: 'i', x: 2, y: 30, diameterMm: 5 },
    );
    expect(codes(holed)).toEqual(['hole-outside', 'hole-over-edge']);
  });

  test('a fold may begin and end on an arc, hollow or full', () => {
    for (const bulge of [0.3, -0.2]) {
      const plain = rectangle();
      const curved = reshapeSide(
        reshapeSide(plain, plain.sides[0]!.id, bulge),
        plain.sides[2]!.id,
        bulge,
      );
      expect(codes(fold(curved, [0, 0.37], [2, 0.61]))).toEqual([]);
    }
  });

  test('folds that meet at a corner part the card into a tree of faces', () => {
    const doc = fold(fold(rectangle(), [0, 0], [1, 0.5]), [0, 0], [2, 0.5]);
    const tree = facesOf(doc);
    expect(tree.ok && tree.faces).toHaveLength(3);
    expect(tree.ok && tree.order).toHaveLength(3);
  });
});

test('a dragged corner snaps square to its neighbours, to ends, and to round lengths', () => {
  const context = {
    anchors: [
      [0, 0],
      [100, 60],
    ] as Vec[],
    ends: [[40, 90]] as Vec[],
    directions: [] as Vec[],
    reachMm: 4,
    unit: 'mm' as const,
  };
  expect(snap([1.5, 58], context)).toMatchObject({ point: [0, 60], reasons: ['along', 'along'] });
  expect(snap([41, 88], context).reasons).toEqual(['end']);
  expect(snap([52.3, 1], { ...context, anchors: [[0, 0]] })).toMatchObject({
    point: [50, 0],
    reasons: ['along', 'round'],
  });
});
