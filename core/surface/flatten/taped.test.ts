import fc from 'fast-check';
import { leastOf } from '../../measure/leastOf';
import { line } from '../../measure/segment';
import { spread } from '../../measure/spread.arbitrary';
import { cholesky, solved } from '../../solve/symmetric';
import type { Vec } from '../../measure/vector';
import { distance } from '../../measure/vector';
import { runToCompletion } from '../../measure/runToCompletion';
import { delaunay } from '../mesh/delaunay';
import { discOf } from '../mesh/disc';
import { flatten } from './flatten';
import type { PaperWedge } from '../mesh/paperMesh';
import { paperMesh } from '../mesh/paperMesh';
import { tapedPanel } from './taped';

test('no point lies within the circle through the corners of a triangle, and the triangles fill the hull', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(spread(-80, 300), spread(0, 120)), { minLength: 3, maxLength: 60 }),
      (given) => {
        const places = given.filter((p, i) =>
          given.slice(0, i).every((q) => distance(p, q) > 1e-3),
        ) as Vec[];
        const found = delaunay(places);
        let size = 0;
        for (let t = 0; t < found.length; t += 3) {
          const [a, b, c] = [places[found[t]!]!, places[found[t + 1]!]!, places[found[t + 2]!]!];
          const doubled = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
          expect(doubled).toBeGreaterThan(0);
          size += doubled / 2;
          const [ab, ac] = [
            [b[0] - a[0], b[1] - a[1]],
            [c[0] - a[0], c[1] - a[1]],
          ] as const;
          const [bb, cc] = [ab[0] ** 2 + ab[1] ** 2, ac[0] ** 2 + ac[1] ** 2];
          const centre: Vec = [
            a[0] + (ac[1] * bb - ab[1] * cc) / (2 * doubled),
            a[1] + (ab[0] * cc - ac[0] * bb) / (2 * doubled),
          ];
          const radius = distance(centre, a);
          for (const p of places) expect(distance(p, centre)).toBeGreaterThan(radius * (1 - 1e-9));
        }
        // The hull by gift wrapping.
        const left = (a: Vec, b: Vec, p: Vec) =>
          (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
        let hull = 0;
        const first = places.reduce((low, p) =>
          p[0] < low[0] || (p[0] === low[0] && p[1] < low[1]) ? p : low,
        );
        for (let at = first, n = 0; n === 0 || (at !== first && n < 100); n++) {
          const from = at;
          at = places.reduce(
            (next, p) => (p !== from && (next === from || left(from, next, p) < 0) ? p : next),
            from,
          );
          hull += (from[0] * at[1] - at[0] * from[1]) / 2;
        }
        expect(Math.abs(size - hull)).toBeLessThan(1e-3 * hull + 1e-6);
      },
    ),
    { numRuns: 40 },
  );
});

test('the least of a bowl is where its equations say', () => {
  fc.assert(
    fc.property(
      fc.array(spread(-3, 3), { minLength: 30, maxLength: 30 }),
      fc.array(spread(-9, 9), { minLength: 5, maxLength: 5 }),
      (rows, wanted) => {
        // A = R·Rᵀ + 1, of six columns.
        const a = Float64Array.from({ length: 25 }, (_, i) => {
          const [r, c] = [Math.floor(i / 5), i % 5];
          return Array.from({ length: 6 }, (_x, k) => rows[6 * r + k]! * rows[6 * c + k]!).reduce(
            (s, x) => s + x,
            r === c ? 1 : 0,
          );
        });
        const of = (x: Float64Array, gradient: Float64Array) => {
          for (let r = 0; r < 5; r++)
            gradient[r] = x.reduce((sum, v, c) => sum + a[5 * r + c]! * v, -wanted[r]!);
          return x.reduce((sum, v, r) => sum + v * (gradient[r]! - wanted[r]!), 0) / 2;
        };
        const { x } = runToCompletion(
          leastOf(of, new Float64Array(5), { most: 400, enough: 1e-14 }),
        );
        const exact = solved(cholesky(a, 5)!, 5, wanted);
        x.forEach((v, i) =>
          expect(Math.abs(v - exact[i]!)).toBeLessThan(1e-4 * (1 + Math.abs(exact[i]!))),
        );
      },
    ),
    { numRuns: 25 },
  );
});

/** Rectangular paper with wedges in from its long edges. */
const papers = fc
  .record({
    wide: spread(200, 420),
    high: spread(140, 260),
    kind: fc.constantFrom('tuck' as const, 'slit' as const),
    low: fc.array(
      fc.record({ share: spread(0.2, 0.8), width: spread(6, 24), deep: spread(0.2, 0.45) }),
      { minLength: 1, maxLength: 1 },
    ),
    high2: fc.array(
      fc.record({ share: spread(0.2, 0.8), width: spread(6, 24), deep: spread(0.2, 0.45) }),
      { maxLength: 1 },
    ),
  })
  .map(({ wide, high, kind, low, high2 }) => {
    const [a, b, c, d]: Vec[] = [
      [0, 0],
      [wide, 0],
      [wide, high],
      [0, high],
    ];
    const wedges: PaperWedge[] = [
      ...low.map(({ share, width, deep }, i) => ({
        id: `l${i}`,
        kind,
        atMm: share * wide,
        widthMm: width,
        point: [share * wide, deep * high] as Vec,
      })),
      ...high2.map(({ share, width, deep }, i) => ({
        id: `h${i}`,
        kind,
        atMm: wide + high + share * wide,
        widthMm: width,
        point: [wide - share * wide, high - deep * high] as Vec,
      })),
    ];
    return {
      outline: [line(a!, b!), line(b!, c!), line(c!, d!), line(d!, a!)],
      wedges,
      kind,
      areaMm2: wide * high,
    };
  });

