import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { plugHole, plugPositions, tackOrder } from './spacing';

const run = fc.record({
  lengthMm: spread(5, 3000),
  pitchMm: spread(10, 120),
});

test('plugs: ends where asked, even, never farther apart than the pitch, and no more of them than that needs', () => {
  fc.assert(
    fc.property(run, spread(0, 30), ({ lengthMm, pitchMm }, endMm) => {
      const found = plugPositions(lengthMm, pitchMm, endMm);
      if (!found.ok) throw new Error('refused');
      const p = found.positionsMm;
      expect(found.count).toBe(p.length);
      if (p.length === 1) return expect(lengthMm - 2 * endMm).toBeLessThanOrEqual(1e-9);
      expect(p[0]).toBeCloseTo(endMm, 6);
      expect(p[p.length - 1]).toBeCloseTo(lengthMm - endMm, 6);
      const gap = p[1]! - p[0]!;
      expect(gap).toBeLessThanOrEqual(pitchMm + 1e-6);
      p.slice(1).forEach((x, i) => expect(x - p[i]!).toBeCloseTo(gap, 6));
      const oneFewer = (lengthMm - 2 * endMm) / Math.max(1, p.length - 2);
      if (p.length > 2) expect(oneFewer).toBeGreaterThan(pitchMm - 1e-6);
    }),
  );
});

test('420 mm at 25 with 12 at the ends: 17 plugs, 24.75 apart', () => {
  expect(plugPositions(420, 25, 12)).toMatchObject({ ok: true, count: 17 });
  const found = plugPositions(420, 25, 12);
  expect(found.ok && found.positionsMm[1]).toBeCloseTo(36.75, 9);
});

test('tacks: both ends, the middle, then the halves', () => {
  const found = tackOrder(400, 50, false);
  expect(found.ok && found.positionsMm.slice(0, 5)).toEqual([0, 400, 200, 100, 300]);
  expect(found.ok && found.positionsMm.length).toBe(9);
  expect(tackOrder(400, 100, true)).toEqual({ ok: true, positionsMm: [0, 200, 100, 300] });
  expect(tackOrder(40, 50, false)).toEqual({ ok: true, positionsMm: [0, 40] });
});

test('tacks: none twice, evenly spread, no stretch over the pitch, each at the middle of what was open', () => {
  fc.assert(
    fc.property(run, fc.boolean(), ({ lengthMm, pitchMm }, closed) => {
      const found = tackOrder(lengthMm, pitchMm, closed);
      if (!found.ok) throw new Error('refused');
      const sorted = [...found.positionsMm].sort((a, b) => a - b);
      if (closed) sorted.push(lengthMm);
      const gaps = sorted.slice(1).map((x, i) => x - sorted[i]!);
      for (const gap of gaps) {
        expect(gap).toBeGreaterThan(0);
        expect(gap).toBeLessThanOrEqual(Math.max(pitchMm, closed ? lengthMm / 2 : 0) + 1e-6);
        expect(gap).toBeCloseTo(gaps[0]!, 6);
      }
    }),
  );
});

test('no length, no pitch: refused; holes grow with the sheet', () => {
  expect(plugPositions(0, 25, 12)).toMatchObject({ ok: false });
  expect(plugPositions(100, 0, 12)).toMatchObject({ ok: false });
  expect(plugPositions(100, 25, -1)).toMatchObject({ ok: false });
  expect(tackOrder(100, Number.NaN, false)).toMatchObject({ ok: false });
  expect(tackOrder(1e6, 1, false)).toMatchObject({
    ok: false,
    problems: [{ code: 'too-many-tacks' }],
  });
  expect([0.8, 1, 1.6, 2, 3].map(plugHole)).toEqual([5, 6.5, 6.5, 8, 10]); // common practice
});
