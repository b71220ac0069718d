import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoJob } from '../demo/job';
import { VERBS, reckon } from './verbs';

test.each(Object.keys(VERBS))('%s answers its own example', async (name) => {
  expect(await reckon(name, VERBS[name]!.example)).toMatchObject({ ok: true });
});

test('the shapes that scripts rely on', async () => {
  expect(await reckon('gauge', { system: 'msg', gauge: 20 })).toEqual({
    ok: true,
    thicknessMm: expect.closeTo(0.91186, 9),
    thicknessIn: 0.0359,
  });
  expect(await reckon('gauge', { thicknessMm: 0.82 })).toMatchObject({
    nearest: ['msg', 'gsg', 'swg', 'bs'].map((system) => ({
      system,
      gauge: expect.any(Number),
      differenceMm: expect.any(Number),
    })),
  });
  // DIN 6935 table: T 1, R 1.6 takes 2.1 off.
  expect(
    await reckon('allowance', {
      thicknessMm: 1,
      radiusMm: 1.6,
      angleDeg: 90,
      rule: { kind: 'din6935' },
    }),
  ).toMatchObject({
    ok: true,
    k: expect.closeTo(0.376, 3),
    outsideSetbackMm: expect.closeTo(2.6, 9),
    deductionMm: expect.closeTo(2.0961, 4),
  });
  expect(await reckon('develop', VERBS.develop!.example)).toMatchObject({
    ok: true,
    blank: {
      widthMm: expect.closeTo(60 - 4.4594, 4),
      heightMm: expect.closeTo(30, 9),
      outline: expect.any(Array),
    },
    folds: [
      {
        deductionMm: expect.closeTo(4.4594, 4),
        tangents: [
          [
            [expect.closeTo(19, 9), 0],
            [expect.closeTo(19, 9), 30],
          ],
          expect.any(Array),
        ],
      },
    ],
  });
  expect(await reckon('tacks', { lengthMm: 100, pitchMm: 50, closed: false })).toEqual({
    ok: true,
    positionsMm: [0, 100, 50],
  });
});

test('what does not fit is told by field, not thrown', async () => {
  expect(await reckon('nothing', {})).toMatchObject({
    ok: false,
    problems: [{ code: 'no-such-verb' }],
  });
  expect(await reckon('plugs', { lengthMm: 'long', pitchMm: 25 })).toMatchObject({
    ok: false,
    problems: [
      { code: 'input', about: ['lengthMm'] },
      { code: 'input', about: ['endMm'] },
    ],
  });
  expect(await reckon('develop', null)).toMatchObject({ ok: false });
});

test('develop takes a whole document with its metal, by the shop’s settings or a rule of its own', async () => {
  const piece = demoJob().pieces[3]!;
  const pattern = piece.card.versions[piece.card.current - 1]!.doc;
  const whole = (await reckon('develop', {
    pattern,
    metal: piece.metal,
    thicknessMm: piece.thicknessMm,
  })) as unknown as {
    blank: { widthMm: number; heightMm: number; massKg: number };
    folds: { id: string; k: number; deductionMm: number; tangents: number[][][] }[];
    scribe: { lines: unknown[] };
    warnings: unknown[];
  };
  expect(whole).toMatchObject({ ok: true, warnings: [] });
  expect(whole.folds).toHaveLength(pattern.folds.length);
  // 640 long; 120 wide and two 16 mm flanges, less one deduction.
  expect(whole.blank.widthMm).toBeCloseTo(640, 9);
  expect(whole.blank.heightMm).toBeCloseTo(152 - whole.folds[0]!.deductionMm, 9);
  const other = await reckon('develop', {
    pattern,
    metal: 'dc01',
    thicknessMm: 2,
    rule: { kind: 'k', k: 0.5 },
  });
  expect(other).toMatchObject({ ok: true, folds: [{ k: 0.5, formula: 'bend-k' }] });
  const inShop = await reckon('develop', {
    pattern,
    metal: 'dc01',
    thicknessMm: 2,
    shop: { rule: 'machinery' },
  });
  expect(inShop).toMatchObject({ folds: [{ formula: 'bend-machinery' }] });
});

