/** Where the name of a point is written: its anchor beside it, in the units of the drawing. */
export type NameAt = { x: number; y: number; anchor: 'start' | 'middle' | 'end' };

type Rect = { left: number; right: number; top: number; bottom: number };
const overlap = (a: Rect, b: Rect) =>
  Math.min(a.right, b.right) - Math.max(a.left, b.left) > 0 &&
  Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 0;

/** Above or below, over the middle or running out to a side, best first: [across, down, anchor]. */
const TRIES = [
  [0, -15, 'middle'],
  [0, 25, 'middle'],
  [13, 5, 'start'],
  [-13, 5, 'end'],
  [0, -15, 'start'],
  [0, -15, 'end'],
  [0, 25, 'start'],
  [0, 25, 'end'],
  [0, -34, 'middle'],
  [0, 44, 'middle'],
] as const;

/**
 * Where names are written so that they lie neither on each other nor on points nor over the rim, as
 * far as there is room. `unit`: a pixel in the units of the drawing; y runs down.
 */
export function namesAt(
  points: readonly { at: readonly [number, number]; name: string }[],
  box: Rect,
  size: number,
  unit: number,
): NameAt[] {
  const dots = points.map(({ at: [x, y] }): Rect => ({
    left: x - 8 * unit,
    right: x + 8 * unit,
    top: y - 8 * unit,
    bottom: y + 8 * unit,
  }));
  const written: Rect[] = [];
  return points.map(({ at: [x, y], name }, i) => {
    const width = 0.52 * size * name.length;
    const tried = TRIES.map(([across, down, anchor]) => {
      const at: NameAt = { x: x + across * unit, y: y + down * unit, anchor };
      const left = at.x - (anchor === 'start' ? 0 : anchor === 'end' ? width : width / 2);
      const rect: Rect = {
        left,
        right: left + width,
        top: at.y - 0.8 * size,
        bottom: at.y + 0.25 * size,
      };
      const over =
        rect.left < box.left ||
        rect.right > box.right ||
        rect.top < box.top ||
        rect.bottom > box.bottom;
      const hits =
        written.filter((other) => overlap(other, rect)).length * 3 +
        dots.filter((dot, k) => k !== i && overlap(dot, rect)).length;
      return { at, rect, cost: hits + (over ? 4 : 0) };
    });
    const best = tried.reduce((least, one) => (one.cost < least.cost ? one : least));
    written.push(best.rect);
    return best.at;
  });
}
