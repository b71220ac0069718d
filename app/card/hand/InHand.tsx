import type { SnappedPlace } from '#core/card/foldPlace';
import { alongEdge, snapPlace } from '#core/card/foldPlace';
import type { Spot } from '#core/card/outline';
import { pointOfSpot } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { Unit } from '#core/measure/length';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import { useView } from '../../drawing/Drawing';
import { Figure } from '../../drawing/marks';
import { usePreferences } from '../../frame/preferences';

/** How near the pointer must be to what it means, in pixels. */
const REACH_PX = 14;

/** The place on the outline that is meant by touching the card at `p`, and its edge. */
export function placeMeant(
  pattern: PatternDoc,
  p: Vec,
  from: Spot | null,
  scale: number,
  unit: Unit,
): { edge: string; at: SnappedPlace } | null {
  const at = snapPlace(pattern, p, { from, reachMm: REACH_PX / scale, unit });
  const edge = at && pattern.edges.find((e) => e.sides.includes(at.spot.side));
  return edge ? { edge: edge.id, at } : null;
}

/**
 * The fold being laid: where it begins, where it would end by the pointer or by the keys, and how
 * far along the edge that is.
 */
export function PlaceInHand({
  pattern,
  from,
  pointer,
  to,
}: {
  pattern: PatternDoc;
  from: Spot | null;
  pointer: Vec | null;
  to: SnappedPlace | null;
}) {
  const { px, scale } = useView();
  const { unit, show } = usePreferences();
  const meant = to ?? (pointer && placeMeant(pattern, pointer, from, scale, unit)?.at);
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
        <circle
          key={i}
          cx={px(p)[0]}
          cy={px(p)[1]}
          r={7}
          fill="none"
          stroke="var(--torch)"
          strokeWidth={2.6}
        />
      ))}
      {meant && said && (
        <Figure at={meant.point} text={said} colour="var(--ink)" ground="var(--panel)" dy={-24} />
      )}
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

/**
 * What a drag has changed, beside what was dragged: it may have been typed or measured, and is not
 * changed unseen.
 */
export function Moved({ at, said }: { at: Vec; said: readonly string[] }) {
  return (
    <g>
      {said.slice(0, 4).map((text, i, all) => (
        <Figure
          key={text}
          at={at}
          text={text}
          colour="var(--ink)"
          ground="var(--panel)"
          dy={-26 - 22 * (all.length - 1 - i)}
        />
      ))}
    </g>
  );
}
