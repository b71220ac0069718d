import fc from 'fast-check';
import type { Segment } from '../measure/segment';
import { directionAt, nearest, pointAt, segmentLength } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { along, cross, distance, dot, left, meet, sub, unit } from '../measure/vector';
import { datumOf } from './datum';
import { cardOf, cardTree, developed } from './fold/cardTree.arbitrary';
import type { Development } from './fold/developed';
import type { PlainCard } from './fold/plain';
import { markingOut } from './markingOut';
import type { ScribeLine } from './scribe';
import { scribeTable } from './scribe';

const edgeOf = (d: Development, letter: string): Segment[] =>
  d.edges.find((edge) => edge.letter === letter)!.cut;

/**
 * A mark `alongMm` along an edge from the corner it shares with `next`, made with a rule laid along
 * the edge as it was cut.
 */
function markOn(
  d: Development,
  { letter, next, alongMm }: { letter: string; next: string; alongMm: number },
): Vec {
  const index = d.edges.findIndex((edge) => edge.letter === letter);
  const after = d.edges[(index + 1) % d.edges.length]!.letter;
  const run = d.edges[index]!.cut;
  const fromEnd = next === after && d.edges.length > 2;
  let gone = fromEnd ? run.reduce((sum, s) => sum + segmentLength(s), 0) - alongMm : alongMm;
  for (const s of run) {
    const l = segmentLength(s);
    if (gone <= l + 1e-9) return pointAt(s, Math.min(1, Math.max(0, gone / l)));
    gone -= l;
  }
  throw new Error(`no place ${alongMm} along ${letter}`);
}

/**
 * The point `alongMm` and `outMm` from the two datum lines: where two lines parallel to them cross.
 */
function laidOff(d: Development, { alongMm, outMm }: { alongMm: number; outMm: number }): Vec {
  const { long, square } = datumOf(d);
  const p = along(long.p, left(long.u), outMm);
  const q = along(square.p, left(square.u), alongMm);
  return meet(p, long.u, q, square.u)!;
}

/**
 * The line that someone with a rule, a square and the blank alone would scribe from the table's
 * words: a point and a direction.
 */
function scribed(d: Development, { from }: ScribeLine): { p: Vec; u: Vec }[] {
  if (from.kind === 'marks') {
    const [a, b] = from.marks.map((mark) => markOn(d, mark)) as [Vec, Vec];
    return [{ p: a, u: unit(sub(b, a)) }];
  }
  if (from.kind === 'points') {
    const [a, b] = from.ends.map((end) => laidOff(d, end)) as [Vec, Vec];
    return [{ p: a, u: unit(sub(b, a)) }];
  }
  // Any straight part of the edge may be what the square is held to.
  return edgeOf(d, from.letter)
    .filter((s) => s.bulge === 0)
    .map((s) => ({
      p: along(s.a, left(directionAt(s, 0)), from.distanceMm),
      u: directionAt(s, 0),
    }));
}

const off = (p: Vec, on: { p: Vec; u: Vec }): number => Math.abs(cross(on.u, sub(p, on.p)));

test('followed with a rule, the table gives back every line to a twentieth of a millimetre', () => {
  fc.assert(
    fc.property(cardTree, (t) => {
      const d = developed({ ...cardOf(t), relief: 'none' });
      for (const line of scribeTable(d).lines) {
        const fold = d.folds.find((f) => f.id === line.fold)!;
        const ends = { brake: fold.brake, near: fold.tangents[0], far: fold.tangents[1] }[
          line.line
        ];
        const tried = scribed(d, line);
        expect(tried.length).toBeGreaterThan(0);
        const best = Math.min(...tried.map((on) => Math.max(off(ends[0], on), off(ends[1], on))));
        expect(best).toBeLessThan(0.05);
      }
    }),
    { numRuns: 120 },
  );
});

