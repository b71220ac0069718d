import type { Silhouette } from './silhouette';

/**
 * What the piece is at the stage it has come to: card, sheet painted with layout blue, or steel.
 */
export type Material = 'card' | 'blue' | 'steel';

const LOOK: Record<Material, { fill: string; line: string; fold: string }> = {
  card: { fill: 'var(--manila)', line: 'var(--card-pencil)', fold: 'var(--card-pencil)' },
  blue: { fill: 'var(--layout)', line: 'var(--layout-deep)', fold: 'var(--scribe)' },
  steel: { fill: 'var(--zinc)', line: 'var(--zinc-line)', fold: 'var(--zinc-deep)' },
};

/** A piece in small, lying on the bench. */
export function Thumbnail({ of, material }: { of: Silhouette; material: Material }) {
  const look = LOOK[material];
  const pad = 0.04 * Math.max(of.w, of.h);
  return (
    <svg
      width="100%"
      height="100%"
      viewBox={`${-pad} ${-pad} ${of.w + 2 * pad} ${of.h + 2 * pad}`}
      preserveAspectRatio="xMidYMid meet"
      aria-hidden
    >
      <path d={of.d} fill="var(--shadow)" transform={`translate(${pad / 2} ${pad / 2})`} />
      <path
        d={of.d}
        fill={look.fill}
        stroke={look.line}
        strokeWidth={1.4}
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={of.folds}
        fill="none"
        stroke={look.fold}
        strokeWidth={1.3}
        strokeDasharray={material === 'steel' ? undefined : '6 3'}
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={of.holes}
        fill="var(--bench-top)"
        stroke={look.line}
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
