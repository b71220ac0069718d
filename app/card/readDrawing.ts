import type { Drawn } from '#core/card/drawn';
import { parsePoints } from '#core/card/legs';
import { arcRun, circleRun, curveThrough } from '#core/card/drawn';
import type { Segment } from '#core/measure/segment';
import { line } from '#core/measure/segment';
import { splinePoints } from '#core/measure/spline';
import type { Vec } from '#core/measure/vector';
import { problemSentence } from '../frame/sentences';

/** What a drawing file holds, in its own units; how long one is, mm, where the file says so; what of it cannot be read here. */
export type Drawing = { drawn: Drawn[]; unitMm: number | null; passedOver: string[] };
/** Or what is wrong with it and where. */
export type Unread = { wrong: string };

/** Curves become lines and arcs within this share of how large the whole drawing is. */
export const CURVE_SHARE = 1 / 4000;
const MOST_THINGS = 20_000;

/** Reads DXF or SVG by what is in it; the libraries are loaded when they are wanted. */
export async function readDrawing(name: string, text: string): Promise<Drawing | Unread> {
  const start = text.slice(0, 2000);
  try {
    if (/\.svg$/i.test(name) || /<svg[\s>]/i.test(start)) return await readSvg(text);
    if (/\.(csv|tsv|txt)$/i.test(name)) return readTable(text);
    if (/\.dxf$/i.test(name) || /^\s*0\s+SECTION/m.test(start)) return await readDxf(text);
  } catch (error) {
    return { wrong: error instanceof Error ? error.message : 'The file cannot be read.' };
  }
  return {
    wrong: 'This is no DXF and no SVG. Save the drawing as one of them, or its points as CSV.',
  };
}

/** A table of points, across and up, one a line: the outline round them in their order. */
function readTable(text: string): Drawing | Unread {
  // Bare figures are taken as they are; how large they are is asked.
  const read = parsePoints(text, 'mm');
  if (!read.ok) return { wrong: problemSentence(read.problems[0]!, null, String) };
  const at = read.points;
  if (at.length < 3) return { wrong: 'It takes three points at least.' };
  if (at.length > MOST_THINGS) return { wrong: `There are ${at.length} points in this file: too many.` };
  const closed = Math.hypot(at[0]![0] - at.at(-1)![0], at[0]![1] - at.at(-1)![1]) < 1e-9 ? at.slice(0, -1) : at;
  const run = closed.map((a, i) => line(a, closed[(i + 1) % closed.length]!));
  return { drawn: [{ layer: 'Points', run }], unitMm: null, passedOver: [] };
}

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

async function readDxf(text: string): Promise<Drawing | Unread> {
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

/** More than half a circle as two. */
function halves(s: Segment): Segment[] {
  if (Math.abs(s.bulge) <= 1) return [s];
  const [dx, dy] = [s.b[0] - s.a[0], s.b[1] - s.a[1]];
  const middle: Vec = [(s.a[0] + s.b[0] + dy * s.bulge) / 2, (s.a[1] + s.b[1] - dx * s.bulge) / 2];
  const bulge = Math.tan(Math.atan(s.bulge) / 2);
  return [
    { a: s.a, b: middle, bulge },
    { a: middle, b: s.b, bulge },
  ];
}

const reachOf = (points: readonly Vec[]): number => {
  if (points.length === 0) return 0;
  const [x, y] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return Math.hypot(Math.max(...x) - Math.min(...x), Math.max(...y) - Math.min(...y));
};

/** CSS lengths to millimetres. */
const CSS_MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6 };

