import type { PlanDoc } from './plan';

/** A plan in which nothing is said yet. */
export const emptyPlan = (): PlanDoc => ({ version: 1, edges: [] });
