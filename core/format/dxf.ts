import { holePath } from '../card/holeForm';
import { degrees } from '../measure/angle';
import type { Segment } from '../measure/segment';
import { arcOf, isStraight } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import type { Layers } from '../sheet/layers';
import { layersBox } from '../sheet/layers';

/** Layer names with their DXF colour numbers. */
const LAYERS = { CUT: 7, FOLD: 5, BRAKE: 30, SCRIBE: 8, HOLE: 7 } as const;
type LayerName = keyof typeof LAYERS;

/** A run whose ends are nearer than this is closed, mm. */
const CLOSED_MM = 1e-3;

/** A bulge, a share, with as many places as keep an arc of 10 m to a thousandth of a millimetre. */
const bulgeSaid = (bulge: number): string => (Math.round(bulge * 1e9) / 1e9 + 0).toString();

const n = (value: number): string => (Math.round(value * 1e6) / 1e6 + 0).toString();

/**
 * The drawing as an ASCII DXF file of release 12 (AC1009), in millimetres: what is cut as closed
 * polylines with true arcs (bulges) and circles, so that a cutter has nothing to join; lines and arcs
 * on layers FOLD, BRAKE and SCRIBE; all on layers CUT, FOLD, BRAKE, SCRIBE and HOLE. Group codes as in the published DXF
 * reference of that release.
 */
export function toDxf(layers: Layers): string {
  const out: string[] = [];
  const put = (code: number, value: string | number) => out.push(String(code), String(value));
  const point = (code: number, [x, y]: Vec) => {
    put(code, n(x));
    put(code + 10, n(y));
    put(code + 20, 0);
  };
  const b = layersBox(layers);
  put(0, 'SECTION');
  put(2, 'HEADER');
  put(9, '$ACADVER');
  put(1, 'AC1009');
  put(9, '$INSUNITS');
  put(70, 4);
  put(9, '$EXTMIN');
  point(10, [b.minX, b.minY]);
  put(9, '$EXTMAX');
  point(10, [b.maxX, b.maxY]);
  put(0, 'ENDSEC');
  put(0, 'SECTION');
  put(2, 'TABLES');
  put(0, 'TABLE');
  put(2, 'LTYPE');
  put(70, 1);
  for (const [code, value] of [
    [0, 'LTYPE'],
    [2, 'CONTINUOUS'],
    [70, 0],
    [3, 'Solid line'],
    [72, 65],
    [73, 0],
    [40, 0],
  ] as const) {
    put(code, value);
  }
  put(0, 'ENDTAB');
  put(0, 'TABLE');
  put(2, 'LAYER');
  put(70, Object.keys(LAYERS).length);
  for (const [name, colour] of Object.entries(LAYERS)) {
    put(0, 'LAYER');
    put(2, name);
    put(70, 0);
    put(62, colour);
    put(6, 'CONTINUOUS');
  }
  put(0, 'ENDTAB');
  put(0, 'ENDSEC');
  put(0, 'SECTION');
  put(2, 'ENTITIES');
  const segment = (layer: LayerName, s: Segment) => {
    if (isStraight(s)) {
      put(0, 'LINE');
      put(8, layer);
      point(10, s.a);
      point(11, s.b);
      return;
    }
    const { centre, radius, start, sweep } = arcOf(s);
    const from = sweep > 0 ? start : start + sweep;
    const turn = (rad: number) => ((degrees(rad) % 360) + 360) % 360;
    put(0, 'ARC');
    put(8, layer);
    point(10, centre);
    put(40, n(radius));
    put(50, n(turn(from)));
    put(51, n(turn(from + Math.abs(sweep))));
  };
  /** A run of segments as one polyline; closed where it ends where it began. */
  const polyline = (layer: LayerName, path: readonly Segment[]) => {
    const [first, last] = [path[0], path[path.length - 1]];
    if (!first || !last) return;
    const closed = distance(first.a, last.b) < CLOSED_MM;
    put(0, 'POLYLINE');
    put(8, layer);
    put(66, 1);
    put(70, closed ? 1 : 0);
    point(10, [0, 0]);
    const vertex = (at: Vec, bulge: number) => {
      put(0, 'VERTEX');
      put(8, layer);
      point(10, at);
      put(42, bulgeSaid(bulge));
    };
    for (const s of path) vertex(s.a, s.bulge);
    if (!closed) vertex(last.b, 0);
    put(0, 'SEQEND');
    put(8, layer);
  };
  const straight =
    (layer: LayerName) =>
    ([a, c]: [Vec, Vec]) =>
      segment(layer, { a, b: c, bulge: 0 });
  polyline('CUT', layers.cut);
  layers.fold.forEach(straight('FOLD'));
  layers.brake.forEach(straight('BRAKE'));
  layers.scribe.forEach((s) => segment('SCRIBE', s));
  for (const hole of layers.holes) {
    const path = holePath(hole.centre, hole);
    if (path) {
      polyline('HOLE', path);
      continue;
    }
    put(0, 'CIRCLE');
    put(8, 'HOLE');
    point(10, hole.centre);
    put(40, n(hole.diameterMm / 2));
  }
  put(0, 'ENDSEC');
  put(0, 'EOF');
  return `${out.join('\r\n')}\r\n`;
}
