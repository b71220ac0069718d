import type { Development } from '#core/blank/fold/developed';
import type { Folding } from '#core/blank/fold/folding';
import type { Shop } from '#core/blank/shopSchema';
import type { PatternDoc } from '#core/card/pattern';
import type { Result } from '#core/measure/result';
import type { Metal } from '#core/metal/metals';
import { shapeOrder } from '#core/shape/shapeOrder';
import type { ShapeStep } from '#core/shape/shapeStep';

type Given = {
  pattern: PatternDoc;
  /** Whether an edge meets anything, by its id. */
  meets: (edge: string) => boolean;
  development: Result<{ development: Development }>;
  metal: Metal;
  thicknessMm: number;
  shop: Shop;
  folding: Folding;
  /** Folds in the order that was found for the machine, by id; left out where none was looked for. */
  found?: readonly string[];
};

/** The edges beyond which a gap is to be adjusted: free, and they come up to something. */
export const gapEdges = (pattern: PatternDoc, meets: Given['meets']): string[] =>
  pattern.edges.flatMap(({ id, joint }) => (joint.kind === 'free' && meets(id) ? [id] : []));

/**
 * The working order of a piece; folds as they are folded on the machine, in one's own order or
 * the one that was found.
 * Empty without a blank.
 */
export function stepsOf({
  pattern,
  meets,
  development,
  metal,
  thicknessMm,
  shop,
  folding,
  found = [],
}: Given): ShapeStep[] {
  if (!development.ok) return [];
  return shapeOrder({
    pattern,
    development: development.development,
    metal,
    thicknessMm,
    shop,
    foldOrder: folding.order?.folds ?? found,
    turnedAfter: folding.turnedAfter,
    gaps: gapEdges(pattern, meets),
  });
}
