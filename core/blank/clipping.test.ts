import ClipperLib from 'clipper-lib';
import fc from 'fast-check';
import { checkCard } from '../card/check';
import { emptyPattern } from '../card/emptyPattern';
import { between } from '../card/given.arbitrary';
import { CONVENTIONS, countingIds } from '../card/kinds';
import { outlineFromPoints } from '../card/legs';
import { patternParts } from '../card/outline';
import type { Fold, Joint, PatternDoc } from '../card/pattern';
import type { Path } from '../measure/path';
import { area, points } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { develop } from './fold/develop';
import type { Development } from './fold/developed';
import type { Practice, SheetMetal } from './fold/practice';
import { bendRegion } from './fold/region';

/**
 * The blank's outline against Clipper (clipper-lib, an independent polygon clipping library): what
 * the faces, bends, joints and reliefs should leave by their definition, cut and put together
 * there.
 */

const GRID = 1e5;
const onGrid = (polygon: readonly Vec[]) =>
  polygon.map(([x, y]) => ({ X: Math.round(x * GRID), Y: Math.round(y * GRID) }));
const theirs = (path: Path) => onGrid(points(path, 0.001));
type Theirs = ReturnType<typeof theirs>;

function clipped(
  operation: 'ctUnion' | 'ctIntersection' | 'ctDifference',
  subject: Theirs[],
  clip: Theirs[] = [],
): number {
  const clipper = new ClipperLib.Clipper();
  const { ptSubject, ptClip } = ClipperLib.PolyType;
  clipper.AddPaths(subject, ptSubject, true);
  if (clip.length > 0) clipper.AddPaths(clip, ptClip, true);
  const solution = new ClipperLib.Paths();
  const fill = ClipperLib.PolyFillType.pftNonZero;
  clipper.Execute(ClipperLib.ClipType[operation], solution, fill, fill);
  return solution.reduce((sum, path) => sum + ClipperLib.Clipper.Area(path), 0) / GRID ** 2;
}
/** Counter-clockwise, so that overlapping pieces add up under the non-zero rule. */
const upright = (path: Theirs): Theirs =>
  ClipperLib.Clipper.Area(path) < 0 ? [...path].reverse() : path;
const disc = ([x, y]: Vec, radius: number): Vec[] =>
  Array.from({ length: 1440 }, (_, i): Vec => {
    const a = (2 * Math.PI * i) / 1440;
    return [x + radius * Math.cos(a), y + radius * Math.sin(a)];
  });

/** Outlines with hollow corners, notches and tabs, on which folds may be laid anyhow. */
const SHAPES: Vec[][] = [
  [
    [0, 0],
    [100, 0],
    [100, 40],
    [60, 40],
    [60, 100],
    [0, 100],
  ],
  [
    [0, 0],
    [120, 0],
    [120, 30],
    [80, 30],
    [80, 60],
    [120, 60],
    [120, 90],
    [0, 90],
    [0, 60],
    [40, 60],
    [40, 30],
    [0, 30],
  ],
  [
    [0, 0],
    [100, 0],
    [130, 60],
    [60, 100],
    [-20, 70],
  ],
  [
    [0, 0],
    [150, 0],
    [150, 20],
    [130, 20],
    [130, 60],
    [150, 60],
    [150, 80],
    [0, 80],
  ],
  [
    [0, 0],
    [100, 10],
    [90, 50],
    [50, 30],
    [10, 55],
  ],
];

const card = (outline: readonly Vec[]): PatternDoc => {
  const built = outlineFromPoints(outline);
  if (!built.ok) throw new Error('no outline');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
};

const placed = fc.tuple(fc.nat(11), fc.oneof(fc.constant(0), fc.constant(0.5), spread(0.2, 0.8)));
const laid = fc.record({
  from: placed,
  to: placed,
  angleDeg: spread(10, 180),
  radiusMm: spread(0, 3),
  convention: fc.constantFrom(...CONVENTIONS),
  toward: fc.constantFrom('face', 'back'),
});
const awkward = fc
  .record({
    shape: fc.constantFrom(...SHAPES),
    folds: fc.array(laid, { minLength: 1, maxLength: 6 }),
  })
  .map(({ shape, folds }): PatternDoc => {
    let doc = card(shape);
    // Each fold is laid if the card can take it; what would cross or leave the card is refused
    // there.
    for (const [i, { from, to, ...fold }] of folds.entries()) {
      const place = ([side, at]: [number, number]) => ({
        side: doc.sides[side % doc.sides.length]!.id,
        at,
      });
      const next: Fold = { ...fold, id: `f${i}`, path: between(place(from), place(to)) };
      const tried = { ...doc, folds: [...doc.folds, next] };
      if (!checkCard(tried).some((p) => p.severity === 'stop')) doc = tried;
    }
    return doc;
  })
  .filter((doc) => doc.folds.length > 0);

