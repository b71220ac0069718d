import { VERBS, reckon } from './verbs';

test.each(Object.keys(VERBS))('%s answers its own example', (name) => {
  expect(reckon(name, VERBS[name]!.example)).toMatchObject({ ok: true });
});

test('the shapes that scripts rely on', () => {
  expect(reckon('gauge', { system: 'msg', gauge: 20 })).toEqual({
    ok: true,
    thicknessMm: expect.closeTo(0.91186, 9),
    thicknessIn: 0.0359,
  });
  expect(reckon('gauge', { thicknessMm: 0.82 })).toMatchObject({
    nearest: ['msg', 'gsg', 'swg', 'bs'].map((system) => ({
      system,
      gauge: expect.any(Number),
      differenceMm: expect.any(Number),
    })),
  });
  // DIN 6935 table: T 1, R 1.6 takes 2.1 off.
  expect(reckon('allowance', { thicknessMm: 1, radiusMm: 1.6, angleDeg: 90, rule: { kind: 'din6935' } })).toMatchObject({
    ok: true, k: expect.closeTo(0.376, 3), outsideSetbackMm: expect.closeTo(2.6, 9), deductionMm: expect.closeTo(2.0961, 4),
  }); // prettier-ignore
  expect(reckon('develop', VERBS.develop!.example)).toMatchObject({
    ok: true,
    blank: { widthMm: expect.closeTo(60 - 4.4594, 4), heightMm: expect.closeTo(30, 9), outline: expect.any(Array) },
    folds: [{ deductionMm: expect.closeTo(4.4594, 4), tangents: [[[expect.closeTo(19, 9), 0], [expect.closeTo(19, 9), 30]], expect.any(Array)] }],
  }); // prettier-ignore
  expect(reckon('tacks', { lengthMm: 100, pitchMm: 50, closed: false })).toEqual({
    ok: true,
    positionsMm: [0, 100, 50],
  });
});

test('what does not fit is told by field, not thrown', () => {
  expect(reckon('nothing', {})).toMatchObject({ ok: false, problems: [{ code: 'no-such-verb' }] });
  expect(reckon('plugs', { lengthMm: 'long', pitchMm: 25 })).toMatchObject({
    ok: false,
    problems: [
      { code: 'input', about: ['lengthMm'] },
      { code: 'input', about: ['endMm'] },
    ],
  });
  expect(reckon('develop', null)).toMatchObject({ ok: false });
});
