import { eigen } from '../solve/symmetric';

/**
 * How sure a place in the plane is, at one standard deviation: half the length of the ellipse, half
 * its width (mm), and the way its length runs, degrees from +x counter-clockwise in (−90, 90]; 0
 * for a circle.
 */
export type Ellipse = { aMm: number; bMm: number; angleDeg: number };

/** The ellipse of a covariance [[xx, xy], [xy, yy]], mm². */
export function ellipseOf(xx: number, xy: number, yy: number): Ellipse {
  const middle = (xx + yy) / 2;
  const spread = Math.hypot((xx - yy) / 2, xy);
  const round = spread <= 1e-12 * middle;
  const angle = round ? 0 : (Math.atan2(2 * xy, xx - yy) * 90) / Math.PI;
  return {
    aMm: Math.sqrt(middle + spread),
    bMm: Math.sqrt(Math.max(0, middle - spread)),
    angleDeg: angle <= -90 ? angle + 180 : angle,
  };
}

/** Half the axes of the ellipsoid of a covariance of d × d, mm, the longest first. */
export const axesOf = (covariance: Float64Array, d: number): number[] =>
  eigen(covariance, d).values.map((value) => Math.sqrt(Math.max(0, value)));
