import type { Ramp } from '#core/measure/ramp';
import { isEven, leastOfRamp, mostOfRamp } from '#core/measure/ramp';

type Show = (mm: number) => string;

/**
 * How wide something is along its way: one width, from its start to its end, or between which two.
 */
export function widthsSaid(widths: Ramp, show: Show): string {
  if (isEven(widths)) return show(widths[0]![1]);
  if (widths.length === 2) return `${show(widths[0]![1])} to ${show(widths[1]![1])}`;
  return `between ${show(leastOfRamp(widths))} and ${show(mostOfRamp(widths))}`;
}
