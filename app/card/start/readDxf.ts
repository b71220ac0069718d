import type { DxfParser as Parser } from 'dxf-parser';
import type { Drawn } from '#core/card/drawn';
import { arcRun, circleRun, curveThrough, halves } from '#core/card/drawn';
import type { Segment } from '#core/measure/segment';
import { line } from '#core/measure/segment';
import { splinePoints } from '#core/measure/spline';
import type { Vec } from '#core/measure/vector';
import type { Drawing, Unread } from './drawingFile';
import { CURVE_SHARE, MAX_THINGS, OUT_OF_SIGHT } from './drawingFile';

/**
 * Millimetres to one unit of a DXF, by its $INSUNITS (DXF Reference, header variables); of others
 * nothing is known.
 */
const DXF_UNITS: Record<number, number> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};

type Entity = {
  type: string;
  layer?: string;
  vertices?: { x: number; y: number; bulge?: number }[];
  shape?: boolean;
  center?: { x: number; y: number };
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  controlPoints?: { x: number; y: number }[];
  fitPoints?: { x: number; y: number }[];
  knotValues?: number[];
  degreeOfSplineCurve?: number;
  majorAxisEndPoint?: { x: number; y: number };
  axisRatio?: number;
  extrusionDirectionZ?: number;
  extrusionDirection?: { z: number };
  inPaperSpace?: boolean;
  visible?: boolean;
};

type Handler = InstanceType<Parameters<Parser['registerEntityHandler']>[0]>;

/** Reads circles and ellipses with the way their plane faces, which the library leaves out. */
const handlerOf = (name: 'CIRCLE' | 'ELLIPSE') =>
  class {
    ForEntityName = name;
    parseEntity(
      scanner: Parameters<Handler['parseEntity']>[0],
    ): ReturnType<Handler['parseEntity']> {
      const said = new Map<number, string | number | boolean>();
      for (let group = scanner.next(); group.code !== 0 && !scanner.isEOF(); group = scanner.next())
        said.set(group.code, group.value);
      const at = (code: number) => Number(said.get(code) ?? 0);
      const entity: Entity = {
        type: name,
        layer: String(said.get(8) ?? '0'),
        center: { x: at(10), y: at(20) },
        ...(name === 'CIRCLE'
          ? { radius: at(40) }
          : { majorAxisEndPoint: { x: at(11), y: at(21) }, axisRatio: at(40) }),
        ...(said.has(41) && { startAngle: at(41) }),
        ...(said.has(42) && { endAngle: at(42) }),
        ...(said.has(230) && { extrusionDirectionZ: at(230) }),
        inPaperSpace: at(67) !== 0,
        visible: at(60) === 0,
      };
      return entity as unknown as ReturnType<Handler['parseEntity']>;
    }
  };

/** Lines, arcs, circles, polylines with bulge, ellipses and splines of a DXF, by layer. */
export async function readDxf(text: string): Promise<Drawing | Unread> {
  const { default: DxfParser } = await import('dxf-parser');
  const parser = new DxfParser();
  for (const name of ['CIRCLE', 'ELLIPSE'] as const) parser.registerEntityHandler(handlerOf(name));
  const parsed = parser.parseSync(text);
  const layers = parsed?.tables?.layer?.layers ?? {};
  /**
   * What is not to be seen in the drawing is no part of it: on layers that are off or frozen, and
   * what is laid on a sheet round it.
   */
  const isShown = ({ layer = '0', visible, inPaperSpace }: Entity) =>
    visible !== false &&
    !inPaperSpace &&
    layers[layer]?.visible !== false &&
    !layers[layer]?.frozen;
  const all = (parsed?.entities ?? []) as unknown as Entity[];
  if (all.length === 0) return { wrong: 'There is nothing drawn in this file.' };
  const entities = all.filter(isShown);
  if (entities.length === 0) return { wrong: OUT_OF_SIGHT };
  if (entities.length > MAX_THINGS)
    return {
      wrong: `There are ${entities.length} things in this file: too many. Leave out what is not the piece.`,
    };
  const units = parsed?.header?.['$INSUNITS'];
  const places = entities.flatMap(
    (e) => e.vertices ?? (e.center ? [e.center] : (e.controlPoints ?? [])),
  );
  const every = reachOf(places.map(({ x, y }): Vec => [x, y])) * CURVE_SHARE || 0.1;
  const passedOver: string[] = [];
  const drawn = entities.flatMap((entity): Drawn[] => {
    const run = inTheDrawing(entity, every);
    if (run === null) passedOver.push(entity.type);
    if (!run || run.length === 0) return [];
    const isCurve = entity.type === 'SPLINE' || entity.type === 'ELLIPSE';
    return [{ layer: entity.layer ?? '0', run, ...(isCurve && { curve: run.map(() => true) }) }];
  });
  return {
    drawn,
    unitMm: typeof units === 'number' ? (DXF_UNITS[units] ?? null) : null,
    passedOver: [...new Set(passedOver)],
  };
}

