import { develop } from '#core/blank/fold/develop';
import type { Development } from '#core/blank/fold/developed';
import { sheetMetal } from '#core/blank/fold/practice';
import type { Shop } from '#core/blank/shopSchema';
import { checkCard } from '#core/card/check';
import type { PatternDoc } from '#core/card/pattern';
import type { Problem, Result } from '#core/measure/result';
import { failure, stop } from '#core/measure/result';
import type { Metal } from '#core/metal/metals';

export type Reckoned = { problems: Problem[]; development: Result<{ development: Development }> };

/**
 * What is reckoned of a card, held apart from whoever shows it: should the core throw, which it
 * never should, that card says so and the page, the job and its other pieces stand.
 */
export function reckoned(
  pattern: PatternDoc,
  metal: Metal,
  thicknessMm: number,
  shop: Shop,
): Reckoned {
  try {
    const problems = checkCard(pattern);
    return {
      problems,
      development: develop(pattern, sheetMetal(metal, thicknessMm, shop), shop, problems),
    };
  } catch (error) {
    console.error('A card could not be reckoned', error);
    const fault = stop('could-not-reckon', []);
    return { problems: [fault], development: failure(fault) };
  }
}
