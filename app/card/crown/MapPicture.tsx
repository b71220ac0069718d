import { inFlat } from '#core/surface/isoLines';
import type { LaidPanel } from '#core/surface/laidPanel';
import type { Strip } from '#core/surface/strips';
import type { Vec } from '#core/measure/vector';
import { useView } from '../../drawing/Drawing';
import { EdgeTag, Threads, usePathData } from '../../drawing/marks';
import { Chevrons } from '../../drawing/shapeMarks';
import { hangTags, tagHalfWidth } from '../../drawing/tags';
import type { Outlines } from './useLaid';
import { percent } from './crownWords';

/** Smaller pictures have fewer figures. */
const FEW_PX = 460;

/** The blank as steel with what has to be done to it: marks closer where there is more, lines of equal stretch and shrink. */
export function MapPicture({ laid, strips, outlines, letters }: { laid: LaidPanel; strips: readonly Strip[]; outlines: Outlines | null; letters: readonly string[] }) {
  const view = useView();
  const { px, width } = view;
  const data = usePathData();
  const { path } = laid.outline;
  const tags = hangTags(laid.outline.edges.map(({ first, count }, i) => ({ run: path.slice(first, first + count), away: 30, halfWidth: tagHalfWidth(letters[i]!) })), path, view);
  const line = (places: readonly Vec[], closed: boolean) => `M${places.map((p) => px(p).map((x) => x.toFixed(1)).join(',')).join('L')}${closed ? 'Z' : ''}`;
  return (
    <g>
      <path d={data(path)} fill="var(--shadow)" transform="translate(4 6)" />
      <path d={data(path)} fill="var(--zinc)" stroke="var(--zinc-line)" strokeWidth={2} strokeLinejoin="round" />
      {laid.lines.map(({ way, places, closed }, i) => (
        <path key={i} d={line(inFlat(places, laid.flat), closed)} fill="none" stroke={`var(--${way})`} strokeWidth={1.3} strokeDasharray={way === 'shrink' ? '7 4' : undefined} opacity={0.75} />
      ))}
      {apart(laid.marks, px).map(({ at, way, turn }, i) => (
        <Chevrons key={i} at={px(at)} turn={(-turn * 180) / Math.PI} shrink={way === 'shrink'} />
      ))}
      {strips.map(({ line: places }, i) => {
        const [first, last] = [px(places[0]!), px(places[places.length - 1]!)];
        return <line key={i} x1={first[0]} y1={first[1]} x2={last[0]} y2={last[1]} stroke="var(--ink)" strokeWidth={1} strokeDasharray="2 5" />;
      })}
      {outlines?.map(({ school, line: places }) => (
        <path key={school} d={line(places, true)} fill="none" stroke={school === 0 ? 'var(--stretch)' : school === 1 ? 'var(--shrink)' : 'var(--ink)'} strokeWidth={2} strokeDasharray={school === 0 ? '3 4' : school === 1 ? '12 5' : undefined} />
      ))}
      {laid.overlaps.slice(0, 20).map((at, i) => {
        const [x, y] = px(at);
        return <circle key={i} cx={x} cy={y} r={9} fill="none" stroke="var(--torch)" strokeWidth={3} />;
      })}
      {width > FEW_PX && labelled(laid, view.px).map(({ at: [x, y], way, value }, i) => (
        <g key={i} transform={`translate(${x} ${y})`}>
          <rect x={-23} y={-10} width={46} height={20} rx={3} fill="var(--zinc)" />
          <text textAnchor="middle" dominantBaseline="central" fontSize={14} className="figure" fill={`var(--${way})`}>
            {percent(value)}
          </text>
        </g>
      ))}
      <Threads tags={tags} />
      {tags.map((tag, i) => tag && <EdgeTag key={i} tag={tag} letter={letters[i]!} picked={false} />)}
    </g>
  );
} // prettier-ignore

/** Marks stand no nearer to each other than this, pixels. */
const MARK_PX = 21;

/** Of marks that would stand on one another on a small screen the one with most to do. */
function apart(marks: LaidPanel['marks'], px: (p: Vec) => Vec): LaidPanel['marks'] {
  const kept = new Map<string, LaidPanel['marks'][number]>();
  for (const mark of marks) {
    const cell = px(mark.at).map((x) => Math.round(x / MARK_PX)).join(' ');
    if (mark.strain > (kept.get(cell)?.strain ?? 0)) kept.set(cell, mark);
  }
  return [...kept.values()];
} // prettier-ignore

/** Figures stand no nearer to each other than this, pixels. */
const APART_PX = 44;

/** One figure for each value and way, on its longest line, where there is room for it. */
function labelled(laid: LaidPanel, px: (p: Vec) => Vec): { at: Vec; way: LaidPanel['lines'][number]['way']; value: number }[] {
  const longest = new Map<string, LaidPanel['lines'][number]>();
  for (const one of laid.lines) {
    const name = `${one.way} ${one.value}`;
    if (one.places.length > (longest.get(name)?.places.length ?? 12)) longest.set(name, one);
  }
  const found: ReturnType<typeof labelled> = [];
  for (const { way, value, places } of longest.values()) {
    const line = inFlat(places, laid.flat).map(px);
    const free = [0.35, 0.5, 0.2, 0.65, 0.8, 0.1].map((share) => line[Math.floor(share * (line.length - 1))]!);
    const at = free.find((p) => found.every((other) => Math.hypot(other.at[0] - p[0], (other.at[1] - p[1]) * 2) > APART_PX));
    if (at) found.push({ at, way, value });
  }
  return found;
} // prettier-ignore
