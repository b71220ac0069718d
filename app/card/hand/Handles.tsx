import { memo } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import type { Vec } from '#core/measure/vector';
import { useView } from '../../drawing/Drawing';
import type { Pick } from '../../drawing/pick';

/** A card of more corners than this is a traced one: its handles are small, and drawn as one. */
const MANY = 80;

type Props = {
  pattern: PatternDoc;
  pick: string | null;
  onPick?: (pick: Pick) => void;
};

/** The corners of the card, to be dragged or picked. */
export function Handles(props: Props) {
  const { px } = useView();
  const { pattern, pick, onPick } = props;
  if (pattern.corners.length > MANY) return <ManyHandles {...props} />;
  return (
    <g>
      {pattern.corners.map((c, i) => {
        const [x, y] = px([c.x, c.y]);
        return (
          <Handle
            key={c.id}
            id={c.id}
            number={i + 1}
            x={x}
            y={y}
            picked={pick === c.id}
            onPick={onPick}
          />
        );
      })}
    </g>
  );
}

/**
 * The corners of a traced card as one mark, which is one stop of the keyboard: Enter picks the next
 * corner, with Shift the one before.
 */
function ManyHandles({ pattern: { corners }, pick, onPick }: Props) {
  const { px } = useView();
  const h = SMALL_PX * Math.SQRT2;
  const diamond = ({ x, y }: { x: number; y: number }) => {
    const [cx, cy] = px([x, y]);
    return `M${cx.toFixed(1)} ${(cy - h).toFixed(1)}l${h} ${h}l${-h} ${h}l${-h} ${-h}z`;
  };
  const at = corners.findIndex(({ id }) => id === pick);
  const step = (by: number) => {
    const next = at < 0 ? (by > 0 ? 0 : corners.length - 1) : at + by;
    onPick?.({ kind: 'corner', id: corners[(next + corners.length) % corners.length]!.id });
  };
  return (
    <>
      <path
        d={corners.map(diamond).join('')}
        role={onPick ? 'button' : undefined}
        tabIndex={onPick ? 0 : undefined}
        aria-label={`${corners.length} corners: Enter picks the next one`}
        data-corners={corners.length}
        onKeyDown={(event) => {
          if (event.key === 'Enter' || event.key === ' ') step(event.shiftKey ? -1 : 1);
        }}
        fill="var(--manila)"
        stroke="var(--card-pencil)"
        strokeWidth={1.8}
        style={{ cursor: onPick ? 'grab' : 'crosshair' }}
      />
      {at >= 0 && <path d={diamond(corners[at]!)} fill="var(--torch)" pointerEvents="none" />}
    </>
  );
}

const SMALL_PX = 2.5;
const HALF_PX = 5;

type HandleProps = {
  id: string;
  number: number;
  x: number;
  y: number;
  picked: boolean;
  onPick?: (pick: Pick) => void;
};

const Handle = memo(function Handle({ id, number, x, y, picked, onPick }: HandleProps) {
  return (
    <rect
      role={onPick ? 'button' : undefined}
      tabIndex={onPick ? 0 : undefined}
      aria-label={`Corner ${number}`}
      data-corner={number}
      onKeyDown={(event) =>
        (event.key === 'Enter' || event.key === ' ') && onPick?.({ kind: 'corner', id })
      }
      x={x - HALF_PX}
      y={y - HALF_PX}
      width={2 * HALF_PX}
      height={2 * HALF_PX}
      transform={`rotate(45 ${x} ${y})`}
      fill={picked ? 'var(--torch)' : 'var(--manila)'}
      stroke={picked ? 'var(--torch)' : 'var(--card-pencil)'}
      strokeWidth={1.8}
      style={{ cursor: onPick ? 'grab' : 'crosshair' }}
    />
  );
});

/**
 * A ring on the middle of each side of the touched edge: dragged, it bends the side into an arc.
 */
export function Bows({ bows }: { bows: readonly { side: string; at: Vec }[] }) {
  const { px } = useView();
  return (
    <g>
      {bows.map(({ side, at }, i) => {
        const [x, y] = px(at);
        return (
          <circle
            key={side}
            data-bow={i + 1}
            cx={x}
            cy={y}
            r={8}
            fill="var(--manila)"
            stroke="var(--torch)"
            strokeWidth={2.6}
            style={{ cursor: 'grab' }}
          />
        );
      })}
    </g>
  );
}