test('paper taped shut turns by the angles of its wedges, and nowhere else', () => {
  fc.assert(
    fc.property(papers, ({ outline, wedges }) => {
      const found = paperMesh(outline, wedges, 500);
      if (!found.ok) throw new Error(found.problems[0]!.code);
      const { flat, triangles, long } = found.paper;
      const disc = discOf({
        vertices: Float64Array.from({ length: (flat.length / 2) * 3 }, (_, i) =>
          i % 3 === 2 ? 0 : flat[2 * Math.floor(i / 3) + (i % 3)]!,
        ),
        triangles,
      });
      if (!disc.ok) throw new Error(disc.problems[0]!.code);
      const turned = new Float64Array(flat.length / 2).fill(2 * Math.PI);
      for (let t = 0; t < triangles.length; t += 3)
        for (let k = 0; k < 3; k++) {
          const [a, b, o] = [long[t + k]!, long[t + ((k + 2) % 3)]!, long[t + ((k + 1) % 3)]!];
          turned[triangles[t + k]!]! -= Math.acos(
            Math.max(-1, Math.min(1, (a * a + b * b - o * o) / (2 * a * b))),
          );
        }
      const rim = new Set(disc.disc.rim);
      const inside = [...turned.keys()].filter((v) => !rim.has(v));
      const total = inside.reduce((sum, v) => sum + turned[v]!, 0);
      const wanted = wedges.reduce((sum, { kind, widthMm, point: [, y], atMm }) => {
        const deep = atMm < outline[0]!.b[0] ? y : outline[1]!.b[1] - y;
        // A tuck is as deep as its point is in from the outline; the two sides of a slit are as
        // long as the cut is.
        return (
          sum +
          (kind === 'tuck' ? 2 * Math.atan2(widthMm / 2, deep) : -2 * Math.asin(widthMm / 2 / deep))
        );
      }, 0);
      // A slit is taped shut a little before it runs out.
      expect(Math.abs(total - wanted)).toBeLessThan(0.03 * Math.abs(wanted) + 1e-9);
    }),
    { numRuns: 16 },
  );
});

test('gathered again where it was tucked, or stretched where it was slit, a taped panel is the paper it was', () => {
  fc.assert(
    fc.property(papers, ({ outline, wedges, kind, areaMm2 }) => {
      const found = runToCompletion(tapedPanel(outline, wedges, 700));
      if (!found.ok) throw new Error(found.problems[0]!.code);
      const disc = discOf(found.mesh);
      if (!disc.ok) throw new Error(disc.problems[0]!.code);
      const laid = flatten(disc.disc, kind === 'tuck' ? 1 : 0);
      if (!laid.ok) throw new Error('not flat');
      const way = kind === 'tuck' ? 1 : -1;
      const width = wedges.reduce((sum, { widthMm }) => sum + widthMm, 0);
      const paper = outline.reduce((sum, { a, b }) => sum + distance(a, b), 0);
      const { rim, mesh } = disc.disc;
      const round = (of: Float64Array, dims: number) =>
        rim.reduce(
          (sum, v, i) =>
            sum +
            Math.hypot(
              ...Array.from(
                { length: dims },
                (_, k) => of[dims * v + k]! - of[dims * rim[(i + 1) % rim.length]! + k]!,
              ),
            ),
          0,
        );
      // Round the panel it is shorter by the tucks, or longer by the slits; round the blank as long
      // as round the paper.
      expect(Math.abs(round(mesh.vertices, 3) - (paper - way * width))).toBeLessThan(0.25 * width);
      expect(Math.abs(round(laid.flat, 2) - paper)).toBeLessThan(0.45 * width);
      expect(found.stretched).toBeLessThan(0.03);
      expect(found.offMm).toBeLessThan(0.1 * Math.sqrt(areaMm2));
    }),
    { numRuns: 8 },
  );
}, 60_000);

test('wedges that cross, run out of the paper or are none are told', () => {
  const outline = [
    line([0, 0], [300, 0]),
    line([300, 0], [300, 200]),
    line([300, 200], [0, 200]),
    line([0, 200], [0, 0]),
  ];
  const wedge = (id: string, atMm: number, point: Vec): PaperWedge => ({
    id,
    kind: 'tuck',
    atMm,
    widthMm: 10,
    point,
  });
  const of = (...wedges: PaperWedge[]) => runToCompletion(tapedPanel(outline, wedges, 300));
  expect(of()).toMatchObject({ ok: false, problems: [{ code: 'taped-flat' }] });
  expect(of(wedge('a', 100, [180, 80]), wedge('b', 160, [90, 80]))).toMatchObject({
    ok: false,
    problems: [{ code: 'taped-cross', about: ['a', 'b'] }],
  });
  expect(of(wedge('a', 100, [100, 240]))).toMatchObject({
    ok: false,
    problems: [{ code: 'taped-cross', about: ['a'] }],
  });
});
