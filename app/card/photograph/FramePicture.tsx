import type { Paper } from '#core/picture/scaleFrame';
import { scaleFrame } from '#core/picture/scaleFrame';
import { useView } from '../../drawing/Drawing';

/** The scale frame as it lies on the bench, a card to be laid in it. */
export function FramePicture({ paper }: { paper: Paper }) {
  const { px, scale } = useView();
  const { widthMm, heightMm, black, inside } = scaleFrame(paper);
  const [x, y] = px([0, heightMm]);
  const [low, , high] = inside;
  const [ix, iy] = px([low![0], high![1]]);
  const [wide, tall] = [(high![0] - low![0]) * scale, (high![1] - low![1]) * scale];
  return (
    <g>
      <rect
        x={x + 5}
        y={y + 7}
        width={widthMm * scale}
        height={heightMm * scale}
        fill="var(--shadow)"
      />
      <rect x={x} y={y} width={widthMm * scale} height={heightMm * scale} fill="#fbfaf6" />
      {black.map((polygon, i) => (
        <polygon key={i} points={polygon.map((p) => px(p).join(',')).join(' ')} fill="#1d1c1a" />
      ))}
      <rect
        x={ix}
        y={iy}
        width={wide}
        height={tall}
        fill="var(--manila)"
        opacity={0.35}
        stroke="var(--manila-edge)"
        strokeDasharray="8 6"
        strokeWidth={2}
      />
      <text
        x={ix + wide / 2}
        y={iy + tall / 2}
        textAnchor="middle"
        fontSize={18}
        fill="var(--card-pencil)"
      >
        The card goes here
      </text>
    </g>
  );
}
