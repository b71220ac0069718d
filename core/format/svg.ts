import { holePath } from '../card/holeForm';
import type { Box } from '../measure/path';
import type { Segment } from '../measure/segment';
import { arcOf, isStraight } from '../measure/segment';
import type { Vec } from '../measure/vector';
import type { Layers } from '../sheet/layers';
import { layersBox } from '../sheet/layers';

const n = (value: number): string => String(Math.round(value * 1e4) / 1e4 + 0);

/**
 * SVG path data of a run of segments; `map` turns drawing coordinates into SVG ones and flips y.
 */
export function svgPath(path: readonly Segment[], map: (p: Vec) => Vec, closed = true): string {
  const first = path[0];
  if (!first) return '';
  const at = (p: Vec) => map(p).map(n).join(' ');
  let d = `M ${at(first.a)}`;
  for (const s of path) {
    if (isStraight(s)) d += ` L ${at(s.b)}`;
    else {
      const { radius, sweep } = arcOf(s);
      // y is flipped, so a counter-clockwise arc is drawn with the sweep flag off.
      d += ` A ${n(radius)} ${n(radius)} 0 ${Math.abs(sweep) > Math.PI ? 1 : 0} ${sweep > 0 ? 0 : 1} ${at(s.b)}`;
    }
  }
  return closed ? `${d} Z` : d;
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/**
 * The drawing as an SVG file in millimetres, one group for each layer, with `marginMm` of clear
 * ground round it.
 */
export function toSvg(layers: Layers, title: string, marginMm = 5): string {
  const b: Box = layersBox(layers);
  const width = b.maxX - b.minX + 2 * marginMm;
  const height = b.maxY - b.minY + 2 * marginMm;
  const map = ([x, y]: Vec): Vec => [x - b.minX + marginMm, b.maxY - y + marginMm];
  const rule = ([a, c]: [Vec, Vec]) => {
    const [x1, y1] = map(a);
    const [x2, y2] = map(c);
    return `<line x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}"/>`;
  };
  const group = (id: string, attributes: string, body: string[]) =>
    `  <g id="${id}" fill="none" ${attributes}>\n${body.map((line) => `    ${line}\n`).join('')}  </g>`;
  const circles = layers.holes.map((hole) => {
    const path = holePath(hole.centre, hole);
    if (path) return `<path d="${svgPath(path, map)}"/>`;
    const [x, y] = map(hole.centre);
    return `<circle cx="${n(x)}" cy="${n(y)}" r="${n(hole.diameterMm / 2)}"/>`;
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width)}mm" height="${n(height)}mm" viewBox="0 0 ${n(width)} ${n(height)}">`,
    `  <title>${escaped(title)}</title>`,
    group('CUT', 'stroke="#000" stroke-width="0.25"', [`<path d="${svgPath(layers.cut, map)}"/>`]),
    group('FOLD', 'stroke="#1f4e9c" stroke-width="0.2"', layers.fold.map(rule)),
    group(
      'BRAKE',
      'stroke="#c2410c" stroke-width="0.2" stroke-dasharray="6 2"',
      layers.brake.map(rule),
    ),
    group(
      'SCRIBE',
      'stroke="#5f6368" stroke-width="0.2" stroke-dasharray="2 2"',
      layers.scribe.map((s) => `<path d="${svgPath([s], map, false)}"/>`),
    ),
    group('HOLE', 'stroke="#000" stroke-width="0.25"', circles),
    '</svg>',
    '',
  ].join('\n');
}
