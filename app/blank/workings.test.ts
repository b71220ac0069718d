import { developed } from '#core/blank/fold/cardTree.arbitrary';
import type { PlainCard } from '#core/blank/fold/plain';
import { metalById } from '#core/metal/metals';
import { foldWorking, sizeWorkings } from './workings';

const show = (mm: number, digits = 1) => `${mm.toFixed(digits)} mm`;
const shown = { show, thin: (mm: number) => mm.toFixed(2), showThin: (mm: number) => show(mm, 2) };
const strip = (rule: PlainCard['rule'], angleDeg = 90): PlainCard => ({
  thicknessMm: 2,
  rule,
  outline: [
    [0, 0],
    [60, 0],
    [60, 30],
    [0, 30],
  ],
  folds: [{ from: [25, 0], to: [25, 30], angleDeg, radiusMm: 4 }],
  base: [50, 10],
});
const lines = (rule: PlainCard['rule'], angleDeg?: number) =>
  foldWorking(developed(strip(rule, angleDeg)).folds[0]!, shown);

test('what is shown as a working reckons to what it says: each line by its own printed figures', () => {
  for (const rule of [
    { kind: 'din6935' },
    { kind: 'machinery', temper: 'half' },
    { kind: 'k', k: 0.4 },
    { kind: 'measured', k: 0.38, uK: 0.05 },
  ] as const) {
    for (const angleDeg of [30, 90, 135]) {
      const working = lines(rule, angleDeg);
      const allowance = working.lines.find((line) => line.startsWith('Allowance'))!;
      const [, a, r, k, t, gives] =
        /= ([\d.]+)·π\/180·\(([\d.]+) \+ ([\d.]+)·([\d.]+)\) = ([\d.]+) mm/
          .exec(allowance)!
          .map(Number);
      expect((a! * Math.PI * (r! + k! * t!)) / 180).toBeCloseTo(gives!, 1);
      const deduction = working.lines.find((line) => line.startsWith('Deduction'))!;
      const [, setback, minus, is] = /2 × ([\d.]+) − ([\d.]+) = (-?[\d.]+) mm/
        .exec(deduction)!
        .map(Number);
      expect(2 * setback! - minus!).toBeCloseTo(is!, 1);
      expect(minus).toBeCloseTo(gives!, 2);
      const moves = working.lines.find((line) => line.startsWith('Beyond'))!;
      const [, ba, s, shift] = /moves ([\d.]+) − 2 × ([\d.]+) = (-?[\d.]+) mm/
        .exec(moves)!
        .map(Number);
      expect(ba! - 2 * s!).toBeCloseTo(shift!, 1);
      expect(working.source.length).toBeGreaterThan(10);
    }
  }
});

test('each rule shows its own formula and source; what comes from test bends says how far it can be trusted', () => {
  expect(lines({ kind: 'faa' }).lines[1]).toBe(
    'Allowance = (0.01743·4.00 + 0.0078·2.00)·90 = 7.68 mm',
  );
  expect(lines({ kind: 'faa' }).source).toContain('FAA');
  expect(lines({ kind: 'din6935' }).source).toContain('DIN 6935');
  expect(lines({ kind: 'din6935' }, 12).lines[1]).toContain('2 × outside setback (under 15°)');
  expect(lines({ kind: 'din6935' }, 120).lines.join()).toContain('past square, to the tangent');
  // A·T·u(K) = π/2 · 2 · 0.05.
  expect(lines({ kind: 'measured', k: 0.38, uK: 0.05 }).lines[0]).toBe(
    'K = 0.380 from test bends; here that is good to ± 0.16 mm',
  );
});

test('the parts of the area sum to it, and the weight is area by thickness by the metal’s own figure', () => {
  const d = developed(strip({ kind: 'din6935' }));
  const { area, mass, difference } = sizeWorkings(d, metalById('dc01'), 2, {
    ...shown,
    showArea: (mm2, digits = 0) => `${(mm2 / 100).toFixed(digits)} cm²`,
    showWeight: (kg) => `${kg.toFixed(3)} kg`,
  });
  const figures = area.lines.map((line) => Number(/(-?[\d.]+) cm²/.exec(line)![1]));
  expect(figures.slice(0, 4).reduce((sum, f) => sum + f, 0)).toBeCloseTo(figures[4]!, 0);
  const [, cm2, t] = /([\d.]+) cm² × ([\d.]+) mm/.exec(mass.lines[0]!)!.map(Number);
  const [, weight, kg] = /at ([\d.]+) kg.* = ([\d.]+) kg/.exec(mass.lines[1]!)!.map(Number);
  expect((cm2! / 1e4) * t! * weight!).toBeCloseTo(kg!, 2);
  expect(kg).toBeCloseTo(d.size.massKg, 3);
  expect(difference.lines.at(-1)).toContain(show(d.size.differenceMm, 2));
});
