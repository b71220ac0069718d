import Flatten from '@flatten-js/core';
import fc from 'fast-check';
import { distanceToPolygon, inside, points } from '../measure/path';
import { directionAt, isStraight, pointAt, segmentLength } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { cross, distance, mix, sub, unit } from '../measure/vector';
import { checkCard } from './check';
import { joinEdges, reshapeSide } from './edit';
import { emptyPattern } from './emptyPattern';
import { alongEdge, besideFold, chordAlong, placeAlong, snapPlace } from './foldPlace';
import { between, done } from './given.arbitrary';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import type { Spot } from './outline';
import { outlineOf, patternParts, pointOfSpot, segmentOfSide, spotOf } from './outline';
import type { Fold, PatternDoc } from './pattern';

const card = (corners: Vec[]): PatternDoc => {
  const built = outlineFromPoints(corners);
  if (!built.ok) throw new Error('no outline');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
};
const near = (x: number, y: number) => [expect.closeTo(x, 6), expect.closeTo(y, 6)];
/** Outlines with straight and bowed sides, hollow corners among them. */
const anyCard = fc
  .array(fc.record({ radius: spread(40, 100), bulge: spread(-0.2, 0.3), bowed: fc.boolean() }), {
    minLength: 4,
    maxLength: 9,
  })
  .map((corners) => {
    let doc = card(
      corners.map(({ radius }, i): Vec => {
        const a = (2 * Math.PI * i) / corners.length;
        return [radius * Math.cos(a), radius * Math.sin(a)];
      }),
    );
    corners.forEach(({ bulge, bowed }, i) => {
      if (bowed) doc = reshapeSide(doc, doc.sides[i]!.id, bulge);
    });
    return doc;
  })
  .filter((doc) => checkCard(doc).length === 0);
const foldAt = (from: Spot, to: Spot): Fold => ({
  id: 'f',
  path: between(from, to),
  angleDeg: 90,
  toward: 'face',
  radiusMm: null,
  convention: 'outside-sharp',
});

test('a fold laid along a side is parallel to it, so far in, inside the card, from rim to rim', () => {
  let laid = 0;
  fc.assert(
    fc.property(anyCard, fc.nat(8), spread(2, 80), (doc, k, offMm) => {
      const side = doc.sides[k % doc.sides.length]!;
      const segment = segmentOfSide(doc, side.id)!;
      const found = chordAlong(doc, side.id, offMm);
      if (!isStraight(segment))
        return expect(found).toMatchObject({
          ok: false,
          problems: [{ code: 'side-not-straight' }],
        });
      const rule = Flatten.line(Flatten.point(...segment.a), Flatten.point(...segment.b));
      const polygon = points(outlineOf(doc).path, 0.001);
      if (!found.ok) {
        // Nothing of the card lies there: every corner is nearer to the side's line than that.
        const reach = Math.max(
          ...polygon.map((p) => cross(directionAt(segment, 0), sub(p, segment.a))),
        );
        return expect(reach).toBeLessThanOrEqual(offMm + 1e-6);
      }
      laid++;
      const ends = [found.chord.from, found.chord.to].map((place) => pointOfSpot(doc, place)!) as [
        Vec,
        Vec,
      ];
      for (const end of ends) {
        expect(Flatten.point(...end).distanceTo(rule)[0]).toBeCloseTo(offMm, 6);
        expect(distanceToPolygon(end, polygon)).toBeLessThan(0.01);
      }
      expect(inside(mix(...ends, 0.5), polygon)).toBe(true);
      const fold = foldAt(found.chord.from, found.chord.to);
      // Measured back from the side with a rule it is where it was asked for.
      expect(besideFold(doc, fold)).toContainEqual(
        expect.objectContaining({ side: side.id, offMm: expect.closeTo(offMm, 6) }),
      );
      if (distance(...ends) > 2)
        expect(checkCard({ ...doc, folds: [fold] }).map((p) => p.code)).toEqual([]);
    }),
  );
  expect(laid).toBeGreaterThan(20);
});

test('of several stretches across a card with a notch, the one that faces the side is taken', () => {
  const doc = card([
    [0, 0],
    [120, 0],
    [120, 60],
    [80, 60],
    [80, 20],
    [40, 20],
    [40, 60],
    [0, 60],
  ]);
  const ends = (side: number, off: number) => {
    const found = chordAlong(doc, doc.sides[side]!.id, off);
    return found.ok
      ? [found.chord.from, found.chord.to].map((place) => pointOfSpot(doc, place)!)
      : found;
  };
  // In from the right-hand arm's top, and from the left-hand arm's: each crosses its own arm.
  expect(ends(2, 10)).toEqual([near(120, 50), near(80, 50)]);
  expect(ends(6, 10)).toEqual([near(40, 50), near(0, 50)]);
  expect(ends(0, 10)).toEqual([near(0, 10), near(120, 10)]);
  expect(ends(0, 61)).toMatchObject({
    ok: false,
    problems: [{ code: 'fold-misses-card', numbers: { offMm: 61 } }],
  });
});

