import type { Drawn } from '#core/card/drawn';
import { curveThrough, halves } from '#core/card/drawn';
import type { Segment } from '#core/measure/segment';
import { line } from '#core/measure/segment';
import { splinePoints } from '#core/measure/spline';
import type { Vec } from '#core/measure/vector';
import type { Drawing, Unread } from './drawingFile';
import { CURVE_SHARE, MOST_THINGS } from './drawingFile';

/** CSS lengths to millimetres. */
const CSS_MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6 };

/** All shapes of an SVG with their transforms, by group or colour. */
export async function readSvg(text: string): Promise<Drawing | Unread> {
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
      if (!(w > 0 && h > 0)) return null;
      // Round corners: where one radius is not said it is the other (SVG 1.1, 9.2).
      const said = [shape.getAttribute('rx'), shape.getAttribute('ry')].map((r) => (r === null ? null : Number(r)));
      const rx = Math.min(said[0] ?? said[1] ?? 0, w / 2);
      const ry = Math.min(said[1] ?? said[0] ?? 0, h / 2);
      if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
      const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}Z`;
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
