import fc from 'fast-check';
import type { Joint } from '../../card/pattern';
import { spread } from '../../measure/spread.arbitrary';
import { metalById } from '../../metal/metals';
import { bendAllowance } from './allowance';
import { develop } from './develop';
import { stepLine } from '../offsetStep';
import { jointAllowance } from './joint';
import { PlainCardSchema, fromPlain } from './plain';
import type { SheetMetal } from './practice';
import { DEFAULT_SHOP, ruleFor, sheetMetal } from './practice';

const sheet = (thicknessMm: number): SheetMetal => ({
  thicknessMm,
  rule: { kind: 'din6935' },
  usualRadiusMm: thicknessMm,
  leastRadiusMm: 0,
  temper: 'half',
  weight: 7.85,
});

test('a step takes up what its neutral line, walked in small steps, is longer than its run', () => {
  // The line itself, from its curvature: turned one way over the first bend, straight, turned back
  // over the second.
  const walked = (depthMm: number, r: number) => {
    const { takeUpMm, runMm } = stepLine(depthMm, r);
    const total = takeUpMm + runMm;
    // The angle by bisection: the one at which the walk drops by the depth.
    const walk = (theta: number) => {
      const straight = Math.max(0, total - 2 * r * theta);
      const n = 800;
      let [x, y, heading] = [0, 0, 0];
      for (let i = 0; i < n; i++) {
        const s = ((i + 0.5) * total) / n;
        heading = s < r * theta ? s / r : s < r * theta + straight ? theta : (total - s) / r;
        x += (Math.cos(heading) * total) / n;
        y += (Math.sin(heading) * total) / n;
      }
      return { x, y };
    };
    let [low, high] = [0, Math.PI / 2];
    for (let i = 0; i < 50; i++) {
      const middle = (low + high) / 2;
      if (walk(middle).y < depthMm) low = middle;
      else high = middle;
    }
    return { run: walk(low).x, runMm };
  };
  fc.assert(
    fc.property(spread(0.6, 3), spread(0.8, 3), (depthMm, r) => {
      const { run, runMm } = walked(depthMm, r);
      expect(run / runMm).toBeCloseTo(1, 2);
    }),
    { numRuns: 40 },
  );
  expect(stepLine(0, 1)).toEqual({ takeUpMm: 0, runMm: 0, path: [] });
});

test('a flange turned at the edge adds exactly what the same flange drawn as a fold does', () => {
  fc.assert(
    fc.property(spread(0.5, 2), spread(8, 25), spread(20, 110), (t, widthMm, turnDeg) => {
      const added = adds({ kind: 'plug-flange', widthMm, turnDeg }, sheet(t));
      // The same finished piece as a card with a fold: base 60 and flange measured on the outside,
      // to the sharp.
      const read = fromPlain(
        PlainCardSchema.parse({
          thicknessMm: t,
          rule: { kind: 'din6935' },
          outline: [
            [0, 0],
            [60 + widthMm, 0],
            [60 + widthMm, 30],
            [0, 30],
          ],
          folds: [{ from: [60, 0], to: [60, 30], angleDeg: turnDeg, radiusMm: t }],
          base: [10, 10],
        }),
      );
      if (!read.ok) throw new Error('refused');
      const found = develop(read.doc, read.sheet, read.practice);
      fc.pre(found.ok);
      if (found.ok) expect(60 + added.addMm).toBeCloseTo(found.development.size.widthMm, 9);
      expect(added.turn).not.toBeNull();
    }),
  );
});

/** What a joint adds, where it can be made. */
const adds = (joint: Joint, of = sheet(1)) => {
  const found = jointAllowance(joint, of);
  if (!found.ok) throw new Error(found.problems[0]!.code);
  return found.allowance;
};

test('trim, lap and flat flange add their width; every joint names its formula', () => {
  expect(adds({ kind: 'butt', trimMm: 2 }, sheet(1))).toMatchObject({
    addMm: 2,
    takeUpMm: 0,
    turn: null,
    lines: [{ outMm: 0, role: 'trim' }],
  });
  expect(adds({ kind: 'free', trimMm: 0 }, sheet(1)).lines).toEqual([]);
  expect(adds({ kind: 'lap', widthMm: 12 }, sheet(1))).toMatchObject({
    addMm: 12,
    middleMm: 6,
    formula: 'joint-lap',
  });
  expect(adds({ kind: 'plug-flange', widthMm: 16, turnDeg: 0 }, sheet(1))).toMatchObject({
    addMm: 16,
    middleMm: 8,
    formula: 'joint-flange',
  });
  const joggle = adds({ kind: 'joggle', widthMm: 12, depthMm: 1 }, sheet(1));
  expect(joggle.addMm).toBeGreaterThan(12);
  expect(joggle.addMm - joggle.takeUpMm).toBeCloseTo(12, 9);
  // A hem narrower than its own bend is refused with the least that can be made.
  expect(jointAllowance({ kind: 'hem', widthMm: 0.1, gapMm: 0 }, sheet(2))).toMatchObject({
    ok: false,
    problems: [{ code: 'hem-narrow', numbers: { widthMm: 0.1, leastMm: 2 } }],
  });
});

