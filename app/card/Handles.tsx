import { memo } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import type { Vec } from '#core/measure/vector';
import { useView } from '../drawing/Drawing';
import type { Pick } from '../drawing/pick';

/** The corners of the card, to be dragged or picked. */
export function Handles({
  pattern,
  pick,
  onPick,
}: {
  pattern: PatternDoc;
  pick: string | null;
  onPick?: (pick: Pick) => void;
}) {
  const { px } = useView();
  const half = pattern.corners.length > 80 ? 2.5 : 5;
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
            half={half}
            picked={pick === c.id}
            onPick={onPick}
          />
        );
      })}
    </g>
  );
}

type HandleProps = {
  id: string;
  number: number;
  x: number;
  y: number;
  half: number;
  picked: boolean;
  onPick?: (pick: Pick) => void;
};

const Handle = memo(function Handle({ id, number, x, y, half, picked, onPick }: HandleProps) {
  return (
    <rect
      role={onPick ? 'button' : undefined}
      tabIndex={onPick ? 0 : undefined}
      aria-label={`Corner ${number}`}
      data-corner={number}
      onKeyDown={(event) =>
        (event.key === 'Enter' || event.key === ' ') && onPick?.({ kind: 'corner', id })
      }
      x={x - half}
      y={y - half}
      width={2 * half}
      height={2 * half}
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
