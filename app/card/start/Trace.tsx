import { useRef } from 'react';
import type { PointerEvent } from 'react';
import type { Path } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { useView } from '../../drawing/Drawing';
import { usePathData } from '../../drawing/marks';

type Props = {
  points: readonly Vec[];
  closed: Path | null;
  faint?: boolean;
  onDrag?: (leg: number, p: Vec) => void;
};

/**
 * An outline that is not a card yet: what was typed as a pencil walk with numbered corners, and the
 * card it would make.
 */
export function Trace({ points, closed, faint, onDrag }: Props) {
  const { px, scale } = useView();
  const data = usePathData();
  const held = useRef<{ leg: number; from: Vec; x: number; y: number } | null>(null);
  const grab = (leg: number, from: Vec) => (event: PointerEvent<SVGCircleElement>) => {
    if (!onDrag) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { leg, from, x: event.clientX, y: event.clientY };
  };
  const pull = (event: PointerEvent<SVGCircleElement>) => {
    const h = held.current;
    if (h)
      onDrag?.(h.leg, [
        Math.round(h.from[0] + (event.clientX - h.x) / scale),
        Math.round(h.from[1] - (event.clientY - h.y) / scale),
      ]);
  };
  return (
    <g>
      {closed && (
        <path
          d={data(closed)}
          fill="var(--manila)"
          opacity={faint ? 0.35 : 0.9}
          stroke="var(--manila-edge)"
          strokeWidth={2}
          strokeDasharray={faint ? '8 6' : undefined}
        />
      )}
      {points.length > 1 && (
        <polyline
          points={points.map((p) => px(p).join(',')).join(' ')}
          fill="none"
          stroke="var(--card-pencil)"
          strokeWidth={1.6}
        />
      )}
      {points.map((p, i) => {
        const [x, y] = px(p);
        return (
          <g key={i}>
            <circle
              cx={x}
              cy={y}
              r={i === 0 ? 7 : 5}
              fill={i === 0 ? 'var(--torch)' : 'var(--card-pencil)'}
            />
            {onDrag && i > 0 && (
              <circle
                cx={x}
                cy={y}
                r={18}
                fill="transparent"
                style={{ cursor: 'grab', touchAction: 'none' }}
                onPointerDown={grab(i - 1, p)}
                onPointerMove={pull}
                onPointerUp={() => (held.current = null)}
              />
            )}
            <text x={x + 10} y={y - 9} fontSize={14} className="figure" fill="var(--card-pencil)">
              {i === points.length - 1 && onDrag ? 'end' : i + 1}
            </text>
          </g>
        );
      })}
    </g>
  );
}
