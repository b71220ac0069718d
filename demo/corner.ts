import { crownCard } from '#core/card/crownCard';
import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import type { PatternDoc } from '#core/card/pattern';
import { runToCompletion } from '#core/measure/runToCompletion';
import type { Described } from '#core/surface/panel/laidPanel';
import { layingPanel } from '#core/surface/panel/laidPanel';
import { stripsOf } from '#core/surface/flatten/strips';

/** The lower rear corner: it rounds from the side to the back and turns under. */
const CORNER: Described = {
  kind: 'barrel',
  alongMm: 950,
  acrossMm: 190,
  lengthMm: 340,
  widthMm: 210,
};
const BALANCE = 0.4;

let known: PatternDoc | null = null;

/**
 * The card of the lower rear corner, laid flat from its figures; once, because it takes a while.
 */
export function cornerCard(): PatternDoc {
  if (known) return known;
  const found = runToCompletion(layingPanel(CORNER, BALANCE, 2400));
  if (!found.ok) throw new Error('The corner of the demo cannot be laid flat');
  const { laid } = found;
  known = crownCard(
    emptyPattern(),
    { made: CORNER, balance: BALANCE, keep: [], hold: [], part: null },
    laid,
    stripsOf(laid.disc, laid.flat, 3),
    countingIds('s'),
  );
  return known;
}
