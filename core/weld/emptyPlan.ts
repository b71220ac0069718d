import type { Unit } from '../measure/length';
import type { PlanDoc } from './plan';

/**
 * The plan of a piece of which nothing is said yet. In a shop of inches (`units`) what is usual is
 * round in inches.
 */
export const emptyPlan = (units: Unit = 'mm'): PlanDoc => ({
  version: 2,
  ...(units === 'mm' ? {} : { usual: 'in' }),
  edges: [],
});
