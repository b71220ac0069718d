import fc from 'fast-check';
import type { Segment } from './segment';
import { directionAt, pointAt, segmentLength } from './segment';
import { ramp } from './ramp';
import {
  besideRun,
  middleOf,
  nearestOnRun,
  outwardAlong,
  partOfRun,
  pointAlong,
  runLength,
} from './run';
import { spread } from './spread.arbitrary';
import type { Vec } from './vector';
import { cross, distance, right, sub, turned } from './vector';

/**
 * Runs of lines and arcs as edges are: each goes on from the one before, turning at corners or
 * smoothly.
 */
const runs: fc.Arbitrary<Segment[]> = fc
  .array(
    fc.record({
      long: spread(2, 300),
      turn: spread(-2, 2),
      bulge: fc.oneof(fc.constant(0), spread(-1.2, 1.2)),
    }),
    { minLength: 1, maxLength: 7 },
  )
  .map((steps) => {
    let [at, way]: [Vec, Vec] = [
      [0, 0],
      [1, 0],
    ];
    return steps.map(({ long, turn, bulge }) => {
      way = turned(way, turn);
      const b: Vec = [at[0] + way[0] * long, at[1] + way[1] * long];
      const s: Segment = { a: at, b, bulge };
      at = b;
      return s;
    });
  });

/**
 * Places close together all along, with how far along each is: by adding up, nothing of how a run
 * is measured.
 */
function walked(run: readonly Segment[], steps = 400): { at: Vec; mm: number }[] {
  const found: { at: Vec; mm: number }[] = [];
  let mm = 0;
  for (const s of run)
    for (let i = 0; i <= steps; i++) {
      const at = pointAt(s, i / steps);
      const last = found[found.length - 1];
      mm += last ? distance(last.at, at) : 0;
      found.push({ at, mm });
    }
  return found;
}

test('a run is as long as it is walked, and a place along it is where the walk is by then', () => {
  fc.assert(
    fc.property(runs, spread(0, 1), (run, share) => {
      const walk = walked(run);
      const whole = walk[walk.length - 1]!.mm;
      expect(Math.abs(runLength(run) / whole - 1)).toBeLessThan(1e-4);
      const mm = share * runLength(run);
      const near = walk.reduce((best, one) =>
        Math.abs(one.mm - mm) < Math.abs(best.mm - mm) ? one : best,
      );
      expect(distance(pointAlong(run, mm)!, near.at)).toBeLessThan(whole / 100);
      expect(Math.hypot(...outwardAlong(run, mm))).toBeCloseTo(1, 9);
      // Before its start and past its end it stays there.
      expect(distance(pointAlong(run, -5)!, run[0]!.a)).toBeLessThan(1e-9);
      expect(distance(pointAlong(run, runLength(run) + 5)!, run[run.length - 1]!.b)).toBeLessThan(
        1e-9,
      );
      expect(middleOf(run)!.at).toEqual(pointAlong(run, runLength(run) / 2));
    }),
  );
});

test('a part of a run lies on it, as long as it was asked for; two parts make it up', () => {
  fc.assert(
    fc.property(runs, spread(0, 1), spread(0, 1), (run, one, other) => {
      const whole = runLength(run);
      const [from, to] = [Math.min(one, other) * whole, Math.max(one, other) * whole];
      const part = partOfRun(run, from, to);
      // What is shorter than a rounding at a corner is left out.
      expect(Math.abs(runLength(part) - (to - from))).toBeLessThan(1e-5);
      if (to - from > 1e-3) {
        expect(distance(part[0]!.a, pointAlong(run, from)!)).toBeLessThan(1e-5);
        expect(distance(part[part.length - 1]!.b, pointAlong(run, to)!)).toBeLessThan(1e-5);
      }
      part.forEach((s, i) => i > 0 && expect(distance(part[i - 1]!.b, s.a)).toBeLessThan(1e-9));
      const halves = [...partOfRun(run, 0, from), ...partOfRun(run, from, whole)];
      expect(Math.abs(runLength(halves) - whole)).toBeLessThan(1e-5);
      expect(partOfRun(run, to, from).length === 0 || to === from).toBe(true);
    }),
  );
});

test('the nearest place of a run is as near as any that is walked by, and the side is told', () => {
  fc.assert(
    fc.property(runs, spread(-400, 400), spread(-400, 400), (run, x, y) => {
      const p: Vec = [x, y];
      const found = nearestOnRun(run, p)!;
      const walk = walked(run, 200);
      const least = Math.min(...walk.map(({ at }) => distance(at, p)));
      const off = Math.abs(found.rightMm);
      expect(off).toBeLessThanOrEqual(least + 1e-9);
      expect(off).toBeGreaterThan(least - runLength(run) / 100);
      expect(distance(found.at, p)).toBeCloseTo(off, 6);
      expect(distance(found.at, pointAlong(run, found.alongMm)!)).toBeLessThan(1e-4);
      if (off > 1e-3)
        expect(Math.sign(found.rightMm)).toBe(Math.sign(cross(sub(p, found.at), found.way)) || 1);
    }),
  );
});

test('what lies beside a run lies so far off it, evenly more or less from its start to its end, right or left', () => {
  fc.assert(
    fc.property(runs, spread(-40, 40), spread(-40, 40), (run, start, end) => {
      const whole = runLength(run);
      for (const [from, to] of [
        [start, end],
        [start, start],
      ] as const) {
        const beside = besideRun(run, ramp(from, to));
        const { length } = beside;
        expect(length).toBeGreaterThanOrEqual(run.length);
        // Both ends of it, against the run’s own ends and directions.
        const last = run[run.length - 1]!;
        const off = (at: Vec, way: Vec, mm: number): Vec => [
          at[0] + right(way)[0] * mm,
          at[1] + right(way)[1] * mm,
        ];
        expect(distance(beside[0]!.a, off(run[0]!.a, directionAt(run[0]!, 0), from))).toBeLessThan(
          1e-6,
        );
        expect(distance(beside[length - 1]!.b, off(last.b, directionAt(last, 1), to))).toBeLessThan(
          1e-6,
        );
        // Along each straight part it is off by as much as its place along says.
        let gone = 0;
        for (const s of run) {
          const l = segmentLength(s);
          if (s.bulge === 0 && run.length === 1) {
            const middle = pointAt(beside[0]!, 0.5);
            expect(
              distance(
                middle,
                off(
                  pointAt(s, 0.5),
                  directionAt(s, 0.5),
                  from + ((to - from) * (gone + l / 2)) / whole,
                ),
              ),
            ).toBeLessThan(1e-6);
          }
          gone += l;
        }
      }
    }),
  );
});
