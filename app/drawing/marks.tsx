import { holePath } from '#core/card/holeForm';
import type { HoleForm } from '#core/card/pattern';
import type { KeyboardEvent, ReactNode } from 'react';
import { svgPath } from '#core/format/svg';
import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { sub, unit } from '#core/measure/vector';
import { useView } from './Drawing';
import type { TagAt } from './tags';
import { tagHalfWidth } from './tags';

/**
 * Patrone's marks, the same on every stage and on paper; the legend of them is in docs/marks.md.
 */

/** A run of segments as path data in pixels, arcs included. */
export function usePathData(): (path: readonly Segment[], closed?: boolean) => string {
  const { px } = useView();
  return (path, closed = true) =>
    svgPath(
      path.map((s) => ({ a: flip(px(s.a)), b: flip(px(s.b)), bulge: s.bulge })),
      flip,
      closed,
    );
}
const flip = ([x, y]: Vec): Vec => [x, -y];

/** Something on the drawing that can be picked by pointer or keyboard. */
export function Pickable({
  label,
  picked,
  hotkey,
  onPick,
  children,
}: {
  label: string;
  /** Left out by what is done and not picked. */
  picked?: boolean;
  hotkey?: string;
  onPick?: () => void;
  children: ReactNode;
}) {
  if (!onPick) return <g>{children}</g>;
  const keyed = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onPick();
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={picked}
      aria-keyshortcuts={hotkey}
      onClick={onPick}
      onKeyDown={keyed}
      style={{ cursor: 'pointer' }}
      className="pickable"
    >
      {children}
    </g>
  );
}

/**
 * The luggage label of an edge (its thread is drawn by `Threads`): its letter, and a figure where
 * one belongs to it.
 */
export function EdgeTag({
  tag,
  letter,
  picked,
  note,
}: {
  tag: TagAt;
  letter: string;
  picked: boolean;
  note?: string;
}) {
  const [tx, ty] = tag.at;
  const w = tagHalfWidth(letter, note);
  const ink = picked ? 'var(--panel)' : 'var(--tag-ink)';
  return (
    <g transform={`translate(${tx} ${ty})`}>
      <rect className="hit-tag" x={-w - 2} y={-22} width={2 * w + 4} height={44} />
      <path
        d={`M${-w} -13H${w - 7}L${w} -6V6L${w - 7} 13H${-w}Z`}
        fill={picked ? 'var(--torch)' : 'var(--tag)'}
        stroke={picked ? 'var(--torch)' : 'var(--tag-ink)'}
        strokeWidth={1.3}
      />
      <circle
        cx={w - 7}
        r={2.4}
        fill={picked ? 'var(--panel)' : 'var(--bench-top)'}
        stroke={picked ? 'var(--panel)' : 'var(--tag-ink)'}
      />
      <text
        x={-w + 7}
        y={6}
        fontFamily="Barlow Condensed"
        fontWeight={600}
        fontSize={19}
        fill={ink}
      >
        {letter}
      </text>
      {note && (
        <text
          x={w - 16}
          y={5}
          textAnchor="end"
          className="figure"
          fontSize={13}
          fontWeight={500}
          fill={ink}
        >
          {note}
        </text>
      )}
    </g>
  );
}

/**
 * The threads that tie tags to their edges: drawn before any tag, so that none runs over another's
 * letter.
 */
export function Threads({ tags }: { tags: readonly (TagAt | null)[] }) {
  return (
    <g pointerEvents="none">
      {tags.map((tag, i) => {
        if (!tag) return null;
        const {
          anchor: [x, y],
          at: [tx, ty],
          out,
        } = tag;
        return (
          <g key={i}>
            <path
              d={`M${x} ${y}Q${(x + tx) / 2 + out[1] * 5} ${(y + ty) / 2 - out[0] * 5} ${tx} ${ty}`}
              stroke="var(--pencil)"
              strokeWidth={1.3}
              fill="none"
            />
            <circle cx={x} cy={y} r={2.6} fill="var(--pencil)" />
          </g>
        );
      })}
    </g>
  );
}

/**
 * The hinge of a fold, on the side that moves: filled when it comes toward you, hollow when it goes
 * away.
 */
export function Hinge({
  at,
  across,
  toward,
  colour,
  ground,
}: {
  at: Vec;
  across: Vec;
  toward: 'face' | 'back';
  colour: string;
  ground: string;
}) {
  const { px } = useView();
  const [x, y] = px(at);
  const turn = (Math.atan2(-across[1], across[0]) * 180) / Math.PI;
  return (
    <g transform={`translate(${x} ${y}) rotate(${turn})`}>
      <path
        d="M0 -8H5a8 8 0 0 1 0 16H0Z"
        fill={toward === 'face' ? colour : ground}
        stroke={colour}
        strokeWidth={1.8}
      />
      <circle cx={4.5} r={2} fill={toward === 'face' ? ground : colour} />
    </g>
  );
}

