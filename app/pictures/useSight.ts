import { useCallback, useState } from 'react';

/**
 * The part of a picture that is seen, in its own pixels: where its upper left corner is, and how
 * wide it is.
 */
export type Sight = { x: number; y: number; width: number };

/** No closer than this many pixels across. */
const CLOSEST = 60;

/**
 * Looking closer and about in a picture of a size, shown in a frame of `frame` (width over height).
 */
export function useSight(width: number, height: number, frame: number) {
  const whole = wholeOf(width, height, frame);
  const [sight, setSight] = useState<Sight | null>(null);
  const seen = sight ?? whole;
  const zoom = useCallback(
    (by: number, at?: readonly [number, number]) =>
      setSight((now) => {
        const from = now ?? wholeOf(width, height, frame);
        const next = Math.min(
          wholeOf(width, height, frame).width,
          Math.max(CLOSEST, from.width / by),
        );
        const [ax, ay] = at ?? [from.x + from.width / 2, from.y + from.width / frame / 2];
        const share = next / from.width;
        return held(
          { x: ax + (from.x - ax) * share, y: ay + (from.y - ay) * share, width: next },
          width,
          height,
          frame,
        );
      }),
    [width, height, frame],
  );
  const pan = useCallback(
    (dx: number, dy: number) =>
      setSight((now) => {
        const from = now ?? wholeOf(width, height, frame);
        return held({ ...from, x: from.x + dx, y: from.y + dy }, width, height, frame);
      }),
    [width, height, frame],
  );
  return {
    sight: seen,
    isWhole: seen.width >= whole.width,
    zoom,
    pan,
    all: useCallback(() => setSight(null), []),
  };
}

const wholeOf = (width: number, height: number, frame: number): Sight => {
  const across = Math.max(width, height * frame);
  return { x: (width - across) / 2, y: (height - across / frame) / 2, width: across };
};

/** Kept over the picture: its middle never leaves it. */
const held = (
  { x, y, width: across }: Sight,
  width: number,
  height: number,
  frame: number,
): Sight => {
  const clamp = (value: number, size: number, view: number) =>
    Math.min(size - view / 2, Math.max(-view / 2, value));
  return { x: clamp(x, width, across), y: clamp(y, height, across / frame), width: across };
};
