import fc from 'fast-check';
import type { FoldMeeting, PatternDoc } from '../../card/pattern';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { CONVENTIONS } from '../../card/kinds';
import { mirrored } from '../../card/mirror';
import { develop } from './develop';
import type { Development } from './developed';
import { PlainCardSchema, fromPlain } from './plain';
import type { Vec3 } from './refold';
import { foldedFrames, placed } from './refold';

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const less = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

type Wall = { angleDeg: number; highMm: number };

/** A plate on a convex base with a wall along every side, drawn square to it. */
function walled(
  base: readonly Vec[],
  walls: readonly Wall[],
  made: (typeof CONVENTIONS)[number],
  t = 1,
) {
  const n = base.length;
  const outs = base.map(([x, y], i): Vec => {
    const [u, v] = base[(i + 1) % n]!;
    const long = Math.hypot(u - x, v - y);
    return [(v - y) / long, -(u - x) / long];
  });
  const outline = base.flatMap((p, i): Vec[] => {
    const q = base[(i + 1) % n]!;
    const [o, high] = [outs[i]!, walls[i]!.highMm];
    return [p, [p[0] + o[0] * high, p[1] + o[1] * high], [q[0] + o[0] * high, q[1] + o[1] * high]];
  });
  const card = fromPlain(
    PlainCardSchema.parse({
      thicknessMm: t,
      rule: { kind: 'din6935' },
      relief: 'none',
      outline,
      folds: base.map((from, i) => ({
        from,
        to: base[(i + 1) % n]!,
        angleDeg: walls[i]!.angleDeg,
        made,
      })),
      base: [
        base.reduce((sum, [x]) => sum + x, 0) / n,
        base.reduce((sum, [, y]) => sum + y, 0) / n,
      ],
    }),
  );
  if (!card.ok) throw new Error(JSON.stringify(card.problems));
  const of = (meetings?: FoldMeeting[]): Development => {
    const doc: PatternDoc = { ...card.doc, ...(meetings && { meetings }) };
    const found = develop(doc, card.sheet, card.practice);
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    return found.development;
  };
  return { card, of };
}

/** Corners of each wall in space, on the face that is drawn (the inside of the folds) or the back. */
function wallsInSpace(d: Development, height: number): { at: Vec3[]; inward: Vec3 }[] {
  const frames = foldedFrames(
    d,
    d.folds.map(({ bend }) => bend.angleDeg),
  );
  return d.folds.map(({ child }) => ({
    at: d.faces[child]!.pieces.map(({ segment }) => placed(frames[child]!, segment.a, height)),
    inward: frames[child]!.z,
  }));
}

const boxOf = (all: readonly Vec3[]) =>
  [0, 1, 2].map((axis) => [
    Math.min(...all.map((p) => p[axis]!)),
    Math.max(...all.map((p) => p[axis]!)),
  ]);

const convex = fc
  .tuple(
    fc.integer({ min: 3, max: 6 }),
    spread(0, 6),
    spread(80, 200),
    fc.array(spread(-0.2, 0.2), { minLength: 6, maxLength: 6 }),
  )
  .map(([n, start, radius, shake]) =>
    Array.from({ length: n }, (_, i): Vec => {
      const turn = start + (2 * Math.PI * (i + shake[i]!)) / n;
      return [radius * Math.cos(turn), radius * Math.sin(turn)];
    }),
  );

test('folded up, no wall reaches into the sheet of its neighbour, however the card was made and turned over as well', () => {
  fc.assert(
    fc.property(
      convex,
      fc.array(fc.record({ angleDeg: spread(60, 120), highMm: spread(15, 30) }), {
        minLength: 6,
        maxLength: 6,
      }),
      fc.constantFrom(...CONVENTIONS),
      (base, walls, made) => {
        const { card, of } = walled(base, walls, made);
        const d = of();
        const n = base.length;
        expect(d.corners).toHaveLength(n);
        const inside = wallsInSpace(d, 0);
        inside.forEach((wall, i) => {
          const next = inside[(i + 1) % n]!;
          for (const [a, b] of [
            [wall, next],
            [next, wall],
          ] as const)
            for (const p of a.at) expect(dot(less(p, b.at[0]!), b.inward)).toBeGreaterThan(-1e-6);
        });
        const other = develop(mirrored(card.doc), card.sheet, card.practice);
        expect(other.ok && other.development.size.areaMm2).toBeCloseTo(d.size.areaMm2, 6);
      },
    ),
    { numRuns: 120 },
  );
});

test('a tray: both walls a thickness short, or one behind the other, or mitred in full, less the gap for the weld', () => {
  const base: Vec[] = [
    [0, 0],
    [200, 0],
    [200, 120],
    [0, 120],
  ];
  const upright = base.map(() => ({ angleDeg: 90, highMm: 40 }));
  const { of } = walled(base, upright, 'outside-sharp', 1.2);
  const lengths = (d: Development) => {
    const [first, second] = wallsInSpace(d, 0).map(({ at }) => boxOf(at));
    return [first![0]![1]! - first![0]![0]!, second![1]![1]! - second![1]![0]!];
  };
  const all = (kind: FoldMeeting['kind'], gapMm: number, over: string | null = null) =>
    of(
      [1, 2, 3, 4].map((i) => ({
        folds: [`fold ${i}`, `fold ${(i % 4) + 1}`] as [string, string],
        kind,
        over: over && [`fold ${i}`, `fold ${(i % 4) + 1}`].find((id) => over.includes(id))!,
        gapMm,
      })),
    );
  const close = (...mm: number[]) => mm.map((one) => expect.closeTo(one, 6) as number);
  expect(lengths(of())).toEqual(close(200 - 2.4, 120 - 2.4));
  // Two square corners that stand a gap apart have each gone back by that over √2.
  expect(lengths(all('touch', 1))).toEqual(close(200 - 2.4 - Math.SQRT2, 120 - 2.4 - Math.SQRT2));
  expect(lengths(all('mitred', 0))).toEqual(close(200, 120));
  expect(lengths(all('overlap', 0, 'fold 1 fold 3'))).toEqual(close(200, 120 - 2.4));
  expect(lengths(all('overlap', 0.5, 'fold 1 fold 3'))).toEqual(close(200, 120 - 2.4 - 1));
  // A card that lay inside has its walls as long as the inside is: nothing is lost.
  const inside = walled(base, upright, 'inside-sharp', 1.2).of();
  expect(inside.corners.map(({ cutMm }) => cutMm)).toEqual(
    Array.from({ length: 4 }, () => close(0, 0)),
  );
});