test('develop in the order given, whatever the base; a refusal names the fold', async () => {
  const plain = {
    thicknessMm: 1,
    rule: { kind: 'din6935' },
    outline: [
      [0, 0],
      [120, 0],
      [120, 30],
      [0, 30],
    ],
    folds: [
      { from: [90, 0], to: [90, 30], angleDeg: 45, radiusMm: 2 },
      { from: [30, 30], to: [30, 0], angleDeg: 90, radiusMm: 1 },
    ],
  };
  for (const base of [
    [10, 5],
    [60, 15],
    [110, 5],
  ]) {
    const found = (await reckon('develop', { ...plain, base })) as unknown as {
      folds: { angleDeg: number; tangents: [[number, number], [number, number]][] }[];
    };
    expect(found.folds.map((fold) => fold.angleDeg)).toEqual([45, 90]);
    // Each tangent runs as its fold was given: the first upward, the second down.
    expect(found.folds.map(({ tangents: [near] }) => Math.sign(near![1][1] - near![0][1]))).toEqual(
      [1, -1],
    );
    // In the coordinates of the face that stays put: the tangent on its own side lies one setback
    // from the mark.
    const [first, second] = found.folds;
    if (base[0] === 110)
      expect(first!.tangents[0]![0][0]).toBeCloseTo(90 + 3 * Math.tan(Math.PI / 8), 9);
    if (base[0] === 10) expect(second!.tangents[0]![0][0]).toBeCloseTo(30 - 2, 9);
  }
  expect(
    await reckon('develop', {
      ...plain,
      folds: [{ ...plain.folds[0], from: [119.5, 0], to: [119.5, 30] }],
    }),
  ).toMatchObject({
    ok: false,
    problems: [{ code: 'flange-shorter-than-setback', about: ['fold 1'] }],
  });
  expect(
    await reckon('develop', { ...plain, folds: [{ ...plain.folds[0], from: [90, 12] }] }),
  ).toMatchObject({
    ok: false,
    problems: [{ code: 'fold-off-outline', about: ['fold 1'], numbers: { offMm: 12 } }],
  });
});

test('test strips, pages and the lie of an edge are reckoned from a shell too', async () => {
  const strip = {
    thicknessMm: 1,
    radiusMm: 1.5,
    angleDeg: 90,
    flatMm: 100,
    legAMm: 50,
    legBMm: 52.1,
    readingMm: 0.1,
  };
  // BA = 100 − 50 − 52.1 + 2·2.5 = 2.9; K = 2.9·2/π − 1.5.
  const k = (2.9 * 2) / Math.PI - 1.5;
  expect(await reckon('test-bend', { strips: [strip, strip] })).toMatchObject({
    ok: true,
    k: expect.closeTo(k, 9),
    strips: [{ ok: true }, { ok: true }],
  });
  expect(await reckon('test-bend', { strips: [{ ...strip, legBMm: 60 }] })).toMatchObject({
    ok: false,
    problems: [{ code: 'strip-not-credible' }],
  });
  const pages = (await reckon('tiles', VERBS.tiles!.example)) as unknown as {
    tiling: { tiles: unknown[]; columns: number; rows: number };
  };
  expect(pages.tiling.tiles).toHaveLength(pages.tiling.columns * pages.tiling.rows);
  expect(await reckon('lie', VERBS.lie!.example)).toMatchObject({
    ok: true,
    lie: 'wide-at-end',
    read: 3,
    good: false,
  });
});

test('a panel is made, laid flat and curved as documented, from arrays and from a file; what is no panel is told with what to do', async () => {
  const ring = (await reckon('surface', {
    kind: 'ring',
    tubeMm: 60,
    ringMm: 350,
    arcDeg: 90,
    triangles: 800,
  })) as unknown as Arrays & { ok: boolean };
  const flat = (await reckon('flatten', {
    vertices: ring.vertices,
    triangles: ring.triangles,
    balance: 0.5,
  })) as unknown as Flat;
  expect(flat.flat).toHaveLength(ring.vertices.length);
  expect(flat.strain).toHaveLength(ring.triangles.length);
  expect(flat).toMatchObject({ ok: true, flipped: 0 });
  const path = join(mkdtempSync(join(tmpdir(), 'patrone-')), 'ring.obj');
  const { obj } = (await reckon('surface', {
    kind: 'ring',
    tubeMm: 60,
    ringMm: 350,
    arcDeg: 90,
    triangles: 800,
    as: 'obj',
  })) as unknown as { obj: string };
  writeFileSync(path, obj);
  const read = (await reckon('flatten', { mesh: path, balance: 0.5 })) as unknown as Flat & Arrays;
  expect(read.energy / flat.energy).toBeCloseTo(1, 3);
  expect(read.vertices).toHaveLength(ring.vertices.length);
  const curved = (await reckon('curvature', { mesh: path })) as unknown as {
    totalDeg: number;
    boundaryDeg: number;
  };
  expect(curved.totalDeg + curved.boundaryDeg).toBeCloseTo(360, 7);
  const ball = {
    vertices: [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ],
    triangles: [
      [0, 1, 2],
      [0, 3, 1],
      [1, 3, 2],
      [0, 2, 3],
    ],
  };
  expect(await reckon('flatten', ball)).toMatchObject({
    ok: false,
    problems: [{ code: 'mesh-closed', message: expect.stringContaining('draw its outline') }],
  });
  expect(await reckon('flatten', {})).toMatchObject({
    ok: false,
    problems: [{ code: 'mesh-missing' }],
  });
  expect(await reckon('flatten', { mesh: '/nowhere.obj' })).toMatchObject({
    problems: [{ code: 'cannot-read' }],
  });
  expect(await reckon('surface', { kind: 'cap', widthMm: 100, radiusMm: 20 })).toMatchObject({
    problems: [{ code: 'surface-figures', message: expect.any(String) }],
  });
});

