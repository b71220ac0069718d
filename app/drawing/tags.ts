import { inside, points } from '#core/measure/path';
import { middleOf } from '#core/measure/run';
import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import type { View } from './Drawing';

export type TagAt = { anchor: Vec; out: Vec; at: Vec };

export type TagGiven = {
  run: readonly Segment[];
  /** How far out it hangs, pixels, where there is room. */
  away: number;
  halfWidth: number;
};

const HALF_HEIGHT = 15;
/** More tags than this are hung straight out: there is no room to keep them clear of each other. */
const MOST = 60;

/** Half the width of a tag, pixels, by what stands on it. */
export const tagHalfWidth = (letter: string, note = ''): number =>
  (34 + 10 * (letter.length - 1) + (note ? 8 + 7.9 * note.length : 0)) / 2;

/**
 * Directions and distances that are tried for a tag, best first: straight out, then farther and
 * aside.
 */
const TRIES = [0, 14, 28, 46, 68, 92]
  .flatMap((more) => [0, 0.35, -0.35, 0.75, -0.75, 1.2, -1.2].map((turn) => ({ more, turn })))
  .map((t) => ({ ...t, cost: t.more + 26 * Math.abs(t.turn) }))
  .sort((a, b) => a.cost - b.cost);

type Rect = { x: number; y: number; w: number; h: number };
const overlap = (a: Rect, b: Rect): boolean =>
  Math.abs(a.x - b.x) < a.w + b.w && Math.abs(a.y - b.y) < a.h + b.h;

/**
 * Where the tags of a drawing hang, in pixels: out from the middle of each run and clear of the
 * piece, of the screen's rim and of each other, as far as there is room. Null for those that want
 * no tag and for runs without length.
 */
export function hangTags(
  given: readonly (TagGiven | null)[],
  outline: readonly Segment[],
  view: View,
): (TagAt | null)[] {
  const { px, width, height } = view;
  const tags = given.map((one): (TagAt & { away: number; halfWidth: number }) | null => {
    const middle = one && middleOf(one.run);
    if (!middle) return null;
    const { away, halfWidth } = one;
    const anchor = px(middle.at);
    const out: Vec = [middle.out[0], -middle.out[1]];
    return { anchor, out, at: anchor, away, halfWidth };
  });
  const crowded = tags.filter((tag) => tag !== null).length > MOST;
  const piece = crowded ? [] : points(outline, 1).map(px);
  const hung: Rect[] = [];
  return tags.map((tag): TagAt | null => {
    if (!tag) return null;
    const { anchor, out, halfWidth } = tag;
    // A wide label hung sideways must clear its edge with its whole half width.
    const reach = (turn: number): Vec => {
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      return [out[0] * c - out[1] * s, out[0] * s + out[1] * c];
    };
    let best: { rect: Rect; cost: number } | null = null;
    for (const { more, turn, cost } of TRIES) {
      if (best && best.cost <= cost) break;
      const way = reach(turn);
      const far = tag.away + more;
      const rect: Rect = {
        x: anchor[0] + way[0] * (far + halfWidth - HALF_HEIGHT),
        y: anchor[1] + way[1] * far,
        w: halfWidth + 3,
        h: HALF_HEIGHT + 3,
      };
      let total = cost;
      if (!crowded) for (const other of hung) if (overlap(rect, other)) total += 120;
      if (
        rect.x - rect.w < 2 ||
        rect.x + rect.w > width - 2 ||
        rect.y - rect.h < 2 ||
        rect.y + rect.h > height - 2
      )
        total += 150;
      if (piece.length > 0) {
        for (const [dx, dy] of [
          [-1, -1],
          [1, -1],
          [-1, 1],
          [1, 1],
          [0, 0],
        ] as const) {
          if (inside([rect.x + dx * rect.w, rect.y + dy * rect.h], piece)) total += 40;
        }
      }
      if (!best || total < best.cost) best = { rect, cost: total };
      if (crowded) break;
    }
    hung.push(best!.rect);
    return { anchor, out, at: [best!.rect.x, best!.rect.y] };
  });
}