/** How a gap or a step lies to what is wanted, and the shape that says so wherever it is told. */
export type GapState = 'right' | 'wide' | 'tight' | 'proud' | 'low' | 'unread';
const GAP_COLOUR: Record<GapState, string> = {
  right: 'var(--good)',
  wide: 'var(--wide)',
  tight: 'var(--tight)',
  proud: 'var(--wide)',
  low: 'var(--tight)',
  unread: 'var(--pencil)',
};

/**
 * The mark of a reading: a dot when it is right, a diamond wide, a square tight, a wedge up proud,
 * a wedge down low.
 */
export function GapMark({
  state,
  x,
  y,
  r = 5,
}: {
  state: GapState;
  x: number;
  y: number;
  r?: number;
}) {
  const fill = GAP_COLOUR[state];
  const at = `translate(${x} ${y})`;
  if (state === 'unread')
    return (
      <circle
        transform={at}
        r={r}
        fill="none"
        stroke={fill}
        strokeWidth={1.6}
        strokeDasharray="2.5 2"
      />
    );
  if (state === 'right') return <circle transform={at} r={r} fill={fill} />;
  const k = 1.3 * r;
  const shape = {
    wide: `M0 ${-k}L${k} 0 0 ${k} ${-k} 0Z`,
    tight: `M${-r} ${-r}H${r}V${r}H${-r}Z`,
    proud: `M0 ${-r}L${k} ${r}H${-k}Z`,
    low: `M0 ${r}L${k} ${-r}H${-k}Z`,
  }[state];
  return <path transform={at} d={shape} fill={fill} />;
}

/** The same mark among words. */
export const GapSign = ({ state, said }: { state: GapState; said?: string }) => (
  <svg
    width="14"
    height="14"
    viewBox="-7 -7 14 14"
    role={said ? 'img' : undefined}
    aria-label={said}
    aria-hidden={!said}
    style={{ flex: 'none' }}
  >
    <GapMark state={state} x={0} y={0} />
  </svg>
);

/** A hole: its circle with a centre-pop cross. */
export function HoleMark({
  at,
  diameterMm,
  form,
  stroke,
  fill,
  width = 1.6,
}: {
  at: Vec;
  diameterMm: number;
  form?: HoleForm;
  stroke: string;
  fill: string;
  width?: number;
}) {
  const { px, scale } = useView();
  const [x, y] = px(at);
  const r = Math.max(2.5, (diameterMm / 2) * scale);
  const c = Math.min(5, r * 0.7);
  const data = usePathData();
  const path = holePath(at, { diameterMm, form });
  return (
    <g stroke={stroke} strokeWidth={width}>
      {path ? (
        <path d={data(path)} fill={fill} strokeLinejoin="round" />
      ) : (
        <circle cx={x} cy={y} r={r} fill={fill} />
      )}
      <path d={`M${x - c} ${y}h${2 * c}M${x} ${y - c}v${2 * c}`} strokeWidth={1} />
    </g>
  );
}

/** The datum corner: a plumb-bob hung from it. */
export function Datum({ at, colour }: { at: Vec; colour: string }) {
  const { px } = useView();
  const [x, y] = px(at);
  return (
    <g transform={`translate(${x} ${y})`} aria-hidden>
      <path d="M0 0V15" stroke={colour} strokeWidth={1.3} />
      <path d="M-5 15H5L4 21 0 31 -4 21Z" fill={colour} />
    </g>
  );
}

/**
 * A label beside a line of the drawing, on a little ground of its own so that it can be read over
 * anything.
 */
export function Figure({
  at,
  text,
  colour,
  ground,
  size = 15,
  dy = 0,
}: {
  at: Vec;
  text: string;
  colour: string;
  ground: string;
  size?: number;
  dy?: number;
}) {
  const { px } = useView();
  const [x, y] = px(at);
  const w = text.length * size * 0.6 + 8;
  return (
    <g transform={`translate(${x} ${y + dy})`} pointerEvents="none">
      <rect
        x={-w / 2}
        y={-size * 0.72}
        width={w}
        height={size * 1.44}
        fill={ground}
        opacity={0.88}
        rx={2}
      />
      <text
        textAnchor="middle"
        y={size * 0.36}
        className="figure"
        fontSize={size}
        fontWeight={500}
        fill={colour}
      >
        {text}
      </text>
    </g>
  );
}

/** Which way "across" points for a line between two points, to the left of its travel. */
export const leftOf = (a: Vec, b: Vec): Vec => {
  const u = unit(sub(b, a));
  return [-u[1], u[0]];
};

/**
 * A reference that is gone when the piece is cut out: a ring with a saw cut through it. `unit`: a
 * pixel in the units of the drawing.
 */
export const GoneMark = ({
  at: [x, y],
  unit,
  good,
}: {
  at: readonly [number, number];
  unit: number;
  good: boolean;
}) => (
  <g fill="var(--halo)" stroke={good ? 'var(--ink)' : 'var(--torch)'} strokeWidth={3 * unit}>
    <circle cx={x} cy={y} r={9 * unit} />
    <path d={`M${x - 13 * unit} ${y + 13 * unit}L${x + 13 * unit} ${y - 13 * unit}`} />
  </g>
);
