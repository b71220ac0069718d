import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { middleOf } from './marks';

export type TagAt = { anchor: Vec; out: Vec; at: Vec };

/** Half the room a tag with its note takes, in pixels. */
const HALF_W = 40;
const HALF_H = 22;

/**
 * Where the tags of a drawing hang, in pixels: `away` out from the middle of each run, then pushed apart along their
 * threads and sideways until none lies on another. Runs without length get null.
 */
export function hangTags(runs: readonly (readonly Segment[])[], px: (p: Vec) => Vec, away: number): (TagAt | null)[] {
  const tags = runs.map((run): { anchor: Vec; out: Vec; at: [number, number] } | null => {
    const middle = middleOf(run);
    if (!middle) return null;
    const [x, y] = px(middle.at);
    const out: Vec = [middle.out[0], -middle.out[1]];
    return { anchor: [x, y], out, at: [x + out[0] * away, y + out[1] * away] };
  });
  if (tags.length > 60) return tags;
  for (let round = 0; round < 30; round++) {
    let moved = false;
    for (let i = 0; i < tags.length; i++) {
      for (let j = i + 1; j < tags.length; j++) {
        const a = tags[i];
        const b = tags[j];
        if (!a || !b) continue;
        const overX = 2 * HALF_W - Math.abs(a.at[0] - b.at[0]);
        const overY = 2 * HALF_H - Math.abs(a.at[1] - b.at[1]);
        if (overX <= 0 || overY <= 0) continue;
        moved = true;
        const axis = overX < overY ? 0 : 1;
        const push = Math.min(overX, overY) / 2 + 0.5;
        const way =
          a.at[axis] < b.at[axis] || (a.at[axis] === b.at[axis] && a.anchor[axis] <= b.anchor[axis]) ? -1 : 1;
        a.at[axis] += way * push;
        b.at[axis] -= way * push;
      }
    }
    if (!moved) break;
  }
  return tags;
}
