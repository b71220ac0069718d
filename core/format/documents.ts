import type { PatternDoc } from '../card/pattern';
import { PATTERN_VERSION } from '../card/pattern';
import { readPattern } from '../card/read';
import type { Result } from '../measure/result';
import type { PlanDoc } from '../weld/plan';
import { PLAN_VERSION } from '../weld/plan';
import { readPlan } from '../weld/readPlan';

/** The kinds of documents there are, each with what it holds. */
export type Documents = { card: PatternDoc; plan: PlanDoc };
export type DocumentKind = keyof Documents;

/** For each kind its one reader and the form it is written in now. */
export const DOCUMENTS: {
  [K in DocumentKind]: { version: number; read: (given: unknown) => Result<{ doc: Documents[K] }> };
} = {
  card: { version: PATTERN_VERSION, read: readPattern },
  plan: { version: PLAN_VERSION, read: readPlan },
};
