import type { Drawn } from '#core/card/drawn';
import { arcRun, circleRun, curveThrough, halves } from '#core/card/drawn';
import type { Segment } from '#core/measure/segment';
import { line } from '#core/measure/segment';
import { splinePoints } from '#core/measure/spline';
import type { Vec } from '#core/measure/vector';
import type { Drawing, Unread } from './drawingFile';
import { CURVE_SHARE, MOST_THINGS } from './drawingFile';

/** Millimetres to one unit of a DXF, by its $INSUNITS; of others nothing is known. */
const DXF_UNITS: Record<number, number> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

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
};

/** Lines, arcs, circles, polylines with bulge, ellipses and splines of a DXF, by layer. */
export async function readDxf(text: string): Promise<Drawing | Unread> {
  const { default: DxfParser } = await import('dxf-parser');
  const parsed = new DxfParser().parseSync(text);
  const entities = (parsed?.entities ?? []) as unknown as Entity[];
  if (entities.length === 0) return { wrong: 'There is nothing drawn in this file.' };
  if (entities.length > MOST_THINGS) return { wrong: `There are ${entities.length} things in this file: too many. Leave out what is not the piece.` }; // prettier-ignore
  const units = parsed?.header?.['$INSUNITS'];
  const all = entities.flatMap((e) => e.vertices ?? (e.center ? [e.center] : (e.controlPoints ?? [])));
  const every = reachOf(all.map(({ x, y }): Vec => [x, y])) * CURVE_SHARE || 0.1;
  const passedOver: string[] = [];
  const drawn = entities.flatMap((entity): Drawn[] => {
    const run = runOf(entity, every);
    if (run === null) passedOver.push(entity.type);
    return run && run.length > 0 ? [{ layer: entity.layer ?? '0', run }] : [];
  });
  return { drawn, unitMm: typeof units === 'number' ? (DXF_UNITS[units] ?? null) : null, passedOver: [...new Set(passedOver)] }; // prettier-ignore
}

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
        if (p.x === next.x && p.y === next.y) return [];
        return halves({ a: at(p), b: at(next), bulge: p.bulge ?? 0 });
      });
    }
    case 'CIRCLE':
      return e.center && e.radius ? circleRun(at(e.center), e.radius) : [];
    case 'ARC':
      return e.center && e.radius ? arcRun(at(e.center), e.radius, e.startAngle ?? 0, e.endAngle ?? 2 * Math.PI) : [];
    case 'SPLINE': {
      const control = (e.controlPoints ?? []).map(at);
      const points = splinePoints({ degree: e.degreeOfSplineCurve ?? 3, knots: e.knotValues ?? [], control }, every * 4); // prettier-ignore
      return curveThrough(points.length > 0 ? points : (e.fitPoints ?? []).map(at), every);
    }
    case 'ELLIPSE':
      return e.center && e.majorAxisEndPoint ? ellipseRun(e, every) : [];
    default:
      return null;
  }
}

function ellipseRun(e: Entity, every: number): Segment[] {
  const [major, ratio] = [e.majorAxisEndPoint!, e.axisRatio ?? 1];
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

const reachOf = (points: readonly Vec[]): number => {
  if (points.length === 0) return 0;
  const [x, y] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return Math.hypot(Math.max(...x) - Math.min(...x), Math.max(...y) - Math.min(...y));
};
