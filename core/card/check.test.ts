import Flatten from '@flatten-js/core';
import fc from 'fast-check';
import { crossingPairs } from '../measure/crossings';
import { line } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { checkCard } from './check';
import { moveCorner, reshapeSide } from './edit';
import { emptyPattern } from './emptyPattern';
import { facesOf } from './faces';
import { between } from './given.arbitrary';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { outlineOf, patternParts } from './outline';
import type { Fold, Hole, PatternDoc } from './pattern';

const card = (corners: Vec[]): PatternDoc => {
  const built = outlineFromPoints(corners);
  if (!built.ok) throw new Error('no outline');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
};
const plate = card([
  [0, 0],
  [100, 0],
  [100, 60],
  [0, 60],
]);
const side = (i: number) => plate.sides[i]!.id;
const fold = (id: string, from: [number, number], to: [number, number]): Fold => ({
  id,
  path: between({ side: side(from[0]), at: from[1] }, { side: side(to[0]), at: to[1] }),
  angleDeg: 90,
  toward: 'face',
  radiusMm: null,
  convention: 'outside-sharp',
});
const hole = (id: string, x: number, y: number, diameterMm: number): Hole => ({
  id,
  x,
  y,
  diameterMm,
});
const found = (change: Partial<PatternDoc>, from = plate) =>
  checkCard({ ...from, ...change }).map(({ code, about = [], severity }) => [
    code,
    severity,
    ...about,
  ]);

describe('what is wrong on a card is named, with the things concerned', () => {
  test('outlines', () => {
    expect(found({})).toEqual([]);
    expect(found({}, emptyPattern())).toEqual([['outline-empty', 'stop']]);
    expect(found({ sides: plate.sides.slice(1) })).toEqual([['outline-not-closed', 'stop']]);
    const crossed = moveCorner(plate, plate.corners[0]!.id, [50, 90]);
    expect(checkCard(crossed).map((p) => p.code)).toContain('outline-crosses');
    const nothing = moveCorner(plate, plate.corners[1]!.id, [0, 0]);
    expect(checkCard(nothing).find((p) => p.code === 'side-zero')?.about).toEqual([side(0)]);
    const turned = {
      ...plate,
      corners: plate.corners.map((c) => ({ ...c, x: -c.x })),
    };
    expect(checkCard(turned).map((p) => p.code)).toEqual(['outline-clockwise']);
  });

  test('a card that would have to lie on both faces of the metal', () => {
    const a = fold('a', [0, 0.3], [2, 0.7]);
    const b = fold('b', [0, 0.7], [2, 0.3]);
    const said = (change: Partial<Fold>) => found({ folds: [a, { ...b, ...change }] });
    expect(said({})).toEqual([]);
    expect(said({ toward: 'back' })).toEqual([['card-both-sides', 'care', 'a', 'b']]);
    expect(said({ convention: 'inside-rolled' })).toEqual([['card-both-sides', 'care', 'a', 'b']]);
    expect(said({ toward: 'back', convention: 'inside-sharp' })).toEqual([]);
  });

  test('folds', () => {
    expect(found({ folds: [fold('a', [0, 0.5], [2, 0.5])] })).toEqual([]);
    expect(
      found({
        folds: [
          {
            ...fold('a', [0, 0.5], [2, 0.5]),
            path: between({ side: 'gone', at: 0 }, { side: side(2), at: 0.5 }),
          },
        ],
      }),
    ).toEqual([['fold-off-outline', 'stop', 'a']]);
    expect(found({ folds: [fold('a', [0, 0.5], [0, 0.505])] })).toEqual([
      ['fold-zero', 'stop', 'a'],
    ]);
    expect(found({ folds: [fold('a', [0, 0.1], [0, 0.9])] })).toEqual([
      ['fold-leaves-card', 'stop', 'a'],
    ]);
    const crossing = [fold('a', [0, 0.5], [2, 0.5]), fold('b', [1, 0.5], [3, 0.5])];
    expect(found({ folds: crossing })).toEqual([['folds-cross', 'stop', 'a', 'b']]);
    expect(found({ folds: [crossing[0]!, { ...crossing[0]!, id: 'c' }] })).toEqual([
      ['folds-cross', 'stop', 'a', 'c'],
    ]);
    // Meeting at a corner, or end to end on the rim, is no crossing.
    expect(found({ folds: [fold('a', [0, 0.5], [2, 0]), fold('b', [0, 0.5], [3, 0])] })).toEqual(
      [],
    );
  });

  test('holes and the face that stays put', () => {
    expect(found({ holes: [hole('h', 150, 30, 8)] })).toEqual([['hole-outside', 'care', 'h']]);
    expect(found({ holes: [hole('h', 97, 30, 8)] })).toEqual([['hole-over-edge', 'care', 'h']]);
    expect(found({ holes: [hole('h', 30, 30, 0)] })).toEqual([['hole-zero', 'stop', 'h']]);
    expect(found({ holes: [hole('h', 30, 30, 8), hole('i', 34, 30, 2)] })).toEqual([
      ['holes-overlap', 'care', 'h', 'i'],
    ]);
    expect(found({ base: [300, 300] })).toEqual([['base-off-card', 'care']]);
    // A touch on the very rim means the face it bounds.
    expect(found({ base: [50, -0.2] })).toEqual([]);
    // What stops comes before what wants care.
    expect(
      found({ holes: [hole('h', 150, 30, 8), hole('i', 30, 30, 0)] }).map(([code]) => code),
    ).toEqual(['hole-zero', 'hole-outside']);
  });
});

