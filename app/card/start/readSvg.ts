import type { Drawn } from '#core/card/drawn';
import type { Drawing, Unread } from './drawingFile';
import { CURVE_SHARE, MAX_THINGS, OUT_OF_SIGHT } from './drawingFile';

/** CSS lengths to millimetres. */
const CSS_MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6 };

/** All shapes of an SVG with their transforms, by group or colour. */
export async function readSvg(text: string): Promise<Drawing | Unread> {
  const { curvesOfPath, shapePath } = await import('./svgPath');
  const parsed = new DOMParser().parseFromString(text, 'image/svg+xml');
  const broken = parsed.querySelector('parsererror');
  if (broken)
    return {
      wrong: `The SVG is broken: ${broken.textContent?.split('\n')[1] ?? 'it does not end as it should'}.`,
    };
  const root = parsed.documentElement as unknown as SVGSVGElement;
  const view = (root.getAttribute('viewBox') ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const wide = /^([\d.]+)(mm|cm|in|pt|pc)$/.exec((root.getAttribute('width') ?? '').trim());
  const unitMm =
    wide && view.length === 4 && view[2]! > 0
      ? (Number(wide[1]) * CSS_MM[wide[2]!]!) / view[2]!
      : null;
  const all = [
    ...root.querySelectorAll<SVGGraphicsElement>(
      'path, rect, circle, ellipse, line, polyline, polygon',
    ),
  ].filter((one) => !one.closest('defs, clipPath, mask, symbol, marker, pattern'));
  if (all.length === 0) return { wrong: 'There is nothing drawn in this file.' };
  const shapes = all.filter((one) => isShown(one, root));
  if (shapes.length === 0) return { wrong: OUT_OF_SIGHT };
  if (shapes.length > MAX_THINGS)
    return {
      wrong: `There are ${shapes.length} things in this file: too many. Leave out what is not the piece.`,
    };
  const passedOver = [
    ...new Set([...root.querySelectorAll('text, image, use')].map(({ tagName }) => tagName)),
  ];
  const reach =
    view.length === 4 && view.every(Number.isFinite) ? Math.hypot(view[2]!, view[3]!) : 400;
  const drawn = shapes.flatMap((shape): Drawn[] => {
    const d = shapePath(shape.tagName, (name) => shape.getAttribute(name));
    if (!d) return [];
    return curvesOfPath(d, matrixOf(shape, root), reach * CURVE_SHARE).map(({ run, curve }) => ({
      layer: layerOf(shape),
      run,
      curve,
    }));
  });
  return { drawn, unitMm, passedOver };
}

/**
 * Whether a shape is drawn: neither it nor a group it lies in is put out of sight, as a layer that
 * is switched off.
 */
function isShown(shape: Element, root: Element): boolean {
  for (let one: Element | null = shape; one && one !== root; one = one.parentElement)
    if (
      one.getAttribute('display') === 'none' ||
      /(?:^|;)\s*display\s*:\s*none/.test(one.getAttribute('style') ?? '')
    )
      return false;
  return true;
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

/**
 * What parts shapes of an SVG: the group they lie in by its name, else the colour of their line.
 */
function layerOf(shape: SVGGraphicsElement): string {
  const group = shape.parentElement?.closest('g[id]');
  const name = group?.id;
  if (name) return name;
  const styled = /(?:^|;)\s*stroke\s*:\s*([^;]+)/.exec(shape.getAttribute('style') ?? '')?.[1];
  const colour = styled ?? shape.closest('[stroke]')?.getAttribute('stroke') ?? 'none';
  return colour === 'none' ? 'without a line' : colour.trim();
}
