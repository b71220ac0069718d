import fc from 'fast-check';
import { polygonArea } from '../../measure/path';
import { arcOf } from '../../measure/segment';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { profileOf } from '../profile';
import { paperCurve } from '../tucks';
import { frustum, squareToRound } from './cone';
import { leaningCone } from './leaning';
import type { RolledSheet } from './rolledSheet';
import { elbow, tubeCut, tubeNotch } from './tube';
import type { Vec3 } from './unfold';
import { unfolded } from './unfold';

const got = <T extends { ok: boolean }>(found: T): Extract<T, { ok: true }> => {
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found as Extract<T, { ok: true }>;
};
const apart3 = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const apart = (a: Vec, b: Vec) => Math.hypot(a[0] - b[0], a[1] - b[1]);
const area3 = (a: Vec3, b: Vec3, c: Vec3) => {
  const [u, v] = [b, c].map((p): Vec3 => [p[0] - a[0], p[1] - a[1], p[2] - a[2]]) as [Vec3, Vec3];
  return (
    Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2
  );
};

describe('tubes', () => {
  const figures = fc.record({
    tube: spread(20, 80),
    more: spread(1, 60),
    wall: spread(0.5, 4),
    angle: spread(25, 90),
    off: spread(-1, 1),
  });

  test('wrapped round its tube, the notch lies on the other tube everywhere', () => {
    fc.assert(
      fc.property(figures, ({ tube, more, wall, angle, off }) => {
        const onto = tube + more;
        const offset = (off * more) / 2.1;
        const { wrap, square, girthMm } = got(
          tubeNotch({
            tubeMm: tube,
            wallMm: wall,
            ontoMm: onto,
            angleDeg: angle,
            offsetMm: offset,
          }),
        );
        const t = (angle * Math.PI) / 180;
        // The axis rises at t in the x–z plane past the other's axis (x) by the offset; along it
        // the wrap's heights, but for a constant.
        const onOther = (s: number, turn: number) =>
          Math.hypot(
            offset + (tube / 2) * Math.sin(turn),
            s * Math.sin(t) + (tube / 2) * Math.cos(turn) * Math.cos(t),
          );
        const start =
          (Math.sqrt((onto / 2) ** 2 - offset ** 2) - (tube / 2) * Math.cos(t)) / Math.sin(t) -
          wrap[0]![1];
        for (const [along, height] of wrap)
          expect(onOther(start + height, (2 * along) / tube)).toBeCloseTo(onto / 2, 8);
        expect(Math.min(...wrap.map(([, h]) => h))).toBe(0);
        expect(girthMm).toBeCloseTo(Math.PI * tube, 9);
        // Straight through the wall it is cut at least as deep everywhere, but for what the lowest
        // place is.
        const lowest = Math.max(...square.map(([, h], i) => wrap[i]![1] - h));
        for (const [i, [, h]] of square.entries())
          expect(h + lowest).toBeGreaterThanOrEqual(wrap[i]![1] - 1e-9);
      }),
    );
    // Equal tubes at a right angle: as deep as half their diameter.
    const equal = got(
      tubeNotch({ tubeMm: 42.4, wallMm: 2, ontoMm: 42.4, angleDeg: 90, offsetMm: 0 }),
    );
    expect(Math.max(...equal.wrap.map(([, h]) => h))).toBeCloseTo(21.2, 9);
    expect(
      tubeNotch({ tubeMm: 50, wallMm: 2, ontoMm: 48, angleDeg: 90, offsetMm: 0 }),
    ).toMatchObject({ ok: false, problems: [{ code: 'tube-misses' }] });
    expect(
      tubeNotch({ tubeMm: 40, wallMm: 2, ontoMm: 48, angleDeg: 120, offsetMm: NaN }),
    ).toMatchObject({
      ok: false,
      problems: [{ code: 'shape-figures', about: ['angleDeg', 'offsetMm'] }],
    });
  });

  test('a tube cut at an angle ends in a plane; an elbow turns by its bend, its axis as long as the chords of its arc', () => {
    fc.assert(
      fc.property(spread(10, 200), spread(0, 70), (tube, angle) => {
        const { wrap } = got(tubeCut(tube, angle));
        const lean = Math.tan((angle * Math.PI) / 180);
        for (const [along, height] of wrap) {
          const x = (tube / 2) * Math.cos((2 * along) / tube);
          expect(height).toBeCloseTo(lean * (tube / 2 - x), 8);
        }
      }),
    );
    fc.assert(
      fc.property(
        spread(40, 120),
        spread(1, 3),
        spread(20, 120),
        fc.integer({ min: 3, max: 9 }),
        (tube, far, bend, pieces) => {
          const radius = tube * far;
          const { end, mitreDeg } = got(
            elbow({ tubeMm: tube, radiusMm: radius, bendDeg: bend, pieces }),
          );
          expect(2 * (pieces - 1) * mitreDeg).toBeCloseTo(bend, 9);
          // Throat, side and heel of an end piece: on the tangents at distances from the middle of
          // the bend.
          const tan = Math.tan((mitreDeg * Math.PI) / 180);
          const quarter = end.length >> 2;
          expect([0, quarter, 2 * quarter].map((i) => end[i]![1] / tan)).toEqual(
            [radius - tube / 2, radius, radius + tube / 2].map((x) => expect.closeTo(x, 6)),
          );
        },
      ),
    );
  });
});

