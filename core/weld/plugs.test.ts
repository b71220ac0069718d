import fc from 'fast-check';
import { develop } from '../blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '../blank/fold/practice';
import { foldedFrames, placed } from '../blank/fold/refold';
import { emptyPattern } from '../card/emptyPattern';
import { between } from '../card/given.arbitrary';
import { countingIds } from '../card/kinds';
import { outlineFromPoints } from '../card/legs';
import { edgeLength, patternParts } from '../card/outline';
import type { Joint, PatternDoc } from '../card/pattern';
import { outwardAlong, pointAlong, runLength } from '../measure/run';
import { nearest } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { metalById } from '../metal/metals';
import type { PlanDoc } from './plan';
import { plugsOnBlank } from './plugs';
import { plugPositions } from './spacing';

const metal = metalById('dc01');

/**
 * A strip 200 by 60 whose long bottom edge (D) is to be plugged, folded across at each `x`.
 */
function strip(
  joint: Joint,
  folds: { x: number; angleDeg: number; convention: 'outside-sharp' | 'inside-sharp' }[],
): PatternDoc {
  const built = outlineFromPoints([
    [0, 0],
    [200, 0],
    [200, 60],
    [0, 60],
  ]);
  if (!built.ok) throw new Error('no outline');
  const parts = patternParts(built.path, countingIds());
  const [bottom, , top] = parts.sides;
  return {
    ...emptyPattern(),
    ...parts,
    base: [1, 30],
    edges: parts.edges.map((edge, i) => (i === 0 ? { ...edge, joint } : edge)),
    folds: folds.map(({ x, angleDeg, convention }, i) => ({
      id: `f${i}`,
      path: between({ side: bottom!.id, at: x / 200 }, { side: top!.id, at: 1 - x / 200 }),
      angleDeg,
      toward: 'face',
      radiusMm: 1.5,
      convention,
    })),
  };
}
/** The bottom edge plugged 25 mm apart from 12 mm in. */
const planned25 = (doc: PatternDoc): PlanDoc => ({
  version: 2,
  edges: [
    {
      edge: doc.edges[0]!.id,
      weld: { process: 'mig', tackPitchMm: 50, plugs: { holeMm: 6.5, pitchMm: 25, endMm: 12 } },
    },
  ],
});
const developed = (doc: PatternDoc, t: number) => {
  const found = develop(doc, sheetMetal(metal, t, DEFAULT_SHOP), DEFAULT_SHOP);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.development;
};
const joints: fc.Arbitrary<Joint> = fc.oneof(
  fc.record({ kind: fc.constant('lap' as const), widthMm: spread(10, 20) }),
  fc.record({
    kind: fc.constant('plug-flange' as const),
    widthMm: spread(12, 20),
    turnDeg: fc.constant(0),
  }),
);
const bends = fc.tuple(
  fc.record({
    x: spread(50, 70),
    angleDeg: spread(20, 90),
    convention: fc.constantFrom('outside-sharp', 'inside-sharp'),
  }),
  fc.record({
    x: spread(120, 150),
    angleDeg: spread(20, 90),
    convention: fc.constantFrom('outside-sharp', 'inside-sharp'),
  }),
) as fc.Arbitrary<{ x: number; angleDeg: number; convention: 'outside-sharp' | 'inside-sharp' }[]>;

/** Holes in the overlap that each card adds. */
const HERE = () => 'here' as const;

test('the blank carries as many plugs as the weld plan counts, in the middle of the overlap, inside the cut', () => {
  fc.assert(
    fc.property(joints, bends, spread(0.8, 2), (joint, folds, t) => {
      const doc = strip(joint, folds);
      const d = developed(doc, t);
      const [run] = plugsOnBlank(doc, planned25(doc), 1, d, HERE);
      const planned = plugPositions(edgeLength(doc, doc.edges[0]!), 25, 12);
      expect(planned.ok && run!.centres.length).toBe(planned.ok && planned.count);
      const edge = d.edges[0]!;
      for (const centre of run!.centres) {
        const toNet = Math.min(...edge.net.map((s) => nearest(s, centre).distance));
        expect(toNet).toBeGreaterThanOrEqual(edge.allowance.middleMm - 1e-6);
        expect(toNet).toBeLessThan(edge.allowance.middleMm + 0.6);
        expect(Math.min(...edge.cut.map((s) => nearest(s, centre).distance))).toBeGreaterThan(3);
      }
    }),
    { numRuns: 60 },
  );
});