test('a closed hem has metal in its bend, whatever the rule', () => {
  // Machinery's Handbook: a square bend is c·T + 1.57·R long; a closed hem is two of them at R = 0
  // (c 0.64 here). Its outside is one thickness from the tangents on either side.
  expect(adds({ kind: 'hem', widthMm: 10, gapMm: 0 }).addMm).toBeCloseTo(10 - 2 + 2 * 0.64, 9);
  // A hem over a gap as wide as the sheet is an ordinary bend again.
  const open = bendAllowance({ thicknessMm: 1, radiusMm: 0.5, angleDeg: 180 }, { kind: 'din6935' });
  expect(open.ok && adds({ kind: 'hem', widthMm: 10, gapMm: 1 }).addMm).toBeCloseTo(
    open.ok ? 10 - open.deductionMm : 0,
    9,
  );
});

describe('the rule a shop bends by', () => {
  const dc01 = metalById('dc01');
  const strip = {
    thicknessMm: 1,
    radiusMm: 1.6,
    angleDeg: 90,
    flatMm: 100,
    legAMm: 50.9,
    legBMm: 51.2,
    readingMm: 0.1,
    metal: 'dc01' as const,
  };

  test('its own test bends of the same metal and thickness come before any table', () => {
    const shop = { ...DEFAULT_SHOP, strips: [strip, { ...strip, legBMm: 51.1 }] };
    const measured = ruleFor(shop, dc01, 1.05);
    expect(measured).toMatchObject({ kind: 'measured' });
    // Two strips of equal reading: the mean of their K, known √2 times better than one.
    const one = ruleFor({ ...shop, strips: [strip] }, dc01, 1);
    if (measured.kind !== 'measured' || one.kind !== 'measured') throw new Error('not measured');
    expect(measured.uK).toBeCloseTo(one.uK / Math.SQRT2, 9);
    expect(measured.k).toBeLessThan(one.k + 0.1);
    expect(ruleFor(shop, dc01, 1.2).kind).toBe('din6935');
    expect(ruleFor(shop, metalById('dc04'), 1).kind).toBe('din6935');
  });

  test('else what it chose, by the metal’s temper where the table asks for it', () => {
    expect(ruleFor({ ...DEFAULT_SHOP, rule: 'machinery' }, metalById('al1100o'), 1)).toEqual({
      kind: 'machinery',
      temper: 'soft',
    });
    expect(ruleFor({ ...DEFAULT_SHOP, rule: 'k', plainK: 0.38 }, dc01, 1)).toEqual({
      kind: 'k',
      k: 0.38,
    });
    expect(ruleFor({ ...DEFAULT_SHOP, rule: 'faa' }, dc01, 1)).toEqual({ kind: 'faa' });
    expect(sheetMetal(metalById('al6061t6'), 2, DEFAULT_SHOP)).toMatchObject({
      usualRadiusMm: 6,
      leastRadiusMm: 6,
      weight: 2.7,
    });
  });
});

test('one closed bend has one length, turned as a hem or as a fold; every turned edge goes by the radius that comes out', () => {
  const card = fromPlain(
    PlainCardSchema.parse({
      thicknessMm: 1,
      rule: { kind: 'din6935' },
      outline: [
        [0, 0],
        [210, 0],
        [210, 30],
        [0, 30],
      ],
      folds: [{ from: [200, 0], to: [200, 30], angleDeg: 180, radiusMm: 0 }],
      base: [10, 10],
    }),
  );
  const found = card.ok && develop(card.doc, card.sheet, card.practice);
  expect(found && found.ok && found.development.size.widthMm).toBeCloseTo(
    200 + adds({ kind: 'hem', widthMm: 10, gapMm: 0 }).addMm,
    9,
  );
  const measured = { ...sheet(1), radii: [{ wantedMm: 1, gotMm: 1.8, uMm: 0.1 }] };
  const joint: Joint = { kind: 'plug-flange', widthMm: 16, turnDeg: 90 };
  expect(adds(joint, measured).addMm).toBeCloseTo(
    adds(joint, { ...sheet(1), usualRadiusMm: 1.8 }).addMm,
    9,
  );
});