describe('unrolled', () => {
  const place = fc.tuple(spread(-100, 100), spread(-100, 100), spread(-100, 100));
  const line = fc.array(place, { minLength: 5, maxLength: 5 });

  test('a strip of triangles laid flat keeps every length, whichever way it goes on', () => {
    fc.assert(
      fc.property(
        line,
        line,
        fc.shuffledSubarray(
          ['lower', 'lower', 'lower', 'lower', 'upper', 'upper', 'upper', 'upper'] as const,
          { minLength: 8 },
        ),
        (lower, upper, steps) => {
          const flat = unfolded(lower, upper, steps);
          let [i, j] = [0, 0];
          const same = (a: Vec, b: Vec, p: Vec3, q: Vec3) =>
            expect(apart(a, b)).toBeCloseTo(apart3(p, q), 5);
          for (const step of steps) {
            const [a, b] = [i, j];
            if (step === 'lower') i++;
            else j++;
            same(flat.lower[i]!, flat.upper[j]!, lower[i]!, upper[j]!);
            if (step === 'lower') same(flat.lower[a]!, flat.lower[i]!, lower[a]!, lower[i]!);
            else same(flat.upper[b]!, flat.upper[j]!, upper[b]!, upper[j]!);
          }
        },
      ),
    );
  });

  test('a frustum has its mantle’s area and its girths, whichever end is the wider', () => {
    fc.assert(
      fc.property(spread(0, 200), spread(0, 200), spread(5, 300), (a, b, height) => {
        if (Math.abs(a - b) < 1) return;
        const found = got(frustum(a, b, height));
        const { innerRadiusMm, outerRadiusMm, sectorDeg, slantMm, outline } = found;
        const turn = (sectorDeg * Math.PI) / 180;
        expect(((outerRadiusMm ** 2 - innerRadiusMm ** 2) * turn) / 2).toBeCloseTo(
          Math.PI * (a / 2 + b / 2) * slantMm,
          5,
        );
        expect([innerRadiusMm * turn, outerRadiusMm * turn]).toEqual(
          [Math.min(a, b), Math.max(a, b)].map((d) => expect.closeTo(Math.PI * d, 6)),
        );
        // The outline is that ring: its arcs lie on both circles about the origin, and it runs
        // counter-clockwise.
        outline.forEach(({ x, y, bulge }, i) => {
          const next = outline[(i + 1) % outline.length]!;
          if (bulge === 0) return;
          const { centre, radius } = arcOf({ a: [x, y], b: [next.x, next.y], bulge });
          expect(Math.hypot(...centre)).toBeLessThan(1e-6 * outerRadiusMm);
          expect(
            Math.min(Math.abs(radius - innerRadiusMm), Math.abs(radius - outerRadiusMm)),
          ).toBeLessThan(1e-6 * outerRadiusMm);
        });
        expect(outline[0]!.bulge).toBeGreaterThan(0);
      }),
    );
    expect(frustum(80, 80, 60)).toMatchObject({
      ok: false,
      problems: [{ code: 'shape-figures', about: ['lowerMm', 'upperMm'] }],
    });
    expect(frustum(80, 40, 0)).toMatchObject({ ok: false, problems: [{ about: ['heightMm'] }] });
  });

  test('a square-to-round has the area of its triangles, closes on itself, and its round end is as long as the circle’s chords', () => {
    fc.assert(
      fc.property(
        spread(60, 300),
        spread(60, 300),
        spread(40, 200),
        spread(20, 300),
        fc.integer({ min: 2, max: 12 }),
        (wide, deep, roundMm, height, parts) => {
          const { outline, bends } = got(
            squareToRound({ wideMm: wide, deepMm: deep, roundMm, heightMm: height, parts }),
          );
          expect(bends).toHaveLength(4 * (parts + 1));
          const at = (i: number): Vec3 => [
            (roundMm / 2) * Math.cos(-Math.PI / 2 + (2 * Math.PI * i) / (4 * parts)),
            (roundMm / 2) * Math.sin(-Math.PI / 2 + (2 * Math.PI * i) / (4 * parts)),
            height,
          ];
          const corners: Vec3[] = [
            [wide / 2, -deep / 2, 0],
            [wide / 2, deep / 2, 0],
            [-wide / 2, deep / 2, 0],
            [-wide / 2, -deep / 2, 0],
          ];
          let area = 0;
          corners.forEach((corner, c) => {
            area += area3(corner, corners[(c + 1) % 4]!, at((c + 1) * parts));
            for (let k = 0; k < parts; k++)
              area += area3(corner, at(c * parts + k), at(c * parts + k + 1));
          });
          expect(polygonArea(outline)).toBeCloseTo(area, 4);
          // The two halves of the first side are its seams.
          const n = outline.length;
          expect(apart(outline[0]!, outline[n - 1]!)).toBeCloseTo(
            apart(outline[5]!, outline[6]!),
            6,
          );
          const top = outline.slice(6);
          expect(top.slice(1).reduce((sum, p, i) => sum + apart(top[i]!, p), 0)).toBeCloseTo(
            4 * parts * 2 * (roundMm / 2) * Math.sin(Math.PI / (4 * parts)),
            6,
          );
        },
      ),
    );
  });
});

