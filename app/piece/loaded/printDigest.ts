import type { Blank, BlankHole } from '#core/blank/blank';
import { sheetMetal } from '#core/blank/fold/practice';
import type { Shop } from '#core/blank/shopSchema';
import type { Metal } from '#core/metal/metals';
import { digestOf } from '#core/sheet/digest';
import { layersOfBlank } from '#core/sheet/layers';

/**
 * What a print of a blank is made from, in a word: its drawing, the sheet, the rule it was bent by
 * and the shop's practice.
 */
export const printDigest = (
  blank: Blank,
  plugs: readonly BlankHole[],
  metal: Metal,
  thicknessMm: number,
  shop: Shop,
): string =>
  digestOf(layersOfBlank(blank, plugs), {
    metal: metal.id,
    sheet: sheetMetal(metal, thicknessMm, shop),
    brakeLine: shop.brakeLine,
    relief: shop.relief,
  });
