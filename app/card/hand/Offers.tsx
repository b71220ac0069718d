import type { Vec } from '#core/measure/vector';
import { PHONE_PX, useView } from '../../drawing/Drawing';
import { Pickable } from '../../drawing/marks';

export type Offer = { label: string; key: string; act: () => void };

const HIGH = 46;
const GAP = 6;
/** Kept clear along the rim of the picture, pixels. */
const RIM = 6;
/** How far from the place the offers hang, pixels. */
const AWAY = 74;

/**
 * What can be done where one touched, as slips on a thread from that place: beside the piece where
 * there is room, never out of the picture. Each has a key of its own.
 */
export function Offers({ at, out, offers }: { at: Vec; out: Vec; offers: readonly Offer[] }) {
  const { px, width, height } = useView();
  // On a phone what can be done stands under the drawing, at thumb's reach; here is only where.
  const slips = width >= PHONE_PX ? offers : [];
  const [x, y] = px(at);
  const wide = Math.max(0, ...slips.map((o) => o.label.length)) * 8.6 + 58;
  const high = slips.length * (HIGH + GAP) - GAP;
  // Beside the piece; where that is out of the picture above or below the place, last over the
  // piece: never on the place.
  const ways: Vec[] = [out, [0, 1], [0, -1], [-out[0], -out[1]]];
  const corners = ways.map((way): Vec => [
    x + way[0] * (AWAY + wide / 2) - wide / 2,
    y - way[1] * (AWAY + high / 2 - 20) - high / 2,
  ]);
  const inPicture = ([l, t]: Vec) =>
    l >= RIM && t >= RIM && l + wide <= width - RIM && t + high <= height - RIM;
  const held = (value: number, most: number) => Math.max(RIM, Math.min(most - RIM, value));
  const [l, t] = corners.find(inPicture) ?? corners[0]!;
  const [left, top] = [held(l, width - wide), held(t, height - high)];
  return (
    <g>
      {slips.length > 0 && (
        <path
          d={`M${x} ${y}L${left + wide / 2} ${top + high / 2}`}
          stroke="var(--torch)"
          strokeWidth={1.6}
          strokeDasharray="3 4"
          pointerEvents="none"
        />
      )}
      <circle
        cx={x}
        cy={y}
        r={7}
        fill="none"
        stroke="var(--torch)"
        strokeWidth={2.6}
        pointerEvents="none"
      />
      {slips.map(({ label, key, act }, i) => (
        <Slip
          key={label}
          label={label}
          hotkey={key}
          act={act}
          x={left}
          y={top + i * (HIGH + GAP)}
          wide={wide}
        />
      ))}
    </g>
  );
}

type SlipProps = {
  label: string;
  hotkey: string;
  act: () => void;
  x: number;
  y: number;
  wide: number;
};

function Slip({ label, hotkey, act, x, y, wide }: SlipProps) {
  return (
    // What is done here is no touch of the card beneath.
    <g
      transform={`translate(${x} ${y})`}
      onClick={(event) => event.stopPropagation()}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <Pickable label={label} hotkey={hotkey} onPick={act}>
        <path
          d={`M9 0H${wide}V${HIGH}H9L0 ${HIGH - 9}V9Z`}
          fill="var(--panel)"
          stroke="var(--torch)"
          strokeWidth={2}
        />
        <circle cx={12} cy={HIGH / 2} r={3.4} fill="none" stroke="var(--torch)" strokeWidth={1.6} />
        <text
          x={24}
          y={HIGH / 2 + 6}
          fontFamily="Barlow"
          fontSize={17}
          fontWeight={500}
          fill="var(--ink)"
        >
          {label}
        </text>
        <text
          x={wide - 12}
          y={HIGH / 2 + 5}
          textAnchor="end"
          className="figure"
          fontSize={13}
          fill="var(--pencil)"
        >
          {hotkey}
        </text>
      </Pickable>
    </g>
  );
}
