import DxfParser from 'dxf-parser';
import fc from 'fast-check';
import { SVGPathData } from 'svg-pathdata';
import type { Path } from '../measure/path';
import { area, box } from '../measure/path';
import type { Segment } from '../measure/segment';
import { arcOf, pointAt } from '../measure/segment';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import type { Layers } from '../sheet/layers';
import { toDxf } from './dxf';
import { svgPath, toSvg } from './svg';

/**
 * Files as other programs read them: dxf-parser and svg-pathdata, which know nothing of bulges or
 * of millimetres.
 */

const outline: fc.Arbitrary<Path> = fc
  .array(fc.record({ r: spread(60, 120), bulge: spread(-0.3, 1.2), bowed: fc.boolean() }), {
    minLength: 3,
    maxLength: 9,
  })
  .map((corners) => {
    const at = (i: number): Vec => {
      const a = (2 * Math.PI * (i % corners.length)) / corners.length;
      return [
        corners[i % corners.length]!.r * Math.cos(a),
        corners[i % corners.length]!.r * Math.sin(a),
      ];
    };
    return corners.map(({ bulge, bowed }, i): Segment => ({
      a: at(i),
      b: at(i + 1),
      bulge: bowed ? bulge : 0,
    }));
  });
const layersOf = (cut: Path, holes: Layers['holes'] = []): Layers => ({
  cut: [...cut],
  fold: [
    [
      [0, 0],
      [10, 5],
    ],
  ],
  brake: [
    [
      [1, 0],
      [11, 5],
    ],
  ],
  scribe: [],
  holes,
});

type Entity = {
  type: string;
  layer: string;
  vertices: { x: number; y: number; bulge?: number }[];
  shape?: boolean;
  center: { x: number; y: number };
  radius: number;
  startAngle: number;
  endAngle: number;
};
const entities = (layers: Layers) =>
  new DxfParser().parseSync(toDxf(layers))!.entities as unknown as Entity[];

test('DXF: the outline comes back as one closed loop, every side where it was, arcs through the same middle, holes as circles', () => {
  const holes = fc.array(fc.tuple(spread(-20, 20), spread(-20, 20), spread(2, 9)), {
    maxLength: 4,
  });
  fc.assert(
    fc.property(outline, holes, (path, list) => {
      const layers = layersOf(
        path,
        list.map(([x, y, diameterMm], i) => ({ id: `h${i}`, centre: [x, y] as Vec, diameterMm })),
      );
      const read = entities(layers);
      const cut = read.filter((e) => e.layer === 'CUT');
      // One closed loop: nothing for a cutter to join.
      expect(cut.map((e) => [e.type, e.shape, e.vertices.length])).toEqual([
        ['POLYLINE', true, path.length],
      ]);
      path.forEach((s, i) => {
        const { vertices } = cut[0]!;
        const [p, q] = [vertices[i]!, vertices[(i + 1) % vertices.length]!];
        expect(distance([p.x, p.y], s.a)).toBeLessThan(1e-5);
        expect(distance([q.x, q.y], s.b)).toBeLessThan(1e-5);
        // Bulge: the tangent of a quarter of the included angle, counter-clockwise positive (DXF
        // reference): its middle stands bulge × half the chord to the right of the chord.
        const bulge = p.bulge ?? 0;
        const middle: Vec = [
          (p.x + q.x + bulge * (q.y - p.y)) / 2,
          (p.y + q.y - bulge * (q.x - p.x)) / 2,
        ];
        expect(distance(middle, pointAt(s, 0.5))).toBeLessThan(1e-4);
      });
      const circles = read.filter((e) => e.layer === 'HOLE');
      expect(circles.map((e) => [e.type, e.center.x, e.center.y, 2 * e.radius])).toEqual(
        list.map(([x, y, d]) => [
          'CIRCLE',
          expect.closeTo(x, 5),
          expect.closeTo(y, 5),
          expect.closeTo(d, 5),
        ]),
      );
      expect(
        read.filter((e) => e.layer === 'FOLD' || e.layer === 'BRAKE').map((e) => e.type),
      ).toEqual(['LINE', 'LINE']);
    }),
  );
});

test('SVG: the path has the box and the radii of the outline, and encloses its area the right way up', () => {
  fc.assert(
    fc.property(outline, (path) => {
      const b = box(path);
      const d = svgPath(path, ([x, y]) => [x - b.minX, b.maxY - y]);
      const commands = new SVGPathData(d).toAbs().commands;
      const arcs = commands.filter((c) => c.type === SVGPathData.ARC);
      const bowed = path.filter((s) => s.bulge !== 0);
      expect(arcs.map((c) => ('rX' in c ? c.rX : 0))).toEqual(
        bowed.map((s) => expect.closeTo(arcOf(s).radius, 3)),
      );
      // Area of the reader's own curves: Béziers walked in small steps.
      let [px, py] = [0, 0];
      let doubled = 0;
      for (const c of new SVGPathData(d).toAbs().aToC().commands) {
        if (c.type === SVGPathData.MOVE_TO || c.type === SVGPathData.LINE_TO) {
          if (c.type === SVGPathData.LINE_TO) doubled += px * c.y - c.x * py;
          [px, py] = [c.x, c.y];
        } else if (c.type === SVGPathData.CURVE_TO) {
          const [sx, sy] = [px, py];
          for (let k = 1; k <= 60; k++) {
            const t = k / 60;
            const u = 1 - t;
            const x = u ** 3 * sx + 3 * u * u * t * c.x1 + 3 * u * t * t * c.x2 + t ** 3 * c.x;
            const y = u ** 3 * sy + 3 * u * u * t * c.y1 + 3 * u * t * t * c.y2 + t ** 3 * c.y;
            doubled += px * y - x * py;
            [px, py] = [x, y];
          }
        }
      }
      // y runs down on paper, so a counter-clockwise outline comes out clockwise there.
      expect(-doubled / 2 / area(path)).toBeCloseTo(1, 2);
      const svg = toSvg(layersOf(path), 'Test', 5);
      const [, w, h] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!.map(Number);
      expect(w).toBeCloseTo(b.maxX - b.minX + 10, 3);
      expect(h).toBeCloseTo(b.maxY - b.minY + 10, 3);
    }),
    { numRuns: 60 },
  );
});
