import fc from 'fast-check';
import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { PerspectiveCamera, Vector3 } from 'three';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { homographyThrough, inverted, mapped } from './homography';
import { pictureScale } from './pictureScale';

/** A plane seen by a camera of three.js: mm to px. */
function camera(tiltDeg: number, aroundDeg: number): (p: Vec) => Vec {
  const one = new PerspectiveCamera(50, 4 / 3, 1, 1e5);
  const [tilt, around] = [(tiltDeg * Math.PI) / 180, (aroundDeg * Math.PI) / 180];
  one.position.set(
    2000 * Math.sin(tilt) * Math.cos(around),
    2000 * Math.sin(tilt) * Math.sin(around),
    2000 * Math.cos(tilt),
  );
  one.up.set(0, 1, 0);
  one.lookAt(0, 0, 0);
  one.updateMatrixWorld();
  one.updateProjectionMatrix();
  return ([x, y]) => {
    const seen = new Vector3(x, y, 0).project(one);
    return [(seen.x + 1) * 2000, (1 - seen.y) * 1500];
  };
}
const views = fc.record({
  tilt: fc.double({ min: 0, max: 45, noNaN: true }),
  around: fc.double({ min: 0, max: 360, noNaN: true }),
});
const places = fc.tuple(fc.integer({ min: -600, max: 600 }), fc.integer({ min: -400, max: 400 }));

test('a homography is that of a general singular value decomposition', () => {
  fc.assert(
    fc.property(
      views,
      fc.array(places, { minLength: 6, maxLength: 30 }),
      ({ tilt, around }, mm) => {
        const see = camera(tilt, around);
        const rough = mm.map((p, i): Vec => [
          see(p)[0] + Math.sin(7 * i),
          see(p)[1] + Math.cos(5 * i),
        ]);
        const found = homographyThrough(mm, rough);
        fc.pre(found !== null);
        // Hartley's normalising, then the right singular vector of the least singular value.
        const norm = (all: readonly Vec[]) => {
          const [x, y] = [0, 1].map((k) => all.reduce((s, p) => s + p[k]!, 0) / all.length) as [
            number,
            number,
          ];
          const k =
            Math.SQRT2 / (all.reduce((s, p) => s + Math.hypot(p[0] - x, p[1] - y), 0) / all.length);
          return new Matrix([
            [k, 0, -k * x],
            [0, k, -k * y],
            [0, 0, 1],
          ]);
        };
        const [s, t] = [norm(mm), norm(rough)];
        const taken = (m: Matrix, p: Vec) => m.mmul(Matrix.columnVector([...p, 1])).to1DArray();
        const rows = mm.flatMap((p, i) => {
          const [[x, y], [u, v]] = [taken(s, p), taken(t, rough[i]!)];
          return [
            [x!, y!, 1, 0, 0, 0, -u! * x!, -u! * y!, -u!],
            [0, 0, 0, x!, y!, 1, -v! * x!, -v! * y!, -v!],
          ];
        });
        const svd = new SingularValueDecomposition(new Matrix(rows), { autoTranspose: true });
        fc.pre(svd.diagonal[7]! > 1e-2 && svd.diagonal[8]! < svd.diagonal[7]! / 2);
        const h = Matrix.from1DArray(3, 3, svd.rightSingularVectors.getColumn(8));
        const { inverse } = {
          inverse: new Matrix([
            [1 / t.get(0, 0), 0, -t.get(0, 2) / t.get(0, 0)],
            [0, 1 / t.get(0, 0), -t.get(1, 2) / t.get(0, 0)],
            [0, 0, 1],
          ]),
        };
        const whole = inverse.mmul(h).mmul(s);
        const at: Vec = [30, -50];
        const [u, v, w] = taken(whole, at);
        expect(distance(mapped(found!, at), [u! / w!, v! / w!])).toBeLessThan(1e-3);
        expect(distance(mapped(inverted(found!)!, mapped(found!, at)), at)).toBeLessThan(1e-3);
      },
    ),
    { numRuns: 60 },
  );
});

const RECTANGLE: Vec[] = [
  [-450, -300],
  [450, -300],
  [450, 300],
  [-450, 300],
];

