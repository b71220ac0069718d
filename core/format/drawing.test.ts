import DxfParser from 'dxf-parser';
import { SVGPathData } from 'svg-pathdata';
import { develop } from '../blank/fold/develop';
import { PlainCardSchema, fromPlain } from '../blank/fold/plain';
import { reshapeSide, setEdge } from '../card/edit';
import { area } from '../measure/path';
import { arcOf } from '../measure/segment';
import type { Layers } from '../sheet/layers';
import { layersBox, layersOfBlank } from '../sheet/layers';
import { foldCsv } from './csv';
import { toDxf } from './dxf';
import { toSvg } from './svg';

/** A plate with a rounded end, a fold, a lap and a hole: something of everything. */
function example(): { layers: Layers; csv: string } {
  const read = fromPlain(
    PlainCardSchema.parse({
      thicknessMm: 1,
      rule: { kind: 'din6935' },
      outline: [
        [0, 0],
        [160, 0],
        [160, 60],
        [0, 60],
      ],
      folds: [{ from: [40, 0], to: [40, 60], angleDeg: 90, radiusMm: 1.6 }],
      holes: [{ at: [120, 30], diameterMm: 12 }],
      base: [100, 30],
    }),
  );
  if (!read.ok) throw new Error('plain card refused');
  let doc = reshapeSide(read.doc, read.doc.sides[1]!.id, 0.5);
  doc = setEdge(doc, doc.edges[0]!.id, { joint: { kind: 'lap', widthMm: 12 } });
  const found = develop(doc, read.sheet, read.practice);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return { layers: layersOfBlank(found.development), csv: foldCsv(found.development) };
}

test('DXF read back by an independent reader: layers, real arcs and circles, one closed cut outline of the same area', () => {
  const { layers } = example();
  const parsed = new DxfParser().parseSync(toDxf(layers))!;
  expect(parsed.header.$ACADVER).toBe('AC1009');
  expect(Object.keys(parsed.tables.layer.layers).sort()).toEqual([
    'BRAKE',
    'CUT',
    'FOLD',
    'HOLE',
    'SCRIBE',
  ]);
  const kinds = parsed.entities.map((e) => `${e.type} ${e.layer}`);
  expect(kinds.filter((k) => k === 'LINE FOLD')).toHaveLength(2);
  expect(kinds.filter((k) => k === 'LINE BRAKE')).toHaveLength(1);
  const circle = parsed.entities.find((e) => e.type === 'CIRCLE') as unknown as {
    radius: number;
    center: { x: number; y: number };
  };
  expect(circle).toMatchObject({ radius: 6, center: { x: layers.holes[0]!.centre[0], y: 30 } });

  // Area by the reader's own vertices: the polygon, and each arc's segment beyond its chord.
  type Loop = {
    type: string;
    layer: string;
    shape?: boolean;
    vertices: { x: number; y: number; bulge?: number }[];
  };
  const loops = (parsed.entities as unknown as Loop[]).filter(({ layer }) => layer === 'CUT');
  expect(loops.map(({ type, shape }) => [type, shape])).toEqual([['POLYLINE', true]]);
  let doubled = 0;
  loops[0]!.vertices.forEach((a, i, all) => {
    const b = all[(i + 1) % all.length]!;
    doubled += a.x * b.y - a.y * b.x;
    const sweep = 4 * Math.atan(a.bulge ?? 0);
    if (sweep === 0) return;
    const radius = Math.hypot(b.x - a.x, b.y - a.y) / 2 / Math.sin(sweep / 2);
    doubled += radius ** 2 * (sweep - Math.sin(sweep));
  });
  expect(doubled / 2).toBeCloseTo(area(layers.cut), 2);
});

test('SVG read back by an independent path reader: millimetres, the same box and the same arc', () => {
  const { layers } = example();
  const svg = toSvg(layers, 'Plate <1> & "co"', 5);
  const b = layersBox(layers);
  expect(svg).toContain(`width="${Math.round((b.maxX - b.minX + 10) * 1e4) / 1e4}mm"`);
  expect(svg).toContain('<title>Plate &lt;1&gt; &amp; &quot;co&quot;</title>');
  const path = new SVGPathData(/id="CUT"[\s\S]*?d="([^"]+)"/.exec(svg)![1]!);
  const arc = path.commands.find((c) => c.type === SVGPathData.ARC);
  const own = layers.cut.find((s) => s.bulge !== 0)!;
  expect(arc && 'rX' in arc && arc.rX).toBeCloseTo(arcOf(own).radius, 3);
  const bounds = path.toAbs().aToC().getBounds();
  expect([bounds.minX, bounds.minY, bounds.maxX, bounds.maxY]).toEqual(
    [5, 5, 5 + b.maxX - b.minX, 5 + b.maxY - b.minY].map((v) => expect.closeTo(v, 2)),
  );
});

test('the fold table has a heading and a row for each fold, with the brake line measured from an edge', () => {
  const rows = example().csv.trim().split('\r\n');
  expect(rows).toHaveLength(2);
  const head = rows[0]!.split(',');
  const row = Object.fromEntries(rows[1]!.split(',').map((value, i) => [head[i], value]));
  // DIN 6935 table, T 1, R 1.6: 2.1 mm off.
  expect(Number(row.deduction_mm)).toBeCloseTo(2.096, 3);
  expect(row).toMatchObject({
    fold: '1',
    angle_deg: '90',
    toward: 'face',
    card_made: 'outside-sharp',
  });
  expect(row.brake_from_edge).toMatch(/^[A-D]$/);
});
