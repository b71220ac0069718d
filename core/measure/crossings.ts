import { boxesOf } from './intersect';
import type { Path } from './path';
import { segmentsCross } from './segment';

/**
 * Pairs of segments of a closed path (by index) that cross or lie on each other. A sweep over their
 * boxes from left to right; it runs at every frame while a corner is dragged, so the boxes are
 * plain figures in a row. No more than `most` are looked for: of an outline whose points came in
 * any order there are as many as the square of its sides.
 */
export function crossingPairs(path: Path, most = Infinity): [number, number][] {
  const n = path.length;
  const boxes = boxesOf(path);
  const order = Uint32Array.from({ length: n }, (_, i) => i).sort(
    (i, j) => boxes[4 * i]! - boxes[4 * j]!,
  );
  const found: [number, number][] = [];
  for (let k = 0; k < n; k++) {
    const i = order[k]!;
    const maxX = boxes[4 * i + 2]!;
    for (let l = k + 1; l < n; l++) {
      const j = order[l]!;
      if (boxes[4 * j]! > maxX) break;
      if (boxes[4 * i + 1]! > boxes[4 * j + 3]! || boxes[4 * j + 1]! > boxes[4 * i + 3]!) continue;
      if (!segmentsCross(path[i]!, path[j]!)) continue;
      found.push(i < j ? [i, j] : [j, i]);
      if (found.length >= most) return found;
    }
  }
  return found;
}