test('the sweep finds the pairs of sides that cross which trying every pair in another library finds', () => {
  const points = fc.array(fc.tuple(spread(0, 100), spread(0, 100)), {
    minLength: 4,
    maxLength: 14,
  });
  fc.assert(
    fc.property(points, (corners) => {
      const path = corners.map((p, i) => line(p as Vec, corners[(i + 1) % corners.length]! as Vec));
      const theirs = path.map((s) => Flatten.segment(Flatten.point(...s.a), Flatten.point(...s.b)));
      const expected: string[] = [];
      for (let i = 0; i < path.length; i++) {
        for (let j = i + 1; j < path.length; j++) {
          const neighbours = j === i + 1 || (i === 0 && j === path.length - 1);
          const [hit] = theirs[i]!.intersect(theirs[j]!);
          const ends = [path[i]!.a, path[i]!.b, path[j]!.a, path[j]!.b];
          const clear = hit && ends.every((p) => Math.hypot(p[0] - hit.x, p[1] - hit.y) > 1e-3);
          // Too near a corner to say in either library's last digits.
          if (hit && !clear && !neighbours) return;
          if (clear && !neighbours) expected.push(`${i} ${j}`);
        }
      }
      expect(
        crossingPairs(path)
          .map(([i, j]) => `${i} ${j}`)
          .sort(),
      ).toEqual(expected.sort());
    }),
  );
});

test('folds part a card into one face more than there are folds, each reached once from the base', () => {
  const places = fc.array(fc.tuple(fc.nat(3), spread(0.05, 0.95), fc.nat(3), spread(0.05, 0.95)), {
    maxLength: 8,
  });
  fc.assert(
    fc.property(places, spread(5, 95), spread(5, 55), (list, x, y) => {
      let doc: PatternDoc = { ...plate, base: [x, y] };
      for (const [i, [a, s, b, t]] of list.entries()) {
        const next = { ...doc, folds: [...doc.folds, fold(`f${i}`, [a, s], [b, t])] };
        if (!checkCard(next).some((p) => p.severity === 'stop')) doc = next;
      }
      const tree = facesOf(doc);
      if (!tree.ok) throw new Error('refused');
      expect(tree.faces).toHaveLength(doc.folds.length + 1);
      expect([...tree.order].sort((p, q) => p - q)).toEqual(tree.faces.map((_, i) => i));
      expect(tree.order[0]).toBe(tree.base);
      // Every face but the base is the child of exactly one fold, whose parent comes before it.
      const children = tree.sidesOfFold.map((s) => s.child);
      expect(new Set(children).size).toBe(doc.folds.length);
      for (const { parent, child } of tree.sidesOfFold) {
        expect(tree.order.indexOf(parent)).toBeLessThan(tree.order.indexOf(child));
      }
      // The rims of all faces together are the outline once and every fold twice.
      const sides = tree.faces.flatMap((face) => face.bounds.filter((b) => b.kind === 'side'));
      const parts = new Map<number, number>();
      for (const b of sides)
        if (b.kind === 'side') parts.set(b.side, (parts.get(b.side) ?? 0) + b.to - b.from);
      for (const share of parts.values()) expect(share).toBeCloseTo(1, 9);
      expect(parts.size).toBe(outlineOf(doc).path.length);
    }),
  );
});

test('a curved side crosses nothing until it is bowed through another', () => {
  expect(found({}, reshapeSide(plate, side(0), 0.4))).toEqual([]);
  expect(found({}, reshapeSide(plate, side(0), -0.4))).toEqual([]);
  expect(found({}, reshapeSide(plate, side(0), -1.4)).map(([code]) => code)).toContain(
    'outline-crosses',
  );
});

test('holes on each other are found as by asking each of every other, in the order of the card', () => {
  const hole = fc.record({ x: spread(10, 90), y: spread(10, 50), diameterMm: spread(0.5, 9) });
  fc.assert(
    fc.property(fc.array(hole, { maxLength: 12 }), (given) => {
      const holes = given.map((h, i) => ({ id: `h${i}`, ...h }));
      const expected = holes.flatMap((a, i) =>
        holes
          .slice(i + 1)
          .filter((b) => Math.hypot(a.x - b.x, a.y - b.y) < (a.diameterMm + b.diameterMm) / 2)
          .map((b) => [a.id, b.id]),
      );
      const told = checkCard({ ...plate, holes }).filter((p) => p.code === 'holes-overlap');
      expect(told.map((p) => p.about)).toEqual(expected.slice(0, 5));
    }),
  );
});

describe('a card that nobody meant', () => {
  test('two thousand holes on one spot: the first few are told, and that there are more', () => {
    const holes = Array.from({ length: 2000 }, (_, i) => ({
      id: `h${i}`,
      x: 50,
      y: 30,
      diameterMm: 8,
    }));
    const problems = checkCard({ ...plate, holes });
    expect(problems.filter((p) => p.code === 'holes-overlap')).toHaveLength(5);
    expect(problems.find((p) => p.code === 'more-of-these')).toMatchObject({
      severity: 'care',
      numbers: { count: 195 },
    });
  });

  test('four thousand points in any order: told as crossing, few times, without looking for every crossing', () => {
    const turn = (i: number) => (i * 2399963) % 4000;
    const corners = Array.from({ length: 4000 }, (_, i) => ({
      id: `c${i}`,
      x: turn(i) / 8,
      y: turn(i * 7 + 1) / 8,
    }));
    const sides = corners.map((c, i) => ({
      id: `s${i}`,
      from: c.id,
      to: corners[(i + 1) % corners.length]!.id,
      shape: { kind: 'line' as const },
    }));
    const problems = checkCard({ ...plate, corners, sides, folds: [], holes: [] });
    expect(problems.length).toBeLessThanOrEqual(18);
    expect(problems.map((p) => p.code)).toContain('outline-crosses');
  });
});
