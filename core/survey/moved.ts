/**
 * Whether two readings of one measure differ by more than they can be out: |a − b| > 2·√(u₁² + u₂²), mm and one standard
 * deviation each (or degrees, with degrees).
 */
export const differ = (a: number, uA: number, b: number, uB: number): boolean =>
  Math.abs(a - b) > 2 * Math.hypot(uA, uB);
