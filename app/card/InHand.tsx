import { alongEdge, snapPlace } from '#core/card/foldPlace';
import type { Spot } from '#core/card/outline';
import { pointOfSpot } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { Unit } from '#core/measure/length';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import { useView } from '../drawing/Drawing';
import { Figure } from '../drawing/marks';
import { usePreferences } from '../frame/preferences';

/** How near the pointer must be to what it means, in pixels. */
export const REACH_PX = 14;

/** The place on the outline that is meant by touching the card at `p`. */
export const placeMeant = (pattern: PatternDoc, p: Vec, from: Spot | null, scale: number, unit: Unit) =>
  snapPlace(pattern, p, { from, reachMm: REACH_PX / scale, unit });

/** The fold or corner being laid: where it begins, where it would end, and how far that is along the edge. */
export function PlaceInHand({
  pattern,
  from,
  pointer,
}: {
  pattern: PatternDoc;
  from: Spot | null;
  pointer: Vec | null;
}) {
  const { px, scale } = useView();
  const { unit, show } = usePreferences();
  const meant = pointer && placeMeant(pattern, pointer, from, scale, unit);
  const start = from && pointOfSpot(pattern, from);
  const dots = [start, meant?.point].filter((p) => p != null);
  const on = meant && alongEdge(pattern, meant.spot);
  const said =
    on &&
    [
      meant.reason === 'square' || meant.reason === 'parallel' ? meant.reason : '',
      `${show(Math.min(on.atMm, on.lengthMm - on.atMm))} along ${on.edge.letter}`,
      start ? `${show(distance(start, meant.point))} long` : '',
    ]
      .filter(Boolean)
      .join(' · ');
  return (
    <g pointerEvents="none">
      {start && meant && (
        <line
          x1={px(start)[0]}
          y1={px(start)[1]}
          x2={px(meant.point)[0]}
          y2={px(meant.point)[1]}
          stroke="var(--torch)"
          strokeWidth={2.4}
          strokeDasharray="11 4"
        />
      )}
      {dots.map((p, i) => (
        <circle key={i} cx={px(p)[0]} cy={px(p)[1]} r={7} fill="none" stroke="var(--torch)" strokeWidth={2.6} />
      ))}
      {meant && said && <Figure at={meant.point} text={said} colour="var(--ink)" ground="var(--panel)" dy={-24} />}
    </g>
  );
}

/** The lines that a dragged corner has caught on. */
export function Guides({ guides }: { guides: [Vec, Vec][] }) {
  const { px } = useView();
  return (
    <g pointerEvents="none" stroke="var(--layout)" strokeWidth={1.4} strokeDasharray="3 5">
      {guides.map(([a, b], i) => (
        <line key={i} x1={px(a)[0]} y1={px(a)[1]} x2={px(b)[0]} y2={px(b)[1]} />
      ))}
    </g>
  );
}
