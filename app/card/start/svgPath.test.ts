import fc from 'fast-check';
import { SVGPathData } from 'svg-pathdata';
import { area } from '#core/measure/path';
import type { Segment } from '#core/measure/segment';
import { flattened, nearest } from '#core/measure/segment';
import { spread } from '#core/measure/spread.arbitrary';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import type { Matrix } from './svgPath';
import { runsOfPath, shapePath, svgLength } from './svgPath';

const STILL: Matrix = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
const EVERY = 0.02;
const points = (run: readonly Segment[]): Vec[] => [
  ...run.flatMap((s) => flattened(s, 0.005)),
  run.at(-1)!.b,
];
const apart = (path: readonly Segment[], at: readonly Vec[]) =>
  Math.max(...at.map((p) => Math.min(...path.map((s) => nearest(s, p).distance))));

/**
 * The same path by the library's own reckoning: arcs as Bézier curves, those as many short
 * straights; y turned up.
 */
function byBezier(d: string, m: Matrix): Vec[] {
  const { commands } = new SVGPathData(d).toAbs().normalizeHVZ(false).normalizeST().aToC();
  const [found, put]: [Vec[], (x: number, y: number) => Vec] = [
    [],
    (x, y) => [m.a * x + m.c * y + m.e, -(m.b * x + m.d * y + m.f)],
  ];
  let [x0, y0] = [0, 0];
  for (const c of commands) {
    if (c.type === SVGPathData.CLOSE_PATH) continue;
    const { x, y, x1 = 0, y1 = 0, x2 = 0, y2 = 0 } = c as unknown as Record<string, number>;
    const steps = c.type === SVGPathData.MOVE_TO ? 0 : 60;
    for (let i = 1; i <= steps; i++) {
      const [t, u] = [i / steps, 1 - i / steps];
      const mixed = (p: number, q: number, r: number, s: number) =>
        c.type === SVGPathData.LINE_TO
          ? p + (s - p) * t
          : c.type === SVGPathData.QUAD_TO
            ? u * u * p + 2 * u * t * q + t * t * s
            : u ** 3 * p + 3 * u * u * t * q + 3 * u * t * t * r + t ** 3 * s;
      found.push(put(mixed(x0, x1, x2, x!), mixed(y0, y1, y2, y!)));
    }
    [x0, y0] = [x!, y!];
  }
  return found;
}

const at = fc.tuple(spread(-80, 80), spread(-80, 80)).map(([x, y]) => `${x} ${y}`);
const leg = fc.oneof(
  at.map((p) => `L${p}`),
  fc.tuple(at, at, at).map(([p, q, r]) => `C${p} ${q} ${r}`),
  fc.tuple(at, at).map(([p, q]) => `Q${p} ${q}`),
  fc.tuple(at, at).map(([p, q]) => `S${p} ${q}`),
  at.map((p) => `T${p}`),
  spread(-60, 60).map((x) => `h${x}`),
  spread(-60, 60).map((y) => `V${y}`),
  fc
    .tuple(
      spread(5, 90),
      spread(5, 90),
      fc.boolean(),
      spread(-90, 90),
      fc.boolean(),
      fc.boolean(),
      at,
    )
    .map(
      ([rx, ry, round, turn, large, sweep, p]) =>
        `A${rx} ${round ? rx : ry} ${turn} ${Number(large)} ${Number(sweep)} ${p}`,
    ),
);
const paths = fc
  .tuple(at, fc.array(leg, { minLength: 1, maxLength: 5 }))
  .map(([start, legs]) => `M${start}${legs.join('')}`);
const matrices = fc
  .tuple(
    spread(-180, 180),
    spread(0.4, 2),
    spread(0.4, 2),
    spread(-0.5, 0.5),
    spread(-50, 50),
    spread(-50, 50),
    fc.boolean(),
  )
  .map(([turn, sx, sy, skew, e, f, over]): Matrix => {
    const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
    const way = over ? -1 : 1;
    return {
      a: way * sx * cos,
      b: way * sx * sin,
      c: sy * (skew * cos - sin),
      d: sy * (skew * sin + cos),
      e,
      f,
    };
  });