const sheet = (thicknessMm: number): SheetMetal => ({
  thicknessMm,
  rule: { kind: 'din6935' },
  usualRadiusMm: thicknessMm,
  leastRadiusMm: 0,
  temper: 'half',
  weight: 7.85,
});
const practice = (relief: Practice['relief']): Practice => ({
  brakeLine: 'tangent',
  relief,
  shortestFlangeMm: 0,
});
const developed = (
  doc: PatternDoc,
  thicknessMm: number,
  relief: Practice['relief'] = 'none',
): Development | null => {
  const found = develop(doc, sheet(thicknessMm), practice(relief));
  return found.ok ? found.development : null;
};
const has = (d: Development, code: string) => d.warnings.some((w) => w.code === code);
const path = (pieces: readonly { segment: Path[number] }[]): Path => pieces.map((p) => p.segment);

test('any folds on awkward outlines: the blank is one closed outline, its faces and bends side by side', () => {
  let made = 0;
  fc.assert(
    fc.property(awkward, spread(0.5, 2), (doc, t) => {
      const d = developed(doc, t);
      if (!d) return;
      for (const pieces of [d.net, d.outline]) {
        pieces.forEach((p, i) => {
          expect([...p.segment.a, p.segment.bulge].every(Number.isFinite)).toBe(true);
          expect(distance(p.segment.b, pieces[(i + 1) % pieces.length]!.segment.a)).toBeLessThan(
            1e-6,
          );
        });
      }
      const parts = [...d.faces.map((face) => path(face.pieces)), ...d.folds.map(bendRegion)].map(
        (p) => upright(theirs(p)),
      );
      const sum = parts.reduce((all, part) => all + ClipperLib.Clipper.Area(part) / GRID ** 2, 0);
      expect(d.size.areaMm2).toBeCloseTo(sum, 2);
      if (has(d, 'blank-crosses')) return;
      made++;
      expect(clipped('ctUnion', parts)).toBeCloseTo(d.size.areaMm2, 1);
    }),
    { numRuns: 400 },
  );
  expect(made).toBeGreaterThan(200);
});

test('the same lap all round a card without hollow corners is the other library’s mitred offset', () => {
  const convex = fc
    .tuple(fc.integer({ min: 3, max: 8 }), spread(40, 90), spread(40, 90), spread(0, 6))
    .map(([n, rx, ry, turn]) =>
      card(
        Array.from({ length: n }, (_, i): Vec => {
          const a = turn + (2 * Math.PI * i) / n;
          return [rx * Math.cos(a), ry * Math.sin(a)];
        }),
      ),
    );
  fc.assert(
    fc.property(convex, spread(2, 15), (doc, widthMm) => {
      const joint: Joint = { kind: 'lap', widthMm };
      const d = developed({ ...doc, edges: doc.edges.map((edge) => ({ ...edge, joint })) }, 1)!;
      // Sharp corners are cut square here, at three widths; there at a mitre of its own. Only blunt
      // ones are compared.
      fc.pre(path(d.outline).length === doc.sides.length);
      const offset = new ClipperLib.ClipperOffset(10, 250);
      offset.AddPath(
        upright(theirs(path(d.net))),
        ClipperLib.JoinType.jtMiter,
        ClipperLib.EndType.etClosedPolygon,
      );
      const solution = new ClipperLib.Paths();
      offset.Execute(solution, widthMm * GRID);
      expect(d.size.areaMm2).toBeCloseTo(ClipperLib.Clipper.Area(solution[0]!) / GRID ** 2, 1);
      expect(d.size.parts.jointsMm2).toBeCloseTo(d.size.areaMm2 - area(path(d.net)), 6);
    }),
  );
});