async function readSvg(text: string): Promise<Drawing | Unread> {
  const { SVGPathData } = await import('svg-pathdata');
  const parsed = new DOMParser().parseFromString(text, 'image/svg+xml');
  const broken = parsed.querySelector('parsererror');
  if (broken) return { wrong: `The SVG is broken: ${broken.textContent?.split('\n')[1] ?? 'it does not end as it should'}.` };
  const root = parsed.documentElement as unknown as SVGSVGElement;
  const view = (root.getAttribute('viewBox') ?? '').trim().split(/[\s,]+/).map(Number);
  const wide = /^([\d.]+)(mm|cm|in|pt|pc)$/.exec((root.getAttribute('width') ?? '').trim());
  const unitMm = wide && view.length === 4 && view[2]! > 0 ? (Number(wide[1]) * CSS_MM[wide[2]!]!) / view[2]! : null;
  const shapes = [...root.querySelectorAll<SVGGraphicsElement>('path, rect, circle, ellipse, line, polyline, polygon')].filter((one) => !one.closest('defs, clipPath, mask, symbol')); // prettier-ignore
  if (shapes.length === 0) return { wrong: 'There is nothing drawn in this file.' };
  if (shapes.length > MOST_THINGS) return { wrong: `There are ${shapes.length} things in this file: too many. Leave out what is not the piece.` }; // prettier-ignore
  const passedOver = [...new Set([...root.querySelectorAll('text, image, use')].map(({ tagName }) => tagName))];
  const reach = view.length === 4 && view.every(Number.isFinite) ? Math.hypot(view[2]!, view[3]!) : 400;
  const drawn = shapes.flatMap((shape): Drawn[] => {
    const d = pathOf(shape);
    if (!d) return [];
    const m = matrixOf(shape, root);
    const data = new SVGPathData(d).toAbs().normalizeHVZ(false).normalizeST();
    return runsOf(data.matrix(m.a, m.b, m.c, m.d, m.e, m.f).commands as Command[], SVGPathData, reach * CURVE_SHARE).map((run) => ({ layer: layerOf(shape), run })); // prettier-ignore
  });
  return { drawn, unitMm, passedOver };
} // prettier-ignore

type Command = { type: number; x?: number; y?: number; x1?: number; y1?: number; x2?: number; y2?: number; rX?: number; rY?: number; xRot?: number; lArcFlag?: 0 | 1; sweepFlag?: 0 | 1 }; // prettier-ignore

/** Runs of a path, y turned up. */
function runsOf(commands: readonly Command[], kinds: { MOVE_TO: number; LINE_TO: number; CURVE_TO: number; QUAD_TO: number; ARC: number; CLOSE_PATH: number }, every: number): Segment[][] {
  const runs: Segment[][] = [];
  let run: Segment[] = [];
  let [start, at]: [Vec, Vec] = [[0, 0], [0, 0]];
  const end = () => {
    if (run.length > 0) runs.push(run);
    run = [];
  };
  const up = (x: number, y: number): Vec => [x, -y];
  const to = (p: Vec) => {
    if (p[0] !== at[0] || p[1] !== at[1]) run.push(line(at, p));
    at = p;
  };
  for (const c of commands) {
    if (c.type === kinds.CLOSE_PATH) {
      to(start);
      end();
    } else if (c.type === kinds.MOVE_TO) {
      end();
      start = at = up(c.x!, c.y!);
    } else if (c.type === kinds.LINE_TO) to(up(c.x!, c.y!));
    else {
      const goal = up(c.x!, c.y!);
      if (c.type === kinds.ARC && Math.abs(c.rX! - c.rY!) < 1e-6 * c.rX!) run.push(...halves(arcTo(at, goal, c)));
      else run.push(...curveThrough(sampled(at, goal, c, kinds), every));
      at = goal;
    }
  }
  end();
  return runs;
} // prettier-ignore

/** A circular arc of an SVG path, y turned up: the sweep flag says clockwise there. */
function arcTo(a: Vec, b: Vec, c: Command): Segment {
  const half = Math.hypot(b[0] - a[0], b[1] - a[1]) / 2;
  const angle = 2 * Math.asin(Math.min(1, half / c.rX!));
  const sweep = c.lArcFlag ? 2 * Math.PI - angle : angle;
  return { a, b, bulge: (c.sweepFlag ? -1 : 1) * Math.tan(sweep / 4) };
}

const SAMPLES = 96;
function sampled(a: Vec, b: Vec, c: Command, kinds: { CURVE_TO: number; QUAD_TO: number; ARC: number }): Vec[] {
  if (c.type === kinds.ARC) return ellipticalArc(a, b, c);
  const control: Vec[] =
    c.type === kinds.QUAD_TO ? [a, [c.x1!, -c.y1!], b] : [a, [c.x1!, -c.y1!], [c.x2!, -c.y2!], b];
  const degree = control.length - 1;
  const knots = [...Array<number>(degree + 1).fill(0), ...Array<number>(degree + 1).fill(1)];
  const long = control.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - control[i]![0], p[1] - control[i]![1]), 0);
  return splinePoints({ degree, knots, control }, long / SAMPLES);
} // prettier-ignore

