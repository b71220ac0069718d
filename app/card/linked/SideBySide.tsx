import useMediaQuery from '@mui/material/useMediaQuery';
import { useMemo } from 'react';
import type { EdgeDistance } from '#core/card/link/edgeDistances';
import { edgeDistances } from '#core/card/link/edgeDistances';
import { translated } from '#core/card/link/alignment';
import { outlineOf, segmentsOfEdge } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { Box } from '#core/measure/path';
import { box } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { CardPicture } from '../../drawing/CardPicture';
import { Drawing, useView } from '../../drawing/Drawing';
import { Figure, usePathData } from '../../drawing/marks';
import { usePreferences } from '../../frame/preferences';

/** A card, what it is called, and the other one laid over it as it lies. */
export type Side = { name: string; doc: PatternDoc; other: PatternDoc };

/** Edges nearer to each other than this lie on each other, as far as a maker can tell, mm. */
export const TOLD_APART_MM = 0.05;

/**
 * Two cards side by side as they sit on the vehicle; where an edge of one lies off the other's,
 * that is drawn and measured.
 */
export function SideBySide({ left, right }: { left: Side; right: Side }) {
  // On a phone there is no room beside: one above the other.
  const stacked = useMediaQuery('(max-width: 600px)');
  const placed = useMemo(() => sideBySide(left, right, stacked), [left, right, stacked]);
  return (
    <Drawing
      bounds={placed.bounds}
      ground="card"
      label={`${left.name} and ${right.name} side by side`}
    >
      {[placed.left, placed.right].map((side, i) => (
        <OneSide key={i} side={side} />
      ))}
    </Drawing>
  );
}

/** How far apart the two stand, as a share of the wider: room for the tags of both. */
const GAP = 0.42;

/** Room for a name above the upper of two, as a share of both. */
const NAME = 0.2;

type Placed = Side & { apart: EdgeDistance[] };

const boxes = ({ doc, other }: Side): Box[] => [doc, other].map((one) => box(outlineOf(one).path));
const around = (all: readonly Box[]): Box => ({
  minX: Math.min(...all.map((b) => b.minX)),
  maxX: Math.max(...all.map((b) => b.maxX)),
  minY: Math.min(...all.map((b) => b.minY)),
  maxY: Math.max(...all.map((b) => b.maxY)),
});

/**
 * The right one is shoved so that it stands clear of the left one, their lower ends level; or under
 * it.
 */
function sideBySide(
  left: Side,
  right: Side,
  stacked: boolean,
): { left: Placed; right: Placed; bounds: Box } {
  const [a, b] = [around(boxes(left)), around(boxes(right))];
  const gap = GAP * Math.max(a.maxX - a.minX, b.maxX - b.minX, 0.6 * (a.maxY - a.minY));
  const by: Vec = stacked
    ? [a.minX - b.minX, a.minY - gap - b.maxY]
    : [a.maxX + gap - b.minX, a.minY - b.minY];
  const over = { ...right, doc: translated(right.doc, by), other: translated(right.other, by) };
  const placed = (side: Side): Placed => ({
    ...side,
    apart: edgeDistances(side.doc, side.other).filter(({ mm }) => Math.abs(mm) > TOLD_APART_MM),
  });
  const bounds = around([a, ...boxes(over)]);
  // The name of the upper one stands above it.
  const named = stacked
    ? { ...bounds, maxY: bounds.maxY + NAME * (bounds.maxY - bounds.minY) }
    : bounds;
  return { left: placed(left), right: placed(over), bounds: named };
}

function OneSide({ side: { name, doc, other, apart } }: { side: Placed }) {
  const { px } = useView();
  const { briefSigned } = useSigned();
  const data = usePathData();
  const bounds = box(outlineOf(doc).path);
  const [x, y] = px([(bounds.minX + bounds.maxX) / 2, bounds.maxY]);
  const edgeOf = (of: PatternDoc, id: string) => of.edges.find((edge) => edge.id === id)!;
  return (
    <g role="group" aria-label={name}>
      <CardPicture pattern={doc} pick={null} lengths={false} />
      <g pointerEvents="none">
        {apart.map(({ edge }) => (
          <g key={edge}>
            <path
              d={data(segmentsOfEdge(other, edgeOf(other, edge)), false)}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={2}
              strokeDasharray="3 5"
              strokeLinecap="round"
            />
            <path
              d={data(segmentsOfEdge(doc, edgeOf(doc, edge)), false)}
              fill="none"
              stroke="var(--torch)"
              strokeWidth={3.5}
              strokeLinecap="round"
            />
          </g>
        ))}
        {apart.map(({ edge, mm, at }) => (
          <Figure
            key={edge}
            at={at}
            text={briefSigned(mm)}
            colour="var(--torch)"
            ground="var(--panel)"
            size={16}
          />
        ))}
        <text
          x={x}
          y={y - 66}
          textAnchor="middle"
          fontFamily="Barlow Condensed"
          fontWeight={600}
          fontSize={20}
          fill="var(--ink)"
        >
          {name}
        </text>
      </g>
    </g>
  );
}

/** A length with its sign: how far out, or in. */
function useSigned() {
  const { brief } = usePreferences();
  return { briefSigned: (mm: number) => `${mm < 0 ? '−' : '+'}${brief(Math.abs(mm))}` };
}