type Arrays = { vertices: number[][]; triangles: number[][] };
type Flat = { ok: boolean; flat: number[][]; strain: number[][]; energy: number; flipped: number };

test('one rim has one pair of verdicts, asked for as a flared hole or as a flange round a whole inside curve', async () => {
  // Mean diameter 51, first hole 33.3: the rim of both stretches by 53 %.
  const flare = await reckon('flared-hole', {
    insideMm: 50,
    heightMm: 10,
    radiusMm: 1,
    thicknessMm: 1,
  });
  const flange = await reckon('flange', {
    radiusMm: 25.5,
    widthMm: (51 - (flare.firstHoleMm as number)) / 2,
    angleDeg: 90,
    curve: 'inside',
    arcDeg: 360,
    thicknessMm: 1,
  });
  expect(flange.edgeStrain).toBeCloseTo(flare.edgeStrain as number, 9);
  for (const name of ['thinning', 'cracking'] as const)
    expect(flange[name]).toEqual({
      ...(flare[name] as object),
      strain: expect.closeTo((flare[name] as { strain: number }).strain, 9) as number,
    });
  // Uniform elongation of DC04 (Considère, n .18) is passed long before the hole cracks.
  expect(flange).toMatchObject({
    within: true,
    decides: 'cracking',
    thinning: { within: false, why: 'uniform-elongation' },
    cracking: { within: true, why: 'hole-flange-table' },
  });
  // An open edge goes by where it stays even.
  const open = await reckon('flange', {
    radiusMm: 100,
    widthMm: 24,
    angleDeg: 90,
    curve: 'inside',
    thicknessMm: 1,
  });
  expect(open).toMatchObject({
    within: false,
    decides: 'thinning',
    cracking: { within: true, why: 'elongation-at-break', strain: 0.38 },
  });
});

test('what cannot be is refused by name, and what is not known is not told', async () => {
  const code = async (verb: string, given: object) => {
    const found = await reckon(verb, given);
    return found.ok ? 'answered' : (found.problems as { code: string }[])[0]!.code;
  };
  const bend = { thicknessMm: 1, yieldMpa: 400, youngMpa: 70_000 };
  expect(await code('springback', { ...bend, radiusMm: 60, angleDeg: 150 })).toBe(
    'springback-past-closed',
  );
  // Turned right back, a flange of 30 round a radius of 10 reaches over the middle.
  const flange = { radiusMm: 10, widthMm: 30, curve: 'outside', thicknessMm: 1 };
  expect(await code('flange', { ...flange, angleDeg: 180 })).toBe('flange-past-centre');
  expect(await code('flange', { ...flange, angleDeg: 90 })).toBe('answered');
  expect(await code('plugs', { lengthMm: 1e6, pitchMm: 0.01, endMm: 5 })).toBe('too-many-plugs');
  const brake = VERBS['fold-order']!.example as { machine: object };
  expect(
    await reckon('fold-order', { ...brake, machine: { ...brake.machine, fingersMm: [] } }),
  ).toMatchObject({ problems: [{ code: 'input', about: ['machine.fingersMm'] }] });
  expect(await reckon('lie', { gapMm: 1, toleranceMm: 0.5, readings: [] })).toMatchObject({
    lie: 'unread',
    meanMm: null,
  });
  expect(await reckon('surface', { kind: 'cap', widthMm: 400, heightMm: 30 })).toMatchObject({
    form: 'cap',
  });
});

test('curvature of a cap is told with what lies on the rim of its net apart, the surer the finer', async () => {
  // 2π(1 − cos 20°) on a sphere of 500 (Gauss–Bonnet): 21.711°.
  const wide = {
    widthMm: 2 * 500 * Math.sin(Math.PI / 9),
    heightMm: 500 * (1 - Math.cos(Math.PI / 9)),
  };
  let before = Infinity;
  for (const triangles of [400, 1600, 6400]) {
    const mesh = await reckon('surface', { kind: 'cap', ...wide, triangles });
    const found = (await reckon('curvature', mesh)) as unknown as Record<
      'totalDeg' | 'boundaryDeg' | 'onRimDeg' | 'uOnRimDeg',
      number
    >;
    expect(found.totalDeg + found.boundaryDeg).toBeCloseTo(360, 6);
    const off = Math.abs(found.totalDeg + found.onRimDeg - 21.711);
    expect(off).toBeLessThan(2 * found.uOnRimDeg);
    expect(found.uOnRimDeg).toBeLessThan(0.5 * found.onRimDeg);
    expect(found.onRimDeg).toBeLessThan(before);
    before = found.onRimDeg;
  }
});