/** Points of an elliptical arc (SVG 1.1, appendix F.6), y turned up. */
function ellipticalArc(a: Vec, b: Vec, c: Command): Vec[] {
  const phi = (-(c.xRot ?? 0) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  let [rx, ry] = [Math.abs(c.rX!), Math.abs(c.rY!)];
  const [hx, hy] = [(a[0] - b[0]) / 2, (a[1] - b[1]) / 2];
  const [x, y] = [cos * hx + sin * hy, -sin * hx + cos * hy];
  const over = Math.sqrt((x / rx) ** 2 + (y / ry) ** 2);
  if (over > 1) [rx, ry] = [rx * over, ry * over];
  const ccw = !c.sweepFlag;
  const k = Math.sqrt(Math.max(0, (rx * rx * ry * ry - rx * rx * y * y - ry * ry * x * x) / (rx * rx * y * y + ry * ry * x * x))) * (!!c.lArcFlag === ccw ? -1 : 1);
  const [u, v] = [(k * rx * y) / ry, (-k * ry * x) / rx];
  const start = Math.atan2((y - v) / ry, (x - u) / rx);
  let sweep = Math.atan2((-y - v) / ry, (-x - u) / rx) - start;
  if (ccw && sweep < 0) sweep += 2 * Math.PI;
  if (!ccw && sweep > 0) sweep -= 2 * Math.PI;
  const [mx, my] = [cos * u - sin * v + (a[0] + b[0]) / 2, sin * u + cos * v + (a[1] + b[1]) / 2];
  return Array.from({ length: SAMPLES + 1 }, (_, i): Vec => {
    const t = start + (sweep * i) / SAMPLES;
    const [p, q] = [rx * Math.cos(t), ry * Math.sin(t)];
    return i === 0 ? a : i === SAMPLES ? b : [mx + cos * p - sin * q, my + sin * p + cos * q];
  });
} // prettier-ignore

/** A shape as path data. */
function pathOf(shape: SVGGraphicsElement): string | null {
  const of = (name: string) => Number(shape.getAttribute(name) ?? 0);
  switch (shape.tagName) {
    case 'path':
      return shape.getAttribute('d');
    case 'rect': {
      const [x, y, w, h] = [of('x'), of('y'), of('width'), of('height')];
      return w > 0 && h > 0 ? `M${x} ${y}H${x + w}V${y + h}H${x}Z` : null;
    }
    case 'circle':
    case 'ellipse': {
      const [cx, cy] = [of('cx'), of('cy')];
      const [rx, ry] = shape.tagName === 'circle' ? [of('r'), of('r')] : [of('rx'), of('ry')];
      return rx > 0 && ry > 0 ? `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}Z` : null; // prettier-ignore
    }
    case 'line':
      return `M${of('x1')} ${of('y1')}L${of('x2')} ${of('y2')}`;
    default: {
      const points = (shape.getAttribute('points') ?? '').trim();
      return points ? `M${points}${shape.tagName === 'polygon' ? 'Z' : ''}` : null;
    }
  }
}

/** All transforms from a shape up to the drawing. */
function matrixOf(shape: SVGGraphicsElement, root: Element) {
  let m = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
  for (let one: Element | null = shape; one && one !== root; one = one.parentElement) {
    const own = (one as SVGGraphicsElement).transform?.baseVal.consolidate()?.matrix;
    if (!own) continue;
    m = {
      a: own.a * m.a + own.c * m.b,
      b: own.b * m.a + own.d * m.b,
      c: own.a * m.c + own.c * m.d,
      d: own.b * m.c + own.d * m.d,
      e: own.a * m.e + own.c * m.f + own.e,
      f: own.b * m.e + own.d * m.f + own.f,
    };
  }
  return m;
}

/** What parts shapes of an SVG: the group they lie in by its name, else the colour of their line. */
function layerOf(shape: SVGGraphicsElement): string {
  const group = shape.parentElement?.closest('g[id]');
  const name = group?.id;
  if (name) return name;
  const styled = /(?:^|;)\s*stroke\s*:\s*([^;]+)/.exec(shape.getAttribute('style') ?? '')?.[1];
  const colour = styled ?? shape.closest('[stroke]')?.getAttribute('stroke') ?? 'none';
  return colour === 'none' ? 'without a line' : colour.trim();
}
