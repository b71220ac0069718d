import type { PictureMark } from '#core/picture/marks';

/** Where the name of a mark stands: its pin, its middle, its head, its first point. */
function nameAt(mark: PictureMark): readonly [number, number] {
  switch (mark.kind) {
    case 'pin':
      return mark.at;
    case 'ring':
      return [mark.at[0], mark.at[1] - mark.radius];
    case 'arrow':
      return mark.from;
    case 'line':
      return mark.points[0]!;
  }
}

/**
 * What is drawn over a picture, in its own coordinates. `unit`: number of picture pixels to the
 * width of a line on the screen. Every line is drawn twice, dark under light, so that it is seen on
 * rust as well as on primer.
 */
export function Marks({
  marks,
  unit,
  picked = null,
  onPick,
}: {
  marks: readonly PictureMark[];
  unit: number;
  picked?: string | null;
  onPick?: (id: string, event: React.PointerEvent) => void;
}) {
  return (
    <g>
      {marks.map((mark) => {
        const [x, y] = nameAt(mark);
        const colour = mark.id === picked ? 'var(--torch)' : '#ffd24a';
        const body = shapeOf(mark, unit);
        return (
          <g
            key={mark.id}
            style={onPick && { cursor: 'move' }}
            onPointerDown={onPick && ((event) => onPick(mark.id, event))}
          >
            {onPick && body({ stroke: 'transparent', strokeWidth: 22 * unit })}
            {body({ stroke: '#1d1a15', strokeWidth: 5 * unit })}
            {body({ stroke: colour, strokeWidth: 2.6 * unit })}
            {mark.name && (
              <text
                x={x + (mark.kind === 'pin' ? 9 * unit : 0)}
                y={y - (mark.kind === 'pin' ? 12 : 6) * unit}
                fontSize={15 * unit}
                fontWeight={600}
                fill={colour}
                stroke="#1d1a15"
                strokeWidth={3.5 * unit}
                paintOrder="stroke"
                fontFamily="Barlow, sans-serif"
              >
                {mark.name}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

type Pen = { stroke: string; strokeWidth: number };

function shapeOf(mark: PictureMark, unit: number): (pen: Pen) => React.ReactNode {
  const line = { fill: 'none', strokeLinecap: 'round', strokeLinejoin: 'round' } as const;
  switch (mark.kind) {
    case 'pin': {
      const [x, y] = mark.at;
      const d = `M${x} ${y} L${x} ${y - 16 * unit} m${-5 * unit} 0 a${5 * unit} ${5 * unit} 0 1 0 ${10 * unit} 0 a${5 * unit} ${5 * unit} 0 1 0 ${-10 * unit} 0`;
      return (pen) => <path d={d} {...line} {...pen} />;
    }
    case 'ring':
      return (pen) => (
        <circle
          cx={mark.at[0]}
          cy={mark.at[1]}
          r={Math.max(mark.radius, 3 * unit)}
          {...line}
          {...pen}
        />
      );
    case 'arrow': {
      const [[ax, ay], [bx, by]] = [mark.from, mark.to];
      const angle = Math.atan2(by - ay, bx - ax);
      const barb = (turn: number) =>
        `M${bx} ${by} L${bx - 14 * unit * Math.cos(angle + turn)} ${by - 14 * unit * Math.sin(angle + turn)}`;
      return (pen) => (
        <path d={`M${ax} ${ay} L${bx} ${by} ${barb(0.5)} ${barb(-0.5)}`} {...line} {...pen} />
      );
    }
    case 'line':
      return (pen) => (
        <polyline points={mark.points.map((p) => p.join(',')).join(' ')} {...line} {...pen} />
      );
  }
}