test('joints of any kind only add metal, within the mitre limit of the widest of them, and never take the piece itself', () => {
  const joint: fc.Arbitrary<Joint> = fc.oneof(
    fc.record({ kind: fc.constantFrom('free' as const, 'butt' as const), trimMm: spread(0, 4) }),
    fc.record({ kind: fc.constant('lap' as const), widthMm: spread(0, 14) }),
    fc.record({
      kind: fc.constant('joggle' as const),
      widthMm: spread(4, 14),
      depthMm: spread(0.5, 2),
    }),
    fc.record({ kind: fc.constant('hem' as const), widthMm: spread(6, 12), gapMm: spread(0, 2) }),
    fc.record({
      kind: fc.constant('plug-flange' as const),
      widthMm: spread(8, 16),
      turnDeg: fc.constantFrom(0, 90),
    }),
  );
  fc.assert(
    fc.property(
      awkward,
      fc.array(joint, { minLength: 12, maxLength: 12 }),
      spread(0.5, 2),
      (doc, joints, t) => {
        const d = developed(
          { ...doc, edges: doc.edges.map((edge, i) => ({ ...edge, joint: joints[i]! })) },
          t,
        );
        if (!d || has(d, 'blank-crosses')) return;
        const [net, cut] = [path(d.net), path(d.outline)].map((p) => upright(theirs(p))) as [
          Theirs,
          Theirs,
        ];
        // Sharp hollow corners between unlike laps may trade a sliver; nothing more of the piece is
        // lost.
        expect(clipped('ctDifference', [net], [cut])).toBeLessThan(0.01 * d.size.areaMm2);
        const widest = Math.max(...d.edges.map((edge) => edge.allowance.addMm));
        // Mitres are drawn out to three widths at most.
        const grown = new ClipperLib.ClipperOffset(2, GRID / 100);
        grown.AddPath(net, ClipperLib.JoinType.jtRound, ClipperLib.EndType.etClosedPolygon);
        const reach = new ClipperLib.Paths();
        grown.Execute(reach, (3 * widest + 0.1) * GRID);
        expect(clipped('ctDifference', [cut], reach)).toBeLessThan(1e-2);
      },
    ),
    { numRuns: 200 },
  );
});

/** A tray with a wall on each side of a regular base: bends meet at every corner. */
const tray = (sides: number, wall: number, radiusMm: number): PatternDoc => {
  const ring = (r: number, i: number): Vec => {
    const a = (2 * Math.PI * i) / sides;
    return [r * Math.cos(a), r * Math.sin(a)];
  };
  const outline: Vec[] = [];
  for (let i = 0; i < sides; i++) {
    const [a, b] = [ring(80, i), ring(80, i + 1)];
    const out: Vec = [(b[1] - a[1]) / distance(a, b), -(b[0] - a[0]) / distance(a, b)];
    outline.push(
      a,
      [a[0] + out[0] * wall, a[1] + out[1] * wall],
      [b[0] + out[0] * wall, b[1] + out[1] * wall],
    );
  }
  const doc = card(outline);
  const folds = Array.from({ length: sides }, (_, i): Fold => {
    const at = (k: number) => ({ side: doc.sides[(3 * k) % doc.sides.length]!.id, at: 0 });
    return {
      id: `f${i}`,
      path: between(at(i), at(i + 1)),
      angleDeg: 90,
      toward: 'face',
      radiusMm,
      convention: 'outside-sharp',
    };
  });
  return { ...doc, folds, base: [0, 0] };
};

test('a round relief takes what lies within a thickness of where two bends meet, and nothing else', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 8 }),
      spread(15, 30),
      spread(0.5, 2.5),
      spread(0.6, 2),
      (n, wall, r, t) => {
        const doc = tray(n, wall, r);
        const plain = developed(doc, t)!;
        // At sharp corners walls measured on the outside lie on each other in the flat: warned of,
        // and not for a relief to mend.
        fc.pre(!has(plain, 'blank-crosses'));
        const cut = developed(doc, t, 'round')!;
        expect(has(cut, 'no-room-for-relief')).toBe(false);
        const meetings = plain.net.flatMap((piece, i) => {
          const before = plain.net[(i - 1 + plain.net.length) % plain.net.length]!;
          return piece.kind === 'bend-end' && before.kind === 'bend-end' ? [piece.segment.a] : [];
        });
        expect(meetings).toHaveLength(n);
        const expected = clipped(
          'ctDifference',
          [upright(theirs(path(plain.net)))],
          meetings.map((p) => onGrid(disc(p, t))),
        );
        expect(cut.size.areaMm2).toBeCloseTo(expected, 1);
      },
    ),
    { numRuns: 60 },
  );
});