test('away from the bends they are on the finished piece where the plan says, measured from its corner', () => {
  fc.assert(
    fc.property(bends, spread(0.8, 2), (folds, t) => {
      const doc = strip({ kind: 'lap', widthMm: 12 }, folds);
      const d = developed(doc, t);
      const [run] = plugsOnBlank(doc, planned25(doc), 1, d, HERE);
      const planned = plugPositions(200, 25, 12);
      if (!planned.ok) throw new Error('refused');
      // On the base plate nothing has moved: the plan's own positions, half the lap out.
      planned.positionsMm.forEach((mm, i) => {
        if (mm < folds[0]!.x - 8) expect(distance(run!.centres[i]!, [mm, -6])).toBeLessThan(1e-6);
      });
      // On the last plate: as far from the piece's other corner as planned, in space, on the
      // plate's own face.
      const frames = foldedFrames(d);
      const last = d.order[d.order.length - 1]!;
      const corner = placed(
        frames[last]!,
        d.faces[last]!.pieces.map((p) => p.segment.a).reduce((a, b) => (b[0] > a[0] ? b : a)),
        0,
      );
      planned.positionsMm.forEach((mm, i) => {
        if (mm < folds[1]!.x + 8) return;
        const at = placed(frames[last]!, run!.centres[i]!, 0);
        const apart = Math.hypot(
          ...([0, 1, 2].map((c) => at[c]! - corner[c]!) as [number, number, number]),
        );
        const square = Math.hypot(200 - mm, 6);
        const other = Math.hypot(200 - mm, 66);
        expect(Math.min(Math.abs(apart - square), Math.abs(apart - other))).toBeLessThan(1e-6);
      });
    }),
    { numRuns: 60 },
  );
});

test('an edge without plugs carries none', () => {
  const doc = strip({ kind: 'lap', widthMm: 12 }, []);
  const d = developed(doc, 1);
  expect(plugsOnBlank(doc, planned25(doc), 1, d, HERE)).toHaveLength(1);
  const edge = doc.edges[0]!.id;
  const bare: PlanDoc = { version: 2, edges: [{ edge, weld: null }] };
  expect(plugsOnBlank(doc, bare, 1, d, HERE)).toEqual([]);
  // Said nothing of, a lap is plugged as is usual for it.
  expect(plugsOnBlank(doc, { version: 2, edges: [] }, 1, d, HERE)).toHaveLength(1);
});

test('so far along a run of lines and arcs', () => {
  const run = [
    { a: [0, 0], b: [10, 0], bulge: 0 },
    // A quarter turn to the left of radius 10: bulge tan(90°/4).
    { a: [10, 0], b: [20, 10], bulge: Math.tan(Math.PI / 8) },
  ] as { a: Vec; b: Vec; bulge: number }[];
  expect(runLength(run)).toBeCloseTo(10 + 5 * Math.PI, 9);
  expect(pointAlong(run, 4)).toEqual([4, 0]);
  expect(outwardAlong(run, 4)).toEqual([0, -1]);
  const half = pointAlong(run, 10 + 2.5 * Math.PI)!;
  expect(half[0]).toBeCloseTo(10 + 10 * Math.SQRT1_2, 9);
  expect(half[1]).toBeCloseTo(10 - 10 * Math.SQRT1_2, 9);
  const out = outwardAlong(run, 10 + 2.5 * Math.PI);
  expect(out[0]).toBeCloseTo(Math.SQRT1_2, 9);
  expect(out[1]).toBeCloseTo(-Math.SQRT1_2, 9);
  expect(pointAlong(run, 1e3)).toEqual([20, 10]);
  expect(pointAlong([], 1)).toBeNull();
});
