import type { DrawnMap } from '#core/surface/panel/drawnMap';
import type { Vec } from '#core/measure/vector';
import { useView } from './Drawing';
import { percent } from './percent';
import { Chevrons } from './shapeMarks';

/** Smaller pictures have fewer figures. */
const FEW_PX = 460;

/**
 * What is to be done where: marks closer where there is more, lines of equal stretch and shrink
 * with their figures. `bright`: on blue.
 */
export function WorkMap({
  map,
  bright = false,
  ground = 'var(--zinc)',
  figures = true,
}: {
  map: DrawnMap;
  bright?: boolean;
  ground?: string;
  figures?: boolean;
}) {
  const { px, width } = useView();
  const colour = (way: 'stretch' | 'shrink') => `var(--${way}${bright ? '-bright' : ''})`;
  const line = (places: readonly Vec[], closed: boolean) =>
    `M${places
      .map((p) =>
        px(p)
          .map((x) => x.toFixed(1))
          .join(','),
      )
      .join('L')}${closed ? 'Z' : ''}`;
  return (
    <g pointerEvents="none">
      {map.lines.map(({ way, places, closed }, i) => (
        <path
          key={i}
          d={line(places, closed)}
          fill="none"
          stroke={colour(way)}
          strokeWidth={1.3}
          strokeDasharray={way === 'shrink' ? '7 4' : undefined}
          opacity={0.75}
        />
      ))}
      {apart(map.marks, px).map(({ at, way, turn }, i) => (
        <Chevrons
          key={i}
          at={px(at)}
          turn={(-turn * 180) / Math.PI}
          shrink={way === 'shrink'}
          bright={bright}
        />
      ))}
      {figures &&
        width > FEW_PX &&
        labelled(map, px).map(({ at: [x, y], way, value }, i) => (
          <g key={i} transform={`translate(${x} ${y})`}>
            <rect x={-23} y={-10} width={46} height={20} rx={3} fill={ground} />
            <text
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={14}
              className="figure"
              fill={colour(way)}
            >
              {percent(value)}
            </text>
          </g>
        ))}
    </g>
  );
}

/** Marks stand no nearer to each other than this, pixels. */
const MARK_PX = 21;

/** Of marks that would stand on one another on a small screen the one with most to do. */
function apart(marks: DrawnMap['marks'], px: (p: Vec) => Vec): DrawnMap['marks'] {
  const kept: DrawnMap['marks'] = [];
  const cells = new Map<string, Vec[]>();
  for (const mark of [...marks].sort((a, b) => b.strain - a.strain)) {
    const at = px(mark.at);
    const [i, j] = at.map((x) => Math.floor(x / MARK_PX)) as [number, number];
    const near = [-1, 0, 1].flatMap((di) =>
      [-1, 0, 1].flatMap((dj) => cells.get(`${i + di} ${j + dj}`) ?? []),
    );
    if (near.some((other) => Math.hypot(other[0] - at[0], other[1] - at[1]) < MARK_PX)) continue;
    cells.set(`${i} ${j}`, [...(cells.get(`${i} ${j}`) ?? []), at]);
    kept.push(mark);
  }
  return kept;
}

/** Figures stand no nearer to each other than this, pixels. */
const APART_PX = 44;

/** One figure for each value and way, on its longest line, where there is room for it. */
function labelled(
  map: DrawnMap,
  px: (p: Vec) => Vec,
): { at: Vec; way: DrawnMap['lines'][number]['way']; value: number }[] {
  const longest = new Map<string, { line: DrawnMap['lines'][number]; longPx: number }>();
  for (const line of map.lines) {
    const name = `${line.way} ${line.value}`;
    const places = line.places.map(px);
    const longPx = places
      .slice(1)
      .reduce((sum, p, i) => sum + Math.hypot(p[0] - places[i]![0], p[1] - places[i]![1]), 0);
    if (longPx > (longest.get(name)?.longPx ?? APART_PX)) longest.set(name, { line, longPx });
  }
  const found: ReturnType<typeof labelled> = [];
  for (const {
    line: { way, value, places },
    longPx,
  } of longest.values()) {
    const drawn = places.map(px);
    const free = [0.35, 0.5, 0.2, 0.65, 0.8, 0.1].map((share) => onLine(drawn, share * longPx));
    const at = free.find((p) =>
      found.every((other) => Math.hypot(other.at[0] - p[0], (other.at[1] - p[1]) * 2) > APART_PX),
    );
    if (at) found.push({ at, way, value });
  }
  return found;
}

/** The place at length `far` along a line, pixels. */
function onLine(line: readonly Vec[], far: number): Vec {
  let gone = 0;
  for (let i = 1; i < line.length; i++) {
    const [a, b] = [line[i - 1]!, line[i]!];
    const step = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (gone + step >= far && step > 0) {
      const share = (far - gone) / step;
      return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share];
    }
    gone += step;
  }
  return line[line.length - 1]!;
}
