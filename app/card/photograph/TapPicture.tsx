import { useRef, useState } from 'react';
import type { ReactNode } from 'react';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import { Drawing, useView } from '../../drawing/Drawing';

/** A place in a picture: shares of its width and of its height from the top. */
export type Share = Vec;
export type Pin = { name: string; at: Share; gathered?: boolean };

/** How near a touch takes a pin, px. */
const GRAB_PX = 26;
/** Moved by less, it was only touched, px. */
const STILL_PX = 4;

type Props = {
  url: string;
  label: string;
  pins: readonly Pin[];
  onMove: (pin: number, at: Share) => void;
  /** A touch beside every pin; nothing is put there where it is left out. */
  onTap?: (at: Share) => void;
  /** A pin that was touched and not dragged. */
  onPin?: (pin: number) => void;
  onSize?: (wide: number, high: number) => void;
  /** Drawn over the picture, under the pins. */
  children?: (on: (at: Share) => Vec) => ReactNode;
};

/**
 * A picture as it was taken, with pins that are put down by touch and dragged; it pans and zooms
 * like any drawing.
 */
export function TapPicture({ url, label, pins, onMove, onTap, onPin, onSize, children }: Props) {
  const [size, setSize] = useState<{ wide: number; high: number }>({ wide: 400, high: 300 });
  const held = useRef<number | null>(null);
  const moved = useRef(false);
  const grabbed = useRef<Vec>([0, 0]);
  const on = ([u, v]: Share): Vec => [u * size.wide, (1 - v) * size.high];
  const share = ([x, y]: Vec): Share => [clamped(x / size.wide), clamped(1 - y / size.high)];
  const pinAt = (p: Vec, scale: number): number | null =>
    pins
      .map(({ at }, i) => ({ i, off: distance(on(at), p) }))
      .filter(({ off }) => off * scale <= GRAB_PX)
      .sort((a, b) => a.off - b.off)[0]?.i ?? null;
  const onPicture = ([x, y]: Vec) => x >= 0 && y >= 0 && x <= size.wide && y <= size.high;
  return (
    <Drawing
      key={`${size.wide} ${size.high}`}
      bounds={{ minX: 0, maxX: size.wide, minY: 0, maxY: size.high }}
      ground="blank"
      label={label}
      onDown={(p, scale) => {
        held.current = pinAt(p, scale);
        moved.current = false;
        grabbed.current = p;
        return held.current !== null;
      }}
      onMove={(p, scale) => {
        if (held.current === null) return;
        // A finger that rests trembles.
        if (!moved.current && distance(p, grabbed.current) * scale < STILL_PX) return;
        moved.current = true;
        onMove(held.current, share(p));
      }}
      onUp={() => {
        held.current = null;
      }}
      onTouch={(p, scale) => {
        const touched = pinAt(p, scale);
        if (!moved.current && touched !== null) onPin?.(touched);
        if (!moved.current && touched === null && onPicture(p)) onTap?.(share(p));
        moved.current = false;
      }}
    >
      <Picture
        url={url}
        size={size}
        onSize={(wide, high) => {
          onSize?.(wide, high);
          if (wide !== size.wide || high !== size.high) setSize({ wide, high });
        }}
      />
      {children?.(on)}
      {pins.map(({ name, at, gathered }, i) => (
        <PinMark
          key={i}
          name={name}
          at={on(at)}
          gathered={gathered}
          onPress={onPin && (() => onPin(i))}
          onNudge={(by) =>
            onMove(i, [clamped(at[0] + by[0] / size.wide), clamped(at[1] + by[1] / size.high)])
          }
        />
      ))}
    </Drawing>
  );
}

const clamped = (share: number) => Math.min(1, Math.max(0, share));

/** The picture; its size comes with it. */
function Picture({
  url,
  size,
  onSize,
}: {
  url: string;
  size: { wide: number; high: number };
  onSize: (wide: number, high: number) => void;
}) {
  const { px, scale } = useView();
  const [x, y] = px([0, size.high]);
  return (
    <>
      <foreignObject width={1} height={1} opacity={0} pointerEvents="none">
        <img
          src={url}
          alt=""
          onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
            onSize(naturalWidth, naturalHeight)
          }
        />
      </foreignObject>
      <image
        href={url}
        x={x}
        y={y}
        width={size.wide * scale}
        height={size.high * scale}
        preserveAspectRatio="none"
        pointerEvents="none"
      />
    </>
  );
}

/** Light under dark, so that a pin is seen on anything. */
const STROKES = [
  ['var(--panel)', 5],
  ['var(--torch)', 2.2],
] as const;

const NUDGES: Record<string, Vec> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

type PinMarkProps = {
  name: string;
  at: Vec;
  gathered?: boolean;
  onPress?: () => void;
  onNudge: (by: Vec) => void;
};

/**
 * A pin stuck in the picture: a small cross in a ring, open in the middle, with its name on a flag;
 * arrow keys move it by a pixel.
 */
function PinMark({ name, at, gathered, onPress, onNudge }: PinMarkProps) {
  const { px } = useView();
  const [x, y] = px(at);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Pin ${name}: arrow keys move it`}
      aria-pressed={gathered}
      className="pickable"
      style={{ cursor: 'move' }}
      onKeyDown={(event) => {
        const by = NUDGES[event.key];
        if (!by && (event.key === 'Enter' || event.key === ' ')) {
          event.preventDefault();
          onPress?.();
        }
        if (!by) return;
        event.preventDefault();
        onNudge(event.shiftKey ? [10 * by[0], 10 * by[1]] : by);
      }}
    >
      <circle
        cx={x}
        cy={y}
        r={GRAB_PX - 4}
        fill={gathered ? 'var(--torch)' : 'transparent'}
        opacity={0.4}
      />
      {STROKES.map(([stroke, width]) => (
        <g key={stroke} stroke={stroke} strokeWidth={width} fill="none">
          <circle cx={x} cy={y} r={11} />
          <path d={`M${x - 16} ${y}h11M${x + 5} ${y}h11M${x} ${y - 16}v11M${x} ${y + 5}v11`} />
        </g>
      ))}
      <g transform={`translate(${x + 14} ${y - 30})`}>
        <rect width={name.length * 9 + 14} height={22} rx={2} fill="var(--torch)" />
        <text x={7} y={16} fontSize={15} fontWeight={600} fill="var(--panel)" className="condensed">
          {name}
        </text>
      </g>
    </g>
  );
}