test('a square-to-round of one part a corner is the square antiprism: 127.5516° between its triangles (published; from memory)', () => {
  const { bendDeg } = got(
    squareToRound({
      wideMm: 100,
      deepMm: 100,
      roundMm: 100 * Math.SQRT2,
      heightMm: 100 * 2 ** -0.25,
      parts: 1,
    }),
  );
  expect(bendDeg).toHaveLength(8);
  for (const deg of bendDeg) expect(180 - deg).toBeCloseTo(127.5516, 3);
  // Far to one side, what stands over it is bent the other way nowhere: the form stays hollow
  // inside.
  const leaning = got(
    squareToRound({ wideMm: 100, deepMm: 80, roundMm: 60, heightMm: 70, shiftMm: [90, 20] }),
  );
  for (const deg of leaning.bendDeg) expect(deg).toBeGreaterThan(0);
});

describe('tucks and profiles', () => {
  test('a paper cone has all its curvature at its point: the angle of its tuck; a cap’s is 2π(1 − cos θ)', () => {
    // R 500, 20°: 21.711°, taken by eight tucks as deep as the cap's arc is long.
    const [radius, cap] = [500, (20 * Math.PI) / 180];
    const total = 2 * Math.PI * (1 - Math.cos(cap));
    const depthMm = radius * cap;
    const overlapMm = 2 * depthMm * Math.tan(total / 8 / 2);
    const area = 2 * Math.PI * radius ** 2 * (1 - Math.cos(cap));
    const found = got(
      paperCurve(
        Array.from({ length: 8 }, () => ({ overlapMm, depthMm })),
        [],
        area,
      ),
    );
    expect(found).toMatchObject({
      shape: 'bowl',
      totalDeg: expect.closeTo(21.711, 3),
      meanRadiusMm: expect.closeTo(500, 6),
    });
    expect(got(paperCurve([], [{ openMm: 5, depthMm: 60 }], 40_000))).toMatchObject({
      shape: 'saddle',
      totalDeg: expect.closeTo(-4.772, 3),
    });
    expect(
      got(paperCurve([{ overlapMm: 5, depthMm: 60 }], [{ openMm: 5, depthMm: 60 }], 1)),
    ).toMatchObject({ shape: 'flat', meanRadiusMm: null });
    expect(
      paperCurve([{ overlapMm: 5, depthMm: 0 }], [{ openMm: -1, depthMm: 5 }], 1),
    ).toMatchObject({ ok: false, problems: [{ about: ['tuck 1', 'slit 1'] }] });
  });

  test('ordinates of a crown are its arc again, in whatever order they were read', () => {
    fc.assert(
      fc.property(
        spread(300, 3000),
        fc.array(spread(0, 250), { minLength: 6, maxLength: 20 }),
        (radius, given) => {
          const stations = [...new Set([0, 250, ...given])];
          const drop = (s: number) => radius - Math.sqrt(radius ** 2 - (s - 125) ** 2);
          const { arcs, worstMm } = got(
            profileOf(
              stations.map((s) => [s, drop(s)] as const),
              0.1,
            ),
          );
          expect(worstMm).toBeLessThan(0.1);
          expect(arcs).toHaveLength(1);
          // The surface lies below the straight edge and bows up to it.
          expect(arcs[0]!.bulge).toBeLessThanOrEqual(0);
        },
      ),
    );
    expect(
      profileOf(
        [
          [0, 0],
          [10, 1],
          [10, 2],
        ],
        0.1,
      ),
    ).toMatchObject({ ok: false, problems: [{ code: 'profile-station', about: ['3'] }] });
  });
});

