import type { Ramp } from '../measure/ramp';
import { ramp } from '../measure/ramp';
import type { Flange } from './pattern';

/** How wide a flange is along its edge. */
export const widthsOf = ({ widthMm, endWidthMm, between }: Flange): Ramp =>
  ramp(widthMm, endWidthMm ?? widthMm, between);