test('so far along an edge and back again is the same place, whatever the edge runs over', () => {
  fc.assert(
    fc.property(anyCard, fc.nat(8), fc.nat(3), spread(0, 1), (start, k, joins, share) => {
      let doc = start;
      for (let i = 0; i < Math.min(joins, doc.sides.length - 2); i++)
        doc = done(joinEdges(doc, doc.edges[0]!.id));
      const edge = doc.edges[k % doc.edges.length]!;
      const whole = edge.sides.reduce(
        (sum, side) => sum + segmentLength(segmentOfSide(doc, side)!),
        0,
      );
      const place = placeAlong(doc, edge, share * whole)!;
      const found = alongEdge(doc, spotOf(doc, place)!)!;
      expect(found.edge.id).toBe(edge.id);
      expect(found.atMm).toBeCloseTo(share * whole, 6);
      expect(found.lengthMm).toBeCloseTo(whole, 6);
      const spot = (mm: number) => spotOf(doc, placeAlong(doc, edge, mm)!);
      expect(spot(whole + 50)).toEqual({ side: edge.sides[edge.sides.length - 1], at: 1 });
      expect(spot(-5)).toEqual({ side: edge.sides[0], at: 0 });
    }),
  );
});

describe('the place that is meant by a touch', () => {
  const doc = card([
    [0, 0],
    [200, 0],
    [200, 100],
    [0, 100],
  ]);
  const side = (i: number) => doc.sides[i]!.id;
  const meant = (p: Vec, from: Spot | null = null, reachMm = 4) =>
    snapPlace(doc, p, { from, reachMm, unit: 'mm' });

  test('a corner that is near; else a round distance from the nearer corner', () => {
    expect(meant([2, 1])).toMatchObject({ spot: { side: side(0), at: 0 }, reason: 'corner' });
    // A round distance is meant as one, from the corner it was caught from.
    expect(meant([37.2, -1])).toMatchObject({
      reason: 'round',
      point: near(35, 0),
      place: { startMm: 35 },
    });
    expect(meant([161.9, 2])).toMatchObject({
      reason: 'round',
      point: near(160, 0),
      place: { endMm: 40 },
    });
    expect(meant([100, 50])).toBeNull();
    expect(
      snapPlace(doc, [37.2, 1], { from: null, reachMm: 20, unit: 'in' })?.point[0],
    ).toBeCloseTo(25.4, 9);
  });

  test('the other end of a fold catches where it runs square or parallel to a side', () => {
    const from = { side: side(0), at: 0.235 };
    expect(meant([45.3, 101], from)).toMatchObject({ reason: 'square', point: near(47, 100) });
    // Too far from square to be meant so: it goes where it is put, at a round distance.
    expect(meant([60.8, 101], from)).toMatchObject({ reason: 'round', point: near(60, 100) });
    const slanted = card([
      [0, 0],
      [200, 0],
      [160, 100],
      [0, 100],
    ]);
    const end = snapPlace(slanted, [147, 101], {
      from: { side: slanted.sides[0]!.id, at: 0.94 },
      reachMm: 4,
      unit: 'mm',
    });
    expect(end?.reason).toBe('parallel');
    const [p, q] = [pointOfSpot(slanted, { side: slanted.sides[0]!.id, at: 0.94 })!, end!.point];
    expect(cross(unit(sub(q, p)), unit([-40, 100]))).toBeCloseTo(0, 9);
  });

  test('a place is always on the outline, never farther from the touch than its reach allows', () => {
    fc.assert(
      fc.property(
        anyCard,
        spread(-110, 110),
        spread(-110, 110),
        spread(1, 12),
        fc.nat(8),
        (any, x, y, reachMm, k) => {
          const from = { side: any.sides[k % any.sides.length]!.id, at: 0.37 };
          const found = snapPlace(any, [x, y], { from, reachMm, unit: 'mm' });
          if (!found) return;
          const s = segmentOfSide(any, found.spot.side)!;
          expect(distance(pointAt(s, found.spot.at), found.point)).toBeLessThan(1e-6);
          expect(spotOf(any, found.place)!.at).toBeCloseTo(found.spot.at, 9);
          // Six reaches to the outline, and at most one along it or half a round step, which is
          // finer than two reaches.
          expect(distance(found.point, [x, y])).toBeLessThan(7.2 * reachMm + 1e-6);
        },
      ),
    );
  });
});
