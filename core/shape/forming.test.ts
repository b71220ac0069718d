import fc from 'fast-check';
import { beadSize, reckonBead, sectionPath } from '../blank/bead/section';
import { edgeStrain, flangeStrain, openedWithin, widestWithin } from '../blank/flange/strain';
import { flaredHole } from '../blank/flared/flaredHole';
import { runLength } from '../measure/run';
import { flattened } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import { edgeThickness, uniformElongation, wrinklingStrain } from '../metal/forming';
import { bitesFor } from './bites';
import { radiusByStrain, strainForRadius } from './pulledCurve';

type V3 = [number, number, number];
const gap = (a: V3, b: V3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const radians = (deg: number) => (deg * Math.PI) / 180;

describe('flanges round a curve', () => {
  // By the formulas h(1 − cos A)/(R − h) and −h(1 − cos A)/(R + h) at R 100, h 15.
  test.each([
    ['inside', 90, 17.647],
    ['inside', 45, 5.1687],
    ['outside', 90, -13.043],
    ['outside', 45, -3.8203],
  ] as const)('%s, %s°', (curve, angleDeg, pct) => {
    const found = flangeStrain({
      radiusMm: 100,
      widthMm: 15,
      angleDeg,
      curve,
      arcDeg: 90,
      how: 'tipped',
    });
    expect(found.ok && found.edgeStrain * 100).toBeCloseTo(pct, 3);
  });

  test('pulled round, the free edge of the leg in the plane changes by h/R', () => {
    const of = (curve: 'inside' | 'outside') =>
      flangeStrain({ radiusMm: 100, widthMm: 15, angleDeg: 90, curve, arcDeg: 60, how: 'pulled' });
    expect(of('inside')).toMatchObject({
      edgeStrain: expect.closeTo(0.15, 12),
      edgeChangeMm: expect.closeTo(15 * radians(60), 9),
    });
    expect(of('outside')).toMatchObject({ edgeStrain: expect.closeTo(-0.15, 12) });
  });

  test('a fine integration of the free edge, flat and turned, gives the strain on arcs and on tapers', () => {
    const N = 4000;
    fc.assert(
      fc.property(
        spread(30, 2000),
        spread(0.05, 0.6),
        spread(-0.2, 0.2),
        spread(5, 175),
        fc.boolean(),
        (radius, share, slope, angle, inside) => {
          const sign = inside ? 1 : -1;
          const span = 0.02;
          const width = (phi: number) => radius * share + slope * radius * phi;
          const at = (phi: number, reach: number, up: number): V3 => {
            const r = radius - sign * reach;
            return [r * Math.cos(phi), r * Math.sin(phi), up];
          };
          const long = (place: (phi: number) => V3) => {
            let sum = 0;
            for (let i = 0; i < N; i++)
              sum += gap(
                place(-span + (2 * span * i) / N),
                place(-span + (2 * span * (i + 1)) / N),
              );
            return sum;
          };
          const flat = long((phi) => at(phi, width(phi), 0));
          const turned = long((phi) =>
            at(phi, width(phi) * Math.cos(radians(angle)), width(phi) * Math.sin(radians(angle))),
          );
          // The change of width per mm of fold line; the strain reckoned at many places, each for
          // its own part of the flat edge.
          let reckoned = 0;
          for (let i = 0; i < N; i++) {
            const phi = -span + (2 * span * (i + 0.5)) / N;
            const e = edgeStrain(
              { curvature: sign / radius, widthMm: width(phi), slope },
              angle,
              'tipped',
            );
            reckoned +=
              (1 + e) *
              gap(
                at(phi - span / N, width(phi - span / N), 0),
                at(phi + span / N, width(phi + span / N), 0),
              );
          }
          expect(reckoned / flat).toBeCloseTo(turned / flat, 7);
        },
      ),
      { numRuns: 20 },
    );
  });

  test('what is told to be within is at the limit itself, by width and by angle', () => {
    fc.assert(
      fc.property(
        spread(20, 3000),
        spread(2, 180),
        spread(0.01, 0.4),
        fc.boolean(),
        fc.constantFrom('tipped' as const, 'pulled' as const),
        (radius, angle, most, inside, way) => {
          const curvature = (inside ? 1 : -1) / radius;
          const limit = inside ? most : -most;
          const widest = widestWithin(curvature, angle, way, limit);
          if (widest === null)
            return expect(
              edgeStrain({ curvature, widthMm: 1e7 * radius, slope: 0 }, angle, way),
            ).toBeGreaterThan(limit);
          expect(edgeStrain({ curvature, widthMm: widest, slope: 0 }, angle, way)).toBeCloseTo(
            limit,
            8,
          );
          if (way === 'pulled') return;
          const wider = {
            curvature,
            widthMm: Math.min(widest * 1.1, inside ? radius * 0.99 : Infinity),
            slope: 0,
          };
          if (wider.widthMm > widest)
            expect(edgeStrain(wider, openedWithin(wider, limit), 'tipped')).toBeCloseTo(limit, 8);
        },
      ),
    );
  });

  test('figures that can be no flange’s are named', () => {
    const flange = {
      radiusMm: 100,
      widthMm: 15,
      angleDeg: 90,
      curve: 'inside',
      arcDeg: 90,
      how: 'tipped',
    } as const;
    expect(flangeStrain({ ...flange, angleDeg: 200, widthMm: 0 })).toMatchObject({
      ok: false,
      problems: [{ about: ['widthMm', 'angleDeg'] }],
    });
    expect(flangeStrain({ ...flange, widthMm: 100 })).toMatchObject({
      ok: false,
      problems: [{ code: 'flange-past-centre' }],
    });
    expect(flangeStrain({ ...flange, widthMm: 100, curve: 'outside' }).ok).toBe(true);
  });
});

describe('limits', () => {
  test('uniform elongation is where the load is most (Considère), found by stepping', () => {
    const n = 0.21;
    let [most, at] = [0, 0];
    for (let e = 0; e < 0.5; e += 1e-4) {
      const load = Math.log1p(e) ** n / (1 + e);
      if (load > most) [most, at] = [load, e];
    }
    expect(uniformElongation(n)).toBeCloseTo(at, 3);
  });

  test('a strained edge keeps its volume; a narrow flange wrinkles later', () => {
    const t = edgeThickness(1, 0.2);
    expect(t * t * 1.2).toBeCloseTo(1, 12);
    expect(wrinklingStrain(0.8, 10) / wrinklingStrain(0.8, 20)).toBeCloseTo(4, 12);
  });
});

describe('bites', () => {
  test('the bites reckoned, one after the other, bring the strain about', () => {
    fc.assert(
      fc.property(
        spread(0.01, 0.3),
        fc.integer({ min: 1, max: 60 }),
        spread(0.005, 0.2),
        fc.boolean(),
        (strain, bites, change, shrink) => {
          const sign = shrink ? -1 : 1;
          const found = bitesFor(sign * strain, {
            lengthMm: 100,
            bites,
            afterMm: 100 * (1 + sign * change),
          });
          if (!found.ok) throw new Error('refused');
          expect((1 + found.strainPerBite) ** found.bites - 1).toBeCloseTo(sign * strain, 9);
        },
      ),
    );
  });

  test('a strip worked the other way says nothing', () => {
    expect(bitesFor(-0.1, { lengthMm: 100, bites: 10, afterMm: 104 })).toMatchObject({
      ok: false,
      problems: [{ code: 'bite-strip-other-way' }],
    });
  });

  test('a strip whose edge is shrunk lies on an arc as long at both edges as they are', () => {
    const strain = strainForRadius(16, 900, 'shrunk');
    expect(strain.ok && strain.strain * 100).toBeCloseTo(-1.778, 3);
    fc.assert(
      fc.property(spread(5, 100), spread(0.001, 0.3), (width, e) => {
        const found = radiusByStrain(width, -e);
        if (!found.ok) throw new Error('refused');
        const outer = Math.abs(found.radiusMm);
        expect((outer - width) / outer).toBeCloseTo(1 - e, 12);
      }),
    );
  });
});

describe('beads', () => {
  test.each([
    [{ kind: 'arc', widthMm: 12, heightMm: 3 }, 13.909],
    [{ kind: 'arc', widthMm: 20, heightMm: 4 }, 22.069],
    [{ kind: 'flat-topped', widthMm: 20, topMm: 10, heightMm: 4 }, 22.806],
    [{ kind: 'v', widthMm: 20, heightMm: 4 }, 21.541],
  ] as const)('developed length %#', (section, mm) => {
    const size = beadSize(section);
    expect(size.ok && size.developedMm).toBeCloseTo(mm, 3);
  });

  test('the section as it is drawn is as long as it is reckoned, by sampling', () => {
    const section = fc.oneof(
      fc.record({
        kind: fc.constant('arc' as const),
        widthMm: spread(2, 60),
        heightMm: spread(0.1, 1),
      }),
      fc.record({
        kind: fc.constant('step' as const),
        depthMm: spread(0.2, 10),
        radiusMm: spread(0, 5),
        thicknessMm: spread(0.5, 2),
      }),
      fc.record({
        kind: fc.constant('v' as const),
        widthMm: spread(2, 60),
        heightMm: spread(0.1, 20),
      }),
      fc.record({
        kind: fc.constant('flat-topped' as const),
        widthMm: spread(20, 60),
        topMm: spread(1, 19),
        heightMm: spread(0.1, 20),
      }),
    );
    fc.assert(
      fc.property(section, (given) => {
        const drawn = sectionPath(given);
        const size = beadSize(given);
        if (!size.ok) throw new Error('refused');
        const points = [...drawn.flatMap((s) => flattened(s, 1e-6)), drawn.at(-1)!.b];
        let long = 0;
        points
          .slice(1)
          .forEach((p, i) => (long += Math.hypot(p[0] - points[i]![0], p[1] - points[i]![1])));
        expect(long).toBeCloseTo(size.developedMm, 3);
        expect(runLength(drawn)).toBeCloseTo(size.developedMm, 9);
        expect([points[0]![0], points.at(-1)![0]]).toEqual([
          expect.closeTo(-size.widthMm / 2, 9),
          expect.closeTo(size.widthMm / 2, 9),
        ]);
        expect(Math.max(...points.map(([, y]) => y))).toBeCloseTo(size.heightMm, 4);
      }),
    );
  });

  test('what draws in and what stretches make up the metal across the bead', () => {
    const found = reckonBead({ kind: 'arc', widthMm: 12, heightMm: 3 }, 0.6, 1, 800);
    if (!found.ok) throw new Error('refused');
    expect((12 + found.blankAddsMm) * (1 + found.stretchPct / 100)).toBeCloseTo(
      found.developedMm,
      12,
    );
    expect(found).toMatchObject({ passes: 3, curveChangePct: expect.closeTo(0.375, 12) });
    expect(reckonBead({ kind: 'arc', widthMm: 4, heightMm: 3 }, 1, 1)).toMatchObject({
      ok: false,
      problems: [{ code: 'bead-too-high' }],
    });
  });
});

describe('flared holes', () => {
  test('the middle of the sheet keeps its length from where it is flat to the rim', () => {
    fc.assert(
      fc.property(
        spread(10, 120),
        spread(0.5, 6),
        spread(0.5, 3),
        spread(0.1, 3),
        (meanMm, radiusMm, thicknessMm, wall) => {
          const heightMm = radiusMm + thicknessMm + wall;
          const found = flaredHole({ meanMm, heightMm, radiusMm, thicknessMm }, 'drilled');
          if (!found.ok) return;
          // A quarter of a circle round the middle of the sheet and the wall beyond it, as against
          // the flat ring.
          const middle = radiusMm + thicknessMm / 2;
          const section = (Math.PI / 2) * middle + wall;
          const flat = meanMm / 2 + middle - found.firstHoleMm / 2;
          // Romanovsky's .43 and .72 are .429 and .715 rounded.
          expect(Math.abs(flat - section)).toBeLessThan(
            0.001 * radiusMm + 0.006 * thicknessMm + 1e-9,
          );
        },
      ),
    );
  });

  test('drilled holes stretch farther than punched ones, big ones less far', () => {
    const flare = { meanMm: 25, heightMm: 6, radiusMm: 2, thicknessMm: 1 };
    const [drilled, punched] = [flaredHole(flare, 'drilled'), flaredHole(flare, 'punched')];
    expect(drilled).toMatchObject({
      firstHoleMm: expect.closeTo(16.16, 9),
      edgeStrain: expect.closeTo(25 / 16.16 - 1, 9),
      within: true,
    });
    expect(drilled.ok && punched.ok && drilled.limit > punched.limit).toBe(true);
    const big = flaredHole({ ...flare, meanMm: 120 }, 'drilled');
    expect(big.ok && drilled.ok && big.limit < drilled.limit).toBe(true);
    expect(flaredHole({ ...flare, heightMm: 20 }, 'drilled')).toMatchObject({
      ok: false,
      problems: [{ code: 'flare-no-hole' }],
    });
  });
});