describe('rolled from sheet, a shape is developed on the middle of the sheet', () => {
  test('a tube of 60 outside in 1 mm has a girth of 59π, of 60 inside 61π, as a wrap 60π', () => {
    const girth = (sheet: RolledSheet | null) => [
      got(tubeCut(60, 30, sheet)).girthMm,
      got(elbow({ tubeMm: 60, radiusMm: 90, bendDeg: 90, pieces: 4, sheet })).girthMm,
      got(tubeNotch({ tubeMm: 60, wallMm: 1, ontoMm: 80, angleDeg: 60, offsetMm: 0, sheet }))
        .girthMm,
    ];
    for (const [sheet, mm] of [
      [{ thicknessMm: 1, measured: 'outside' }, 59],
      [{ thicknessMm: 1, measured: 'inside' }, 61],
      [null, 60],
    ] as const)
      for (const found of girth(sheet)) expect(found).toBeCloseTo(Math.PI * mm, 9);
  });

  test('the outside of one sheet is the inside of another wall round it: a frustum typed either way is one blank', () => {
    fc.assert(
      fc.property(
        spread(60, 200),
        spread(20, 50),
        spread(20, 150),
        spread(0.5, 4),
        (lower, upper, high, thicknessMm) => {
          // Edges cut square to the sheet: outside and inside corner are T·cos α apart across, the
          // height between two corners of one face the same.
          const across = (2 * thicknessMm * high) / Math.hypot(high, (lower - upper) / 2);
          const outside = got(frustum(lower, upper, high, { thicknessMm, measured: 'outside' }));
          const inside = got(
            frustum(lower - across, upper - across, high, { thicknessMm, measured: 'inside' }),
          );
          expect(outside.outerRadiusMm).toBeCloseTo(inside.outerRadiusMm, 6);
          expect(outside.sectorDeg).toBeCloseTo(inside.sectorDeg, 6);
          // A cone that leans by nothing is that frustum: its rims as long.
          const long = (line: readonly Vec[]) =>
            line.slice(1).reduce((sum, p, i) => sum + apart(p, line[i]!), 0);
          const leaning = got(
            leaningCone({
              lowerMm: lower,
              upperMm: upper,
              heightMm: high,
              offsetMm: 0,
              sheet: { thicknessMm, measured: 'outside' },
            }),
          );
          const rim = (outside.sectorDeg * Math.PI) / 180;
          expect(long(leaning.lower)).toBeCloseTo(outside.outerRadiusMm * rim, 1);
          expect(long(leaning.upper)).toBeCloseTo(outside.innerRadiusMm * rim, 1);
        },
      ),
    );
  });

  test('a square-to-round of a square about its circle: its sides on the middle of the sheet, as its walls lean', () => {
    const typed = { wideMm: 120, deepMm: 120, roundMm: 120, heightMm: 100 };
    const sheet = { thicknessMm: 2, measured: 'outside' } as const;
    const found = got(squareToRound({ ...typed, sheet }));
    // Upright walls: a square of 118 up to a circle of 118.
    expect(found).toEqual(got(squareToRound({ ...typed, wideMm: 118, deepMm: 118, roundMm: 118 })));
    expect(squareToRound({ ...typed, sheet: { ...sheet, thicknessMm: 70 } })).toMatchObject({
      problems: [{ code: 'shape-figures', about: ['thicknessMm'] }],
    });
  });
});