test('any path, turned, stretched, leaned and mirrored, is where the library’s Bézier curves run, and joins end to end', () => {
  fc.assert(
    fc.property(paths, fc.oneof(fc.constant(STILL), matrices), (d, m) => {
      const run = runsOfPath(d, m, EVERY).flat();
      run.forEach((s, i) => i > 0 && expect(distance(s.a, run[i - 1]!.b)).toBeLessThan(1e-6));
      const wanted = byBezier(d, m);
      // Bézier curves follow a quarter of a circle to 3 in 10 000; curves are followed within the
      // tolerance.
      const close = EVERY + 0.1;
      expect(apart(run, wanted)).toBeLessThan(close);
      const chain = wanted.slice(1).map((b, i): Segment => ({ a: wanted[i]!, b, bulge: 0 }));
      const [first] = points(run);
      expect(apart([{ a: first!, b: wanted[0]!, bulge: 0 }, ...chain], points(run))).toBeLessThan(
        close,
      );
    }),
    { numRuns: 50 },
  );
});

test('circles, rounded rectangles and polygons have the areas they should, whatever unit they are written in', () => {
  fc.assert(
    fc.property(
      spread(2, 60),
      spread(2, 60),
      spread(-50, 50),
      spread(0, 1),
      fc.constantFrom(['', 1], ['px', 1], ['mm', 96 / 25.4], ['in', 96], ['pt', 4 / 3]),
      (w, h, x, share, [unit, px]) => {
        const of = (said: Record<string, number | string>) => (name: string) =>
          name in said ? `${said[name]}${typeof said[name] === 'number' ? unit : ''}` : null;
        const path = (tag: string, said: Record<string, number | string>) =>
          runsOfPath(shapePath(tag, of(said))!, STILL, EVERY / 4).flat();
        const k = Number(px) ** 2;
        const within = (value: number, wanted: number) =>
          expect(Math.abs(value) / wanted).toBeCloseTo(1, 2);
        within(area(path('circle', { cx: x, cy: x, r: w })), Math.PI * w * w * k);
        within(area(path('ellipse', { cx: x, cy: x, rx: w, ry: h })), Math.PI * w * h * k);
        const r = (share * Math.min(w, h)) / 2;
        within(
          area(path('rect', { x, y: x, width: w, height: h, ...(r > 0.1 && { rx: r }) })),
          (w * h - (r > 0.1 ? (4 - Math.PI) * r * r : 0)) * k,
        );
        within(area(path('polygon', { points: `0,0 ${w},0 ${w} ${h} 0,${h}` })), w * h);
      },
    ),
    { numRuns: 30 },
  );
  expect(shapePath('rect', () => null)).toBeNull();
  expect(shapePath('circle', (name) => (name === 'r' ? '-3' : null))).toBeNull();
});

test('what draws nothing is left out; what cannot be read says where', () => {
  // An arc that ends where it begins is none, one without a radius is a straight line (SVG 1.1,
  // F.6.2).
  expect(runsOfPath('M0 0A5 5 0 1 1 0 0A5 8 10 1 0 0 0L10 0', STILL, EVERY)).toEqual([
    [{ a: [0, -0], b: [10, -0], bulge: 0 }],
  ]);
  const straight = runsOfPath('M0 0A0 9 0 1 1 10 0', STILL, EVERY).flat();
  expect(straight).toMatchObject([{ b: [10, -0], bulge: 0 }]);
  // Too small a radius grows until it reaches (F.6.6): half a circle.
  expect(Math.abs(area([...runsOfPath('M0 0A1 1 0 0 1 10 0Z', STILL, EVERY).flat()]))).toBeCloseTo(
    (Math.PI * 25) / 2,
    3,
  );
  expect(runsOfPath('M3 4', STILL, EVERY)).toEqual([]);
  for (const broken of ['M0 0 L 5 x', 'L 5 5', 'M0 0 A 5 5 0 2 1 9 9'])
    expect(() => runsOfPath(broken, STILL, EVERY)).toThrow(
      /^A path in it cannot be read .*it begins “/,
    );
  expect([null, '12', '-1.5mm', '1e2px', '50%', 'wide', ''].map(svgLength)).toEqual([
    0,
    12,
    (-1.5 * 96) / 25.4,
    100,
    null,
    null,
    null,
  ]);
});
