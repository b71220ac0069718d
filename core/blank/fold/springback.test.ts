import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import { angleRatioOf, foldToBy, meanRatio, springback, springbackTo } from './springback';

const got = <T extends object>(found: ({ ok: true } & T) | { ok: false }): T => {
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found;
};

test('worked example, Kalpakjian & Schmid (from memory): 20 gauge .0359 in, Ri .5 in, 40 000 psi', () => {
  const found = got(
    springback({
      thicknessMm: 0.0359 * 25.4,
      radiusMm: 12.7,
      angleDeg: 90,
      yieldMpa: 40_000,
      youngMpa: 29e6,
    }),
  );
  expect(found.x).toBeCloseTo(0.0192, 4);
  expect(found.radiusRatio).toBeCloseTo(0.942, 3);
  expect(found.afterRadiusMm / 25.4).toBeCloseTo(0.531, 3);
});

test('the formula evaluated: T 1, Ri 2, Y 210, E 207 000: 90.441° for 90°', () => {
  const found = got(
    springback({ thicknessMm: 1, radiusMm: 2, angleDeg: 90, yieldMpa: 210, youngMpa: 207_000 }),
  );
  expect(found.foldToDeg).toBeCloseTo(90.441, 3);
});

test('the length along the middle of the sheet stays, more yield or radius springs back more, and the tool’s radius is found from the wanted one', () => {
  fc.assert(
    fc.property(
      spread(0.5, 3),
      spread(0, 40),
      spread(1, 180),
      spread(60, 500),
      spread(60_000, 210_000),
      (thicknessMm, radiusMm, angleDeg, yieldMpa, youngMpa) => {
        const given = { thicknessMm, radiusMm, angleDeg, yieldMpa, youngMpa };
        const found = springback(given);
        const middle = thicknessMm / 2;
        if (!found.ok) {
          const [{ code }] = found.problems as [{ code: string }];
          const x = (radiusMm * yieldMpa) / (youngMpa * thicknessMm);
          if (code === 'springs-back-wholly') return expect(x).toBeGreaterThanOrEqual(0.5);
          // No fold goes farther than shut: refused where the formula asks for more.
          expect(code).toBe('springback-past-closed');
          const after = radiusMm / (4 * x ** 3 - 3 * x + 1);
          return expect((angleDeg * (after + middle)) / (radiusMm + middle)).toBeGreaterThan(180);
        }
        expect(found.foldToDeg * (radiusMm + middle)).toBeCloseTo(
          angleDeg * (found.afterRadiusMm + middle),
          6,
        );
        expect(found.foldToDeg).toBeGreaterThanOrEqual(angleDeg);
        const harder = springback({ ...given, yieldMpa: yieldMpa * 1.1 });
        if (harder.ok) expect(harder.foldToDeg).toBeGreaterThanOrEqual(found.foldToDeg);
        const back = got(springbackTo({ ...given, radiusMm: found.afterRadiusMm }));
        expect(back.toolRadiusMm).toBeCloseTo(radiusMm, 5);
        expect(back.afterRadiusMm).toBeCloseTo(found.afterRadiusMm, 5);
      },
    ),
  );
});

test('the shop’s own: folded to 92, came back to 88.5: now to 93.6; several tries are surer, unlike ones less', () => {
  const one = got(angleRatioOf({ foldedToDeg: 92, cameBackToDeg: 88.5, uDeg: 0.5 }));
  expect(foldToBy(one, 90).foldToDeg).toBeCloseTo(93.6, 1);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(spread(20, 170), spread(0.9, 0.995)), { minLength: 2, maxLength: 8 }),
      spread(0.1, 1),
      (tries, uDeg) => {
        const all = tries.map(([foldedToDeg, share]) =>
          got(angleRatioOf({ foldedToDeg, cameBackToDeg: foldedToDeg * share, uDeg })),
        );
        const mean = meanRatio(all)!;
        expect(mean.ratio).toBeGreaterThanOrEqual(
          Math.min(...all.map(({ ratio }) => ratio)) - 1e-12,
        );
        expect(mean.ratio).toBeLessThanOrEqual(Math.max(...all.map(({ ratio }) => ratio)) + 1e-12);
        const alike = meanRatio(all.map(({ u }) => ({ ratio: 0.97, u })))!;
        expect(alike.u).toBeLessThan(Math.min(...all.map(({ u }) => u)));
        expect(mean.u).toBeGreaterThanOrEqual(alike.u - 1e-12);
      },
    ),
  );
});

test('what cannot be is refused by name', () => {
  const given = { thicknessMm: 1, radiusMm: 2, angleDeg: 90, yieldMpa: 210, youngMpa: 207_000 };
  expect(springback({ ...given, thicknessMm: 0, angleDeg: 200 })).toMatchObject({
    problems: [{ about: ['thicknessMm', 'angleDeg'] }],
  });
  expect(springback({ ...given, radiusMm: 500 })).toMatchObject({
    problems: [{ code: 'springs-back-wholly' }],
  });
  expect(angleRatioOf({ foldedToDeg: 90, cameBackToDeg: 20, uDeg: 1 })).toMatchObject({
    problems: [{ code: 'spring-reading' }],
  });
  expect(angleRatioOf({ foldedToDeg: 90, cameBackToDeg: 95, uDeg: 1 })).toMatchObject({
    ok: false,
  });
  expect(meanRatio([])).toBeNull();
});
