import { SVGPathData } from 'svg-pathdata';
import { curveThrough, halves } from '#core/card/drawn';
import type { Segment } from '#core/measure/segment';
import { line } from '#core/measure/segment';
import { splinePoints } from '#core/measure/spline';
import type { Vec } from '#core/measure/vector';

/** x′ = a·x + c·y + e, y′ = b·x + d·y + f (SVG 1.1, 7.4). */
export type Matrix = { a: number; b: number; c: number; d: number; e: number; f: number };

/** CSS lengths in its own pixels, of which there are 96 to an inch (CSS Values 3, 5.2). */
const CSS_PX: Record<string, number> = {
  px: 1,
  mm: 96 / 25.4,
  cm: 96 / 2.54,
  in: 96,
  pt: 96 / 72,
  pc: 16,
};

/**
 * A length as it stands in an attribute, in the drawing's own units; null where it is none (a
 * percentage, say).
 */
export function svgLength(text: string | null): number | null {
  if (text === null) return 0;
  const found = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)(px|mm|cm|in|pt|pc)?\s*$/i.exec(text);
  return found && Number(found[1]) * CSS_PX[(found[2] ?? 'px').toLowerCase()]!;
}

/**
 * The runs of lines and arcs of a path (SVG 1.1, 8.3) after a transform, y turned up; curves within
 * `every`. Throws where the path cannot be read.
 */
export function runsOfPath(d: string, m: Matrix, every: number): Segment[][] {
  return curvesOfPath(d, m, every).map(({ run }) => run);
}

/** The same, with which of them stand for a curve that was drawn as one. */
export function curvesOfPath(
  d: string,
  m: Matrix,
  every: number,
): { run: Segment[]; curve: boolean[] }[] {
  return runsOf(commandsOf(d).matrix(m.a, m.b, m.c, m.d, m.e, m.f).commands as Command[], every);
}

function commandsOf(d: string): SVGPathData {
  try {
    return new SVGPathData(d).toAbs().normalizeHVZ(false).normalizeST();
  } catch (error) {
    throw new Error(
      `A path in it cannot be read (${error instanceof Error ? error.message : 'broken'}): it begins “${d.trim().slice(0, 40)}”.`,
      { cause: error },
    );
  }
}

type Command = {
  type: number;
  x?: number;
  y?: number;
  x1?: number;
  y1?: number;
  x2?: number;
  y2?: number;
  rX?: number;
  rY?: number;
  xRot?: number;
  lArcFlag?: 0 | 1;
  sweepFlag?: 0 | 1;
};

/** Runs of a path, y turned up. */
function runsOf(
  commands: readonly Command[],
  every: number,
): { run: Segment[]; curve: boolean[] }[] {
  const runs: { run: Segment[]; curve: boolean[] }[] = [];
  let run: Segment[] = [];
  let curve: boolean[] = [];
  const put = (segments: readonly Segment[], isCurve: boolean) => {
    run.push(...segments);
    curve.push(...segments.map(() => isCurve));
  };
  let [start, at]: [Vec, Vec] = [
    [0, 0],
    [0, 0],
  ];
  const end = () => {
    if (run.length > 0) runs.push({ run, curve });
    [run, curve] = [[], []];
  };
  const up = (x: number, y: number): Vec => [x, -y];
  const to = (p: Vec) => {
    if (p[0] !== at[0] || p[1] !== at[1]) put([line(at, p)], false);
    at = p;
  };
  for (const c of commands) {
    if (c.type === SVGPathData.CLOSE_PATH) {
      to(start);
      end();
    } else if (c.type === SVGPathData.MOVE_TO) {
      end();
      start = at = up(c.x!, c.y!);
    } else if (c.type === SVGPathData.LINE_TO) to(up(c.x!, c.y!));
    else {
      const goal = up(c.x!, c.y!);
      // An arc that ends where it begins is left out (SVG 1.1, F.6.2).
      if (c.type === SVGPathData.ARC && goal[0] === at[0] && goal[1] === at[1]) continue;
      if (c.type === SVGPathData.ARC && Math.abs(c.rX! - c.rY!) < 1e-6 * c.rX!)
        put(halves(arcTo(at, goal, c)), false);
      else put(curveThrough(sampled(at, goal, c), every), true);
      at = goal;
    }
  }
  end();
  return runs;
}

/** A circular arc of an SVG path, y turned up: the sweep flag says clockwise there. */
function arcTo(a: Vec, b: Vec, c: Command): Segment {
  const half = Math.hypot(b[0] - a[0], b[1] - a[1]) / 2;
  const angle = 2 * Math.asin(Math.min(1, half / c.rX!));
  const sweep = c.lArcFlag ? 2 * Math.PI - angle : angle;
  return { a, b, bulge: (c.sweepFlag ? -1 : 1) * Math.tan(sweep / 4) };
}

const SAMPLES = 96;
function sampled(a: Vec, b: Vec, c: Command): Vec[] {
  if (c.type === SVGPathData.ARC) return ellipticalArc(a, b, c);
  const control: Vec[] =
    c.type === SVGPathData.QUAD_TO
      ? [a, [c.x1!, -c.y1!], b]
      : [a, [c.x1!, -c.y1!], [c.x2!, -c.y2!], b];
  const degree = control.length - 1;
  const knots = [...Array<number>(degree + 1).fill(0), ...Array<number>(degree + 1).fill(1)];
  const long = control
    .slice(1)
    .reduce((sum, p, i) => sum + Math.hypot(p[0] - control[i]![0], p[1] - control[i]![1]), 0);
  return splinePoints({ degree, knots, control }, long / SAMPLES);
}

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
  const k =
    Math.sqrt(
      Math.max(
        0,
        (rx * rx * ry * ry - rx * rx * y * y - ry * ry * x * x) /
          (rx * rx * y * y + ry * ry * x * x),
      ),
    ) * (!!c.lArcFlag === ccw ? -1 : 1);
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
}

/** A shape of SVG as path data; null for one that draws nothing. */
export function shapePath(tag: string, attribute: (name: string) => string | null): string | null {
  const of = (name: string) => svgLength(attribute(name)) ?? 0;
  switch (tag) {
    case 'path':
      return attribute('d');
    case 'rect': {
      const [x, y, w, h] = [of('x'), of('y'), of('width'), of('height')];
      if (!(w > 0 && h > 0)) return null;
      // Round corners: where one radius is not said it is the other (SVG 1.1, 9.2).
      const said = [attribute('rx'), attribute('ry')].map((r) =>
        r === null ? null : svgLength(r),
      );
      const rx = Math.min(said[0] ?? said[1] ?? 0, w / 2);
      const ry = Math.min(said[1] ?? said[0] ?? 0, h / 2);
      if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
      const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}Z`;
    }
    case 'circle':
    case 'ellipse': {
      const [cx, cy] = [of('cx'), of('cy')];
      const [rx, ry] = tag === 'circle' ? [of('r'), of('r')] : [of('rx'), of('ry')];
      return rx > 0 && ry > 0
        ? `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}Z`
        : null;
    }
    case 'line':
      return `M${of('x1')} ${of('y1')}L${of('x2')} ${of('y2')}`;
    default: {
      const points = (attribute('points') ?? '').trim();
      return points ? `M${points}${tag === 'polygon' ? 'Z' : ''}` : null;
    }
  }
}