/**
 * What is drawn in a plane of its own that faces away lies mirrored in x there (DXF Reference, the
 * arbitrary axis algorithm).
 */
function inTheDrawing(e: Entity, every: number): Segment[] | null {
  const run = runOf(e, every);
  if (!facesAway(e) || !run || !/^(ARC|CIRCLE|LWPOLYLINE|POLYLINE)$/.test(e.type)) return run;
  return run.map(({ a, b, bulge }) => ({ a: [-a[0], a[1]], b: [-b[0], b[1]], bulge: -bulge }));
}

const facesAway = (e: Entity) => (e.extrusionDirectionZ ?? e.extrusionDirection?.z ?? 1) < 0;

/** One entity as lines and arcs; null for a kind that is passed over. */
function runOf(e: Entity, every: number): Segment[] | null {
  const at = ({ x, y }: { x: number; y: number }): Vec => [x, y];
  switch (e.type) {
    case 'LINE':
      return e.vertices?.length === 2 ? [line(at(e.vertices[0]!), at(e.vertices[1]!))] : [];
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const v = e.vertices ?? [];
      const closed = e.shape === true;
      return v.slice(0, closed ? v.length : -1).flatMap((p, i): Segment[] => {
        const next = v[(i + 1) % v.length]!;
        return halves({ a: at(p), b: at(next), bulge: p.bulge ?? 0 });
      });
    }
    case 'CIRCLE':
      return e.center && e.radius ? circleRun(at(e.center), e.radius) : [];
    case 'ARC':
      return e.center && e.radius
        ? arcRun(at(e.center), e.radius, e.startAngle ?? 0, e.endAngle ?? 2 * Math.PI)
        : [];
    case 'SPLINE': {
      const control = (e.controlPoints ?? []).map(at);
      const points = splinePoints(
        { degree: e.degreeOfSplineCurve ?? 3, knots: e.knotValues ?? [], control },
        every * 4,
      );
      return curveThrough(points.length > 0 ? points : (e.fitPoints ?? []).map(at), every);
    }
    case 'ELLIPSE':
      return e.center && e.majorAxisEndPoint ? ellipseRun(e, every) : [];
    default:
      return null;
  }
}

function ellipseRun(e: Entity, every: number): Segment[] {
  // The minor axis stands square to the major one, seen from where its plane faces.
  const [major, ratio] = [e.majorAxisEndPoint!, (facesAway(e) ? -1 : 1) * (e.axisRatio ?? 1)];
  const from = e.startAngle ?? 0;
  let to = e.endAngle ?? 2 * Math.PI;
  while (to <= from) to += 2 * Math.PI;
  const points = Array.from({ length: 241 }, (_, i): Vec => {
    const t = from + ((to - from) * i) / 240;
    const [c, s] = [Math.cos(t), Math.sin(t) * ratio];
    return [e.center!.x + major.x * c - major.y * s, e.center!.y + major.y * c + major.x * s];
  });
  return curveThrough(points, every);
}

function reachOf(points: readonly Vec[]): number {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points)
    [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
  return points.length === 0 ? 0 : Math.hypot(x1 - x0, y1 - y0);
}
