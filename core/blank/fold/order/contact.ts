import type { Vec } from '../../../measure/vector';
import { distance, mix } from '../../../measure/vector';
import { TOUCH_MM } from './clash';

/**
 * Where a plate in section, from one place to another along its middle, runs through a convex
 * section (counter-clockwise): the middle of that stretch and how long it is, mm; null where it
 * only touches or stays clear.
 *
 * @param thicknessMm of the plate: the section is taken smaller by half of it, so that a plate
 * lying on it is clear
 */
export function placeIn(
  section: readonly Vec[],
  from: Vec,
  to: Vec,
  thicknessMm: number,
): { middle: Vec; longMm: number } | null {
  let [low, high] = [0, 1];
  for (const [i, [x1, z1]] of section.entries()) {
    const [x2, z2] = section[(i + 1) % section.length]!;
    const long = Math.hypot(x2 - x1, z2 - z1) || 1;
    // The plate's skin lies half its thickness nearer than its middle.
    const off = ([x, z]: Vec) =>
      ((z2 - z1) * (x - x1) - (x2 - x1) * (z - z1)) / long - thicknessMm / 2 + TOUCH_MM;
    const [a, b] = [off(from), off(to)];
    if (a > 0 && b > 0) return null;
    if (a > 0) low = Math.max(low, a / (a - b));
    else if (b > 0) high = Math.min(high, a / (a - b));
  }
  if (high - low <= 0) return null;
  const longMm = (high - low) * distance(from, to);
  return longMm > 2 * TOUCH_MM ? { middle: mix(from, to, (low + high) / 2), longMm } : null;
}