describe('a profile is the fewest lines and arcs', () => {
  test('two lines that meet at a flat kink are two lines, and nothing rises above the straight edge', () => {
    const found = got(
      profileOf(
        [0, 0, 0, 20, 40, 60].map((drop, i) => [100 * i, drop] as const),
        0.3,
      ),
    );
    expect(found.arcs).toEqual([
      { a: [0, 0], b: [200, 0], bulge: 0 },
      { a: [200, 0], b: [500, -60], bulge: 0 },
    ]);
  });

  test('readings of straight runs give no more lines than there are, and the same count from either end and turned over', () => {
    const runs = fc.array(fc.tuple(fc.integer({ min: 2, max: 5 }), spread(-0.6, 0.6)), {
      minLength: 1,
      maxLength: 5,
    });
    fc.assert(
      fc.property(runs, (all) => {
        const bent = all.every(
          ([, slope], i) => i === 0 || Math.abs(slope - all[i - 1]![1]) > 0.08,
        );
        fc.pre(bent);
        const at: [number, number][] = [[0, 0]];
        for (const [stations, slope] of all)
          for (let k = 0; k < stations; k++) {
            const [x, y] = at[at.length - 1]!;
            at.push([x + 50, y + 50 * slope]);
          }
        const count = (list: [number, number][]) => got(profileOf(list, 0.3)).arcs.length;
        expect(count(at)).toBeLessThanOrEqual(all.length);
        expect(count(at.map(([x, d]) => [-x, d]))).toBe(count(at));
        expect(count(at.map(([x, d]) => [x, -d]))).toBe(count(at));
      }),
    );
  });

  test('any readings have as many lines and arcs walked from one end as from the other', () => {
    fc.assert(
      fc.property(fc.array(spread(-20, 20), { minLength: 3, maxLength: 14 }), (drops) => {
        const at = drops.map((drop, i): [number, number] => [40 * i, drop]);
        const there = got(profileOf(at, 0.3));
        const back = got(
          profileOf(
            at.map(([x, d]): [number, number] => [-x, d]),
            0.3,
          ),
        );
        expect(back.arcs.length).toBe(there.arcs.length);
        expect(there.worstMm).toBeLessThanOrEqual(0.3 + 1e-9);
      }),
    );
  });
});
