import type { Development } from '#core/blank/fold/developed';
import type { Folding } from '#core/blank/fold/folding';
import type { Shop } from '#core/blank/shopSchema';
import type { PatternDoc } from '#core/card/pattern';
import type { Result } from '#core/measure/result';
import type { Metal } from '#core/metal/metals';
import { shapeOrder } from '#core/shape/shapeOrder';
import type { ShapeStep } from '#core/shape/step';
import type { PlanDoc } from '#core/weld/plan';
import { meetsOf } from '#core/weld/planned';

type Given = {
  pattern: PatternDoc;
  plan: PlanDoc;
  development: Result<{ development: Development }>;
  metal: Metal;
  thicknessMm: number;
  shop: Shop;
  folding: Folding;
};

/**
 * The working order of a piece; folds as they are folded on the machine where an order was chosen.
 * Empty without a blank.
 */
export function stepsOf({
  pattern,
  plan,
  development,
  metal,
  thicknessMm,
  shop,
  folding,
}: Given): ShapeStep[] {
  if (!development.ok) return [];
  // A free edge that comes up to something has a gap to be adjusted.
  const gaps = pattern.edges.filter(
    ({ id, joint }) => joint.kind === 'free' && meetsOf(plan, id) !== '',
  );
  return shapeOrder({
    pattern,
    development: development.development,
    metal,
    thicknessMm,
    shop,
    foldOrder: folding.order?.folds ?? [],
    gaps: gaps.map(({ id }) => id),
  });
}
