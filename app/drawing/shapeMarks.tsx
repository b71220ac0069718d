import { sectionIn, sectionPath } from '#core/blank/bead/section';
import type { WrittenSection } from '#core/blank/bead/section';
import { outwardAlong, pointAlong, runLength } from '#core/measure/run';
import type { Segment } from '#core/measure/segment';
import { flattened } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { along, right } from '#core/measure/vector';
import { useView } from './Drawing';
import { usePathData } from './marks';

/** Minimum width of a bead's section as drawn, pixels: a smaller one is enlarged to it. */
const SECTION_PX = 30;

/**
 * A bead: its middle as a line, its creases lightly, and its own section small across it, standing
 * up from the line on the side it comes toward you.
 */
export function BeadMark({
  runs,
  section,
  widthMm,
  thicknessMm,
  toward,
  colour,
  ground,
  picked,
  strain = 0,
  bright = false,
}: {
  runs: readonly (readonly Segment[])[];
  section: WrittenSection;
  widthMm: number;
  thicknessMm: number;
  toward: 'face' | 'back';
  colour: string;
  ground: string;
  picked: boolean;
  /** How much its top is stretched (+) or gathered where the panel is curved along it. */
  strain?: number;
  bright?: boolean;
}) {
  const { px, scale } = useView();
  const data = usePathData();
  const longest = runs.reduce((a, b) => (runLength(b) > runLength(a) ? b : a), runs[0] ?? []);
  const half = runLength(longest) * 0.36;
  const at = longest.length > 0 ? pointAlong(longest, half) : null;
  const out = outwardAlong(longest, half);
  return (
    <g>
      {runs.map((run, i) => (
        <g key={i}>
          <path
            d={data(run, false)}
            fill="none"
            stroke={colour}
            opacity={0.22}
            strokeWidth={Math.max(3, widthMm * scale)}
          />
          <path
            d={data(run, false)}
            fill="none"
            stroke={colour}
            strokeWidth={picked ? 2.8 : 1.4}
            strokeDasharray="16 4 3 4"
          />
          <StrainMarks
            run={run}
            strained={[{ fromMm: 0, toMm: runLength(run), strain }]}
            insidePx={0}
            bright={bright}
          />
        </g>
      ))}
      {at && (
        <SectionMark
          at={px(at)}
          turn={(Math.atan2(-out[1], out[0]) * 180) / Math.PI}
          section={section}
          thicknessMm={thicknessMm}
          toward={toward}
          colour={colour}
          ground={ground}
          scale={scale}
        />
      )}
    </g>
  );
}

function SectionMark({
  at,
  turn,
  section,
  thicknessMm,
  toward,
  colour,
  ground,
  scale,
}: {
  at: Vec;
  turn: number;
  section: WrittenSection;
  thicknessMm: number;
  toward: 'face' | 'back';
  colour: string;
  ground: string;
  scale: number;
}) {
  const path = sectionPath(sectionIn(section, thicknessMm, thicknessMm));
  if (path.length === 0) return null;
  const places = [...path.flatMap((s) => flattened(s, 0.05)), path.at(-1)!.b];
  const wide = places.at(-1)![0] - places[0]![0];
  const k = Math.max(scale, SECTION_PX / wide);
  const sign = toward === 'face' ? -1 : 1;
  const line = places
    .map(([x, y]) => `${(x * k).toFixed(2)},${(sign * y * k).toFixed(2)}`)
    .join(' ');
  const reach = (wide * k) / 2 + 6;
  return (
    <g transform={`translate(${at[0]} ${at[1]}) rotate(${turn})`}>
      <polygon
        points={`${-reach},0 ${line} ${reach},${sign * places.at(-1)![1] * k}`}
        fill={ground}
        opacity={0.9}
      />
      <polyline
        points={`${-reach},0 ${line} ${reach},${sign * places.at(-1)![1] * k}`}
        fill="none"
        stroke={colour}
        strokeWidth={2.4}
        strokeLinejoin="round"
      />
    </g>
  );
}

/** Chevrons are no nearer to each other than this, and no farther, pixels. */
const [NEAREST_PX, FARTHEST_PX] = [11, 60];
/** At this strain they stand as near as they can. */
const DENSE = 0.2;

/** Where a stretch of an edge is gathered or stretched, by how much at most. */
export type Strained = { fromMm: number; toMm: number; strain: number };

/**
 * Chevrons along an edge: ›‹ where metal is gathered, ‹› where it is stretched, closer together
 * where there is more of it.
 */
export function StrainMarks({
  run,
  strained,
  insidePx = 12,
  bright = false,
}: {
  run: readonly Segment[];
  strained: readonly Strained[];
  insidePx?: number;
  bright?: boolean;
}) {
  const { px, scale } = useView();
  return (
    <g pointerEvents="none">
      {strained.flatMap(({ fromMm, toMm, strain }, k) => {
        if (Math.abs(strain) < 1e-6) return [];
        const apart = Math.max(
          NEAREST_PX,
          FARTHEST_PX - (FARTHEST_PX - NEAREST_PX) * Math.min(1, Math.abs(strain) / DENSE),
        );
        const n = Math.max(1, Math.floor(((toMm - fromMm) * scale) / apart));
        return Array.from({ length: n }, (_, i) => {
          const mm = fromMm + ((toMm - fromMm) * (i + 0.5)) / n;
          const p = pointAlong(run, mm);
          if (!p) return null;
          const out = outwardAlong(run, mm);
          const [x, y] = px(along(p, out, -insidePx / scale));
          const way = right(out);
          return (
            <Chevrons
              key={`${k} ${i}`}
              at={[x, y]}
              turn={(Math.atan2(-way[1], way[0]) * 180) / Math.PI}
              shrink={strain < 0}
              bright={bright}
            />
          );
        });
      })}
    </g>
  );
}

/** `bright`: on blue. */
export function Chevrons({
  at,
  turn,
  shrink,
  bright = false,
}: {
  at: Vec;
  turn: number;
  shrink: boolean;
  bright?: boolean;
}) {
  const d = shrink ? 'M-8 -5L-2.5 0L-8 5M8 -5L2.5 0L8 5' : 'M-2.5 -5L-8 0L-2.5 5M2.5 -5L8 0L2.5 5';
  return (
    <path
      transform={`translate(${at[0]} ${at[1]}) rotate(${turn})`}
      d={d}
      fill="none"
      stroke={`var(--${shrink ? 'shrink' : 'stretch'}${bright ? '-bright' : ''})`}
      strokeWidth={2.4}
      strokeLinejoin="round"
      strokeLinecap="round"
    />
  );
}

/** The same among words. */
export const ChevronSign = ({ shrink }: { shrink: boolean }) => (
  <svg width="22" height="14" viewBox="-11 -7 22 14" aria-hidden style={{ flex: 'none' }}>
    <Chevrons at={[0, 0]} turn={0} shrink={shrink} />
  </svg>
);