test('a hole measured square from two edges is where it was', () => {
  fc.assert(
    fc.property(spread(8, 92), spread(8, 52), spread(2, 8), (x, y, diameterMm) => {
      const d = developed({
        thicknessMm: 1,
        rule: { kind: 'din6935' },
        outline: [
          [0, 0],
          [100, 0],
          [100, 60],
          [0, 60],
        ],
        folds: [],
        holes: [{ at: [x, y], diameterMm }],
      });
      const [hole] = scribeTable(d).holes;
      expect(hole!.from).toHaveLength(2);
      for (const { letter, distanceMm } of hole!.from) {
        expect(Math.min(...edgeOf(d, letter).map((s) => nearest(s, [x, y]).distance))).toBeCloseTo(
          distanceMm,
          9,
        );
      }
      // Two edges that are not parallel, the nearest of their kind.
      const [a, b] = hole!.from.map(({ letter }) => directionAt(edgeOf(d, letter)[0]!, 0)) as [
        Vec,
        Vec,
      ];
      expect(Math.abs(dot(a, b))).toBeLessThan(0.9);
      expect(hole!.from[0]!.distanceMm).toBeCloseTo(Math.min(x, y, 100 - x, 60 - y), 9);
    }),
  );
});

test('of parallel edges the nearest is measured from, unless it is too short to lay a square against', () => {
  const strip = (tab: number): PlainCard => ({
    thicknessMm: 1,
    rule: { kind: 'k', k: 0.4 },
    outline: [
      [0, 0],
      [200, 0],
      [200, 60],
      [200 - tab, 60],
      [200 - tab, 50],
      [0, 50],
    ],
    folds: [{ from: [0, 40], to: [200, 40], angleDeg: 90, radiusMm: 1 }],
    base: [100, 10],
    relief: 'none',
  });
  const brake = (tab: number) =>
    scribeTable(developed(strip(tab))).lines.find((line) => line.line === 'brake')!.from;
  // Letters run clockwise from the datum corner: the long top edge is B, the tab's top D, the
  // bottom F.
  expect(brake(20)).toMatchObject({ kind: 'parallel', letter: 'B' });
  expect(brake(170)).toMatchObject({ kind: 'parallel', letter: 'D' });
});

test('the brake line stands where the shop puts the edge of its bar', () => {
  const at = (brakeLine: PlainCard['brakeLine']) => {
    const d = developed({
      thicknessMm: 1,
      rule: { kind: 'k', k: 0.4 },
      outline: [
        [0, 0],
        [60, 0],
        [60, 30],
        [0, 30],
      ],
      folds: [{ from: [25, 0], to: [25, 30], angleDeg: 90, radiusMm: 2 }],
      base: [50, 10],
      brakeLine,
    });
    const { brake, tangents, across } = d.folds[0]!;
    return dot(sub(brake[0], tangents[0][0]), across);
  };
  const ba = (Math.PI / 2) * 2.4;
  expect(at('tangent')).toBeCloseTo(0, 9);
  expect(at('centre')).toBeCloseTo(ba / 2, 9);
  expect(at('radius-in')).toBeCloseTo(2, 9);
});

test('marked out with rule, square and compasses from the two datum lines, the outline is the blank', () => {
  fc.assert(
    fc.property(cardTree, fc.constantFrom('round' as const, 'none' as const), (t, relief) => {
      const d = developed({ ...cardOf(t), relief });
      const { corners, arcs, checks, reliefs, datum } = markingOut(d);
      expect(Math.abs(dot(datum.long.u, datum.square.u))).toBeLessThan(0.003);
      for (const c of corners) {
        expect(distance(laidOff(d, c.at), c.point)).toBeLessThan(1e-6);
        expect(Math.min(c.at.alongMm, c.at.outMm)).toBeGreaterThan(-1e-6);
      }
      for (const c of checks) {
        const [a, b] = [corners[c.from - 1]!, corners[c.to - 1]!];
        expect(Math.hypot(a.at.alongMm - b.at.alongMm, a.at.outMm - b.at.outMm)).toBeCloseTo(
          c.lengthMm,
          1,
        );
      }
      for (const arc of arcs)
        if (arc.centre)
          for (const o of arc.ordinates)
            expect(distance(laidOff(d, o), laidOff(d, arc.centre))).toBeCloseTo(arc.radiusMm, 6);
      expect(reliefs.length > 0).toBe(d.outline.some((p) => p.kind === 'relief'));
    }),
    { numRuns: 60 },
  );
});
