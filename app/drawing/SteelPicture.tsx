import type { ReactNode } from 'react';
import { endsOfFold } from '#core/card/foldPlace';
import { outlineOf } from '#core/card/outline';
import type { Edge, PatternDoc } from '#core/card/pattern';
import { outwardAlong, pointAlong, runLength } from '#core/measure/run';
import type { Segment } from '#core/measure/segment';
import { segmentLength } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { along } from '#core/measure/vector';
import { isJoined } from '#core/weld/start';
import { useView } from './Drawing';
import { HoleMark, usePathData } from './marks';

/** How wide a strip of the neighbour is drawn, pixels. */
export const NEIGHBOUR_PX = 24;

/** The piece as grey steel: its folds as shaded lines, its holes; `children` lie over it. */
export function SteelPicture({ pattern, children }: { pattern: PatternDoc; children: ReactNode }) {
  const { px } = useView();
  const data = usePathData();
  const { path } = outlineOf(pattern);
  return (
    <g>
      <path d={data(path)} fill="var(--shadow)" transform="translate(4 6)" />
      <path
        d={data(path)}
        fill="var(--zinc)"
        stroke="var(--zinc-line)"
        strokeWidth={2}
        strokeLinejoin="round"
      />
      {pattern.folds.map((fold) => {
        const ends = endsOfFold(pattern, fold);
        if (!ends) return null;
        const [a, b] = ends;
        const [x1, y1] = px(a);
        const [x2, y2] = px(b);
        return (
          <g key={fold.id}>
            <line
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke="var(--zinc-deep)"
              strokeWidth={6}
              opacity={0.55}
            />
            <line
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke="var(--zinc-shine)"
              strokeWidth={1.6}
              opacity={0.8}
            />
          </g>
        );
      })}
      {pattern.holes.map((hole) => (
        <HoleMark
          key={hole.id}
          at={[hole.x, hole.y]}
          diameterMm={hole.diameterMm}
          form={hole.form}
          stroke="var(--pencil)"
          fill="var(--paper)"
          width={1.2}
        />
      ))}
      {children}
    </g>
  );
}

/** Whether something is known to lie beyond an edge, so that it is drawn. */
export const hasNeighbour = (edge: Edge, meets: string): boolean =>
  meets !== '' || isJoined(edge.joint);

/**
 * What the edge comes up to, drawn lightly: a strip beyond the gap, with its name where there is
 * room. `gapPx` gives its distance, pixels, at a place along the run, mm.
 */
export function Neighbour({
  run,
  name,
  gapPx,
}: {
  run: readonly Segment[];
  name: string;
  gapPx: (mm: number) => number;
}) {
  const { px, scale } = useView();
  const total = runLength(run);
  if (total <= 0) return null;
  const at = (mm: number, offPx: number): Vec => {
    const p = pointAlong(run, mm) ?? run[0]!.a;
    return px(along(p, outwardAlong(run, mm), offPx / scale));
  };
  const steps = Math.max(8, Math.min(80, Math.ceil((total * scale) / 8)));
  // Both sides of every corner of the run, so that the strip turns there and does not cut across.
  const corners: number[] = [];
  let gone = 0;
  for (const s of run.slice(0, -1)) corners.push((gone += segmentLength(s)), gone + 1e-6);
  const places = [
    ...Array.from({ length: steps + 1 }, (_, i) => (total * i) / steps),
    ...corners,
  ].sort((a, b) => a - b);
  const near = places.map((mm) => at(mm, gapPx(mm)));
  const far = places.map((mm) => at(mm, gapPx(mm) + NEIGHBOUR_PX)).reverse();
  // Beside the middle, where the thread of the edge's tag runs.
  const written = total * 0.28;
  const middle = at(written, gapPx(written) + NEIGHBOUR_PX / 2);
  const [a, b] = [at(written - 1, gapPx(written - 1)), at(written + 1, gapPx(written + 1))];
  let turn = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
  if (turn > 90 || turn <= -90) turn += 180;
  const fits = name !== '' && run.length === 1 && total * scale * 0.5 > name.length * 7.2;
  return (
    <g pointerEvents="none">
      <polygon
        points={[...near, ...far].map((p) => p.join(',')).join(' ')}
        fill="var(--zinc)"
        opacity={0.38}
      />
      <polyline
        points={near.map((p) => p.join(',')).join(' ')}
        fill="none"
        stroke="var(--zinc-deep)"
        strokeWidth={2.6}
      />
      {fits && (
        <text
          transform={`translate(${middle[0]} ${middle[1]}) rotate(${turn})`}
          y={5}
          textAnchor="middle"
          fontSize={14}
          fontFamily="Barlow"
          fill="var(--ink)"
        >
          {name}
        </text>
      )}
    </g>
  );
}
