import fc from 'fast-check';
import type { Segment } from '#core/measure/segment';
import { flattened, nearest } from '#core/measure/segment';
import { spread } from '#core/measure/spread.arbitrary';
import type { Vec } from '#core/measure/vector';
import type { Drawing } from './drawingFile';
import { OUT_OF_SIGHT } from './drawingFile';
import { readDxf } from './readDxf';

type Pair = readonly [number, string | number];
const text = (pairs: readonly Pair[]) =>
  pairs.map(([code, value]) => `${code}\n${value}\n`).join('');
const dxf = (
  entities: readonly (readonly Pair[])[],
  layers: readonly (readonly Pair[])[] = [],
  units = 4,
) =>
  text([
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$INSUNITS'],
    [70, units],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'TABLES'],
    [0, 'TABLE'],
    [2, 'LAYER'],
    [70, layers.length],
    ...layers.flat(),
    [0, 'ENDTAB'],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...entities.flat(),
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ]);
async function read(source: string): Promise<Drawing> {
  const found = await readDxf(source);
  if ('wrong' in found) throw new Error(found.wrong);
  return found;
}

/**
 * Where a place of a plane of its own lies in the drawing, by the arbitrary axis algorithm of the
 * DXF Reference.
 */
function inWorld([x, y]: Vec, normal: readonly [number, number, number]): Vec {
  const cross = (p: readonly number[], q: readonly number[]) => [
    p[1]! * q[2]! - p[2]! * q[1]!,
    p[2]! * q[0]! - p[0]! * q[2]!,
    p[0]! * q[1]! - p[1]! * q[0]!,
  ];
  const small = Math.abs(normal[0]) < 1 / 64 && Math.abs(normal[1]) < 1 / 64;
  const across = cross(small ? [0, 1, 0] : [0, 0, 1], normal);
  const up = cross(normal, across);
  return [x * across[0]! + y * up[0]!, x * across[1]! + y * up[1]!];
}

const place = fc.tuple(spread(-90, 90), spread(-90, 90));
const off = (path: readonly Segment[], points: readonly Vec[]) =>
  Math.max(...points.map((p) => Math.min(...path.map((s) => nearest(s, p).distance))));
const same = (run: readonly Segment[], points: readonly Vec[]) => {
  const chain = points.slice(1).map((b, i): Segment => ({ a: points[i]!, b, bulge: 0 }));
  expect(off(run, points)).toBeLessThan(0.15);
  expect(
    off(
      chain,
      run.flatMap((s) => flattened(s, 0.01)),
    ),
  ).toBeLessThan(0.15);
};

test('arcs, circles, ellipses and polylines lie where they are drawn, their plane facing up or away', async () => {
  await fc.assert(
    fc.asyncProperty(
      place,
      spread(10, 60),
      spread(0.2, 1),
      spread(0, 360),
      spread(20, 340),
      fc.constantFrom(1, -1),
      fc.array(fc.tuple(place, spread(-1.5, 1.5)), { minLength: 2, maxLength: 6 }),
      async ([cx, cy], r, ratio, start, sweep, faces, vertices) => {
        const normal = [0, 0, faces] as const;
        const facing: Pair[] =
          faces < 0
            ? [
                [210, 0],
                [220, 0],
                [230, -1],
              ]
            : [];
        const rad = (deg: number) => (deg * Math.PI) / 180;
        const around = (from: number, by: number, point: (t: number) => Vec) =>
          Array.from({ length: 241 }, (_, i) => point(from + (by * i) / 240));
        const round = (t: number): Vec =>
          inWorld([cx + r * Math.cos(t), cy + r * Math.sin(t)], normal);
        const { drawn, unitMm } = await read(
          dxf([
            [
              [0, 'ARC'],
              [8, 'arc'],
              [10, cx],
              [20, cy],
              [40, r],
              [50, start],
              [51, (start + sweep) % 360],
              ...facing,
            ],
            [[0, 'CIRCLE'], [8, 'circle'], [10, cx], [20, cy], [40, r], ...facing],
            // An ellipse stands in the drawing itself; only which way round it is run goes by its
            // plane.
            [
              [0, 'ELLIPSE'],
              [8, 'ellipse'],
              [10, cx],
              [20, cy],
              [11, r],
              [21, r / 3],
              [40, ratio],
              [41, rad(start)],
              [42, rad(start + sweep)],
              ...facing,
            ],
            [
              [0, 'LWPOLYLINE'],
              [8, 'polyline'],
              [90, vertices.length],
              [70, 0],
              ...vertices.flatMap(([[x, y], bulge]): Pair[] => [
                [10, x],
                [20, y],
                [42, bulge],
              ]),
              ...facing,
            ],
          ]),
        );
        expect(unitMm).toBe(1);
        const on = (layer: string) =>
          drawn.filter((one) => one.layer === layer).flatMap(({ run }) => run);
        same(on('arc'), around(rad(start), rad(sweep), round));
        same(on('circle'), around(0, 2 * Math.PI, round));
        const minor: Vec = [(-faces * ratio * r) / 3, faces * ratio * r];
        same(
          on('ellipse'),
          around(rad(start), rad(sweep), (t) => [
            cx + r * Math.cos(t) + minor[0] * Math.sin(t),
            cy + (r / 3) * Math.cos(t) + minor[1] * Math.sin(t),
          ]),
        );
        const plain = vertices
          .slice(0, -1)
          .flatMap(([a, bulge], i) => flattened({ a, b: vertices[i + 1]![0], bulge }, 0.001));
        same(
          on('polyline'),
          [...plain, vertices.at(-1)![0]].map((p) => inWorld(p, normal)),
        );
      },
    ),
    { numRuns: 16 },
  );
});

test('what is not to be seen is no part of it: layers off or frozen, hidden things, and what lies on the sheet round the drawing', async () => {
  const line = (layer: string, more: readonly Pair[] = []): Pair[] => [
    [0, 'LINE'],
    [8, layer],
    [10, 0],
    [20, 0],
    [11, 50],
    [21, 10],
    ...more,
  ];
  const layer = (name: string, colour: number, flags: number): Pair[] => [
    [0, 'LAYER'],
    [2, name],
    [70, flags],
    [62, colour],
    [6, 'CONTINUOUS'],
  ];
  const all = [
    line('part'),
    line('off'),
    line('frozen'),
    line('part', [[60, 1]]),
    line('part', [[67, 1]]),
    [
      [0, 'CIRCLE'],
      [8, 'part'],
      [67, 1],
      [10, 0],
      [20, 0],
      [40, 5],
    ] as Pair[],
  ];
  const layers = [layer('part', 7, 0), layer('off', -7, 0), layer('frozen', 7, 1)];
  const found = await read(dxf(all, layers, 1));
  expect(found).toMatchObject({ unitMm: 25.4, passedOver: [] });
  expect(found.drawn.map((one) => one.layer)).toEqual(['part']);
  expect(await readDxf(dxf(all.slice(1, 3), layers))).toEqual({ wrong: OUT_OF_SIGHT });
  expect(await readDxf(dxf([]))).toEqual({ wrong: 'There is nothing drawn in this file.' });
});

test('a polyline of any length is read', async () => {
  const vertices = Array.from({ length: 150_000 }, (_, i): Pair[] => [
    [10, Math.cos(i / 20_000) * 300],
    [20, Math.sin(i / 20_000) * 300],
  ]);
  const { drawn } = await read(
    dxf([[[0, 'LWPOLYLINE'], [8, 'long'], [90, vertices.length], [70, 0], ...vertices.flat()]]),
  );
  expect(drawn[0]!.run.length).toBe(149_999);
});
