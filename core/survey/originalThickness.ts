/** Old sheet as it was once: how thick, how sure, and which readings were of something else. */
export type OriginalThickness = {
  thicknessMm: number;
  /** Of the mean, one standard deviation. */
  uMm: number;
  /**
   * Of each reading: the sheet; thicker, as of paint, filler or rust scale; thinner, as of rust or
   * grinding.
   */
  readings: ('sheet' | 'thicker' | 'thinner')[];
  /**
   * Whether it can be told: three readings of the sheet at the least, and more of them than of
   * anything else.
   */
  told: boolean;
};

/**
 * How good a workshop micrometer is, one standard deviation, mm (from memory: an error of 4 µm by
 * ISO 3611, and the hand).
 */
const MICROMETER_MM = 0.01;
/**
 * Sheet of one coil differs by no more than this share of its thickness (from memory: EN 10131,
 * half of ±8 %).
 */
const ONE_SHEET = 0.04;

/**
 * Tells sound old metal from paint and rust by the spread of micrometer readings (mm, each above
 * 0): the sheet is where the readings lie closest, the widest group within what one sheet and the
 * micrometer differ by; what is outside was not bare or not sound. Two groups as large: the thinner
 * is the sheet, for paint on both faces is commoner than even rust (common practice). Null for no
 * readings.
 */
export function originalThickness(readings: readonly number[]): OriginalThickness | null {
  if (readings.length === 0) return null;
  const sorted = [...readings].sort((a, b) => a - b);
  let best = { from: 0, to: 0, width: Infinity };
  sorted.forEach((least, from) => {
    const reach = 2 * Math.hypot(ONE_SHEET * least, 2 * MICROMETER_MM);
    let to = from;
    while (to + 1 < sorted.length && sorted[to + 1]! - least <= reach) to++;
    const width = sorted[to]! - least;
    const more = to - from - (best.to - best.from);
    if (best.width === Infinity || more > 0) best = { from, to, width };
  });
  const group = sorted.slice(best.from, best.to + 1);
  const mean = group.reduce((sum, t) => sum + t, 0) / group.length;
  const spread = Math.sqrt(
    group.reduce((sum, t) => sum + (t - mean) ** 2, 0) / Math.max(1, group.length - 1),
  );
  const [low, high] = [group[0]!, group[group.length - 1]!];
  return {
    thicknessMm: mean,
    uMm: Math.max(spread, MICROMETER_MM) / Math.sqrt(group.length),
    readings: readings.map((t) => (t < low ? 'thinner' : t > high ? 'thicker' : 'sheet')),
    told: group.length >= 3 && 2 * group.length > readings.length,
  };
}