test('other distances on the plane of a rectangle of known sides, from anywhere', () => {
  fc.assert(
    fc.property(
      views,
      fc.array(fc.tuple(places, places), { minLength: 1, maxLength: 4 }),
      ({ tilt, around }, spans) => {
        fc.pre(spans.every(([a, b]) => distance(a, b) > 20));
        const see = camera(tilt, around);
        const corners = RECTANGLE.map(see);
        const found = pictureScale({
          known: [0, 1, 2, 3].map((i) => ({
            from: corners[i]!,
            to: corners[(i + 1) % 4]!,
            mm: i % 2 === 0 ? 900 : 600,
          })),
          square: [
            [corners[0]!, corners[1]!, corners[2]!],
            [corners[2]!, corners[3]!, corners[0]!],
          ],
          ask: spans.map(([a, b]) => ({ from: see(a), to: see(b) })),
          round: [
            [0, 1, 2, 3, 4, 5].map((k) => see([100 + 40 * Math.cos(k), -50 + 40 * Math.sin(k)])),
          ],
          uPx: 1,
        });
        if (!found.ok) throw new Error(JSON.stringify(found));
        expect(found).toMatchObject({ tilt: 'known', contradict: [] });
        found.asked.forEach(({ mm, uMm }, i) => {
          expect(mm).toBeCloseTo(distance(...spans[i]!), 2);
          expect(uMm).toBeGreaterThan(0);
        });
        expect(found.round[0]!.mm).toBeCloseTo(80, 2);
      },
    ),
    { numRuns: 60 },
  );
});

test('± are what many tries with a shaking hand scatter by, and grow away from what is known', () => {
  const see = camera(25, 70);
  let seed = 5;
  const chance = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  const gauss = () => Math.sqrt(-2 * Math.log(chance())) * Math.cos(2 * Math.PI * chance());
  const shaken = (p: Vec): Vec => [see(p)[0] + 2 * gauss(), see(p)[1] + 2 * gauss()];
  const spans: [Vec, Vec][] = [
    [
      [-100, 0],
      [100, 0],
    ],
    [
      [900, 450],
      [1100, 450],
    ],
  ];
  const tries = Array.from({ length: 200 }, () => {
    // Each side is pointed at for itself.
    const found = pictureScale({
      known: [0, 1, 2, 3].map((i) => ({
        from: shaken(RECTANGLE[i]!),
        to: shaken(RECTANGLE[(i + 1) % 4]!),
        mm: i % 2 === 0 ? 900 : 600,
        uMm: 0.01,
      })),
      square: [0, 1, 2, 3].map(
        (i) =>
          [
            shaken(RECTANGLE[i]!),
            shaken(RECTANGLE[(i + 1) % 4]!),
            shaken(RECTANGLE[(i + 2) % 4]!),
          ] as const,
      ),
      ask: spans.map(([a, b]) => ({ from: shaken(a), to: shaken(b) })),
      uPx: 2,
    });
    if (!found.ok) throw new Error();
    return found.asked;
  });
  const spread = (k: number) =>
    Math.sqrt(tries.reduce((s, one) => s + (one[k]!.mm - 200) ** 2, 0) / tries.length);
  const told = (k: number) =>
    Math.sqrt(tries.reduce((s, one) => s + one[k]!.uMm ** 2, 0) / tries.length);
  for (const k of [0, 1]) expect(told(k) / spread(k)).toBeGreaterThan(0.75);
  for (const k of [0, 1]) expect(told(k) / spread(k)).toBeLessThan(1.7);
  expect(told(1)).toBeGreaterThan(1.2 * told(0));
});

test('what contradicts is named, too little is refused, and two distances are told with the tilt in their ±', () => {
  const see = camera(20, 130);
  const at = (i: number) => see(RECTANGLE[i % 4]!);
  const sides = [0, 1, 2, 3].map((i) => ({
    from: at(i),
    to: at(i + 1),
    mm: i % 2 === 0 ? 900 : 600,
  }));
  const braces = [0, 1].map((i) => ({ from: at(i), to: at(i + 2), mm: Math.hypot(900, 600) }));
  const more = [
    { from: see([0, 0]), to: see([450, 300]), mm: Math.hypot(450, 300) },
    { from: see([0, 0]), to: see([0, 250]), mm: 250 },
  ];
  const ask = [{ from: see([-200, 100]), to: see([150, 100]) }];
  const wrong = [...sides, ...braces, ...more].map((one, i) =>
    i === 5 ? { ...one, mm: one.mm + 60 } : one,
  );
  const found = pictureScale({
    known: wrong,
    square: [
      [at(0), at(1), at(2)],
      [at(1), at(2), at(3)],
    ],
    ask,
    uPx: 1,
  });
  expect(found).toMatchObject({ ok: true, contradict: expect.arrayContaining([5]) });
  expect(pictureScale({ known: [sides[0]!], ask, uPx: 1 })).toMatchObject({
    ok: false,
    problems: [{ code: 'not-enough-known' }],
  });
  expect(pictureScale({ known: [], ask, uPx: 1 })).toMatchObject({
    ok: false,
    problems: [{ code: 'not-enough-known' }],
  });
  const two = pictureScale({ known: [sides[0]!, sides[1]!], ask, uPx: 1 });
  if (!two.ok) throw new Error();
  expect(two.tilt).toBe('assumed');
  expect(Math.abs(two.asked[0]!.mm - 350)).toBeLessThan(3 * two.asked[0]!.uMm);
  expect(two.asked[0]!.uMm).toBeGreaterThan(5);
});
