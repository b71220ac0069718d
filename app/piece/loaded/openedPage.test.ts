import fc from 'fast-check';
import { awkwardCard } from '#core/blank/fold/awkward.arbitrary';
import { emptyPlan } from '#core/weld/emptyPlan';
import type { SentPage } from './loaded.server';
import { openedPage } from './openedPage';

test('a card sent as text is the card that was sent; a page kept from before, with the card as it is, opens too', () => {
  fc.assert(
    fc.property(awkwardCard, ({ doc }) => {
      const sent = (card: unknown, plan: unknown) =>
        ({
          id: 'p',
          card: { number: 3, doc: card },
          plan: { number: 1, doc: plan },
        }) as unknown as SentPage;
      const asText = openedPage(sent(JSON.stringify(doc), JSON.stringify(emptyPlan())));
      expect(asText).toEqual({
        id: 'p',
        card: { number: 3, doc: JSON.parse(JSON.stringify(doc)) as unknown },
        plan: { number: 1, doc: emptyPlan() },
      });
      expect(openedPage(sent(doc, emptyPlan())).card.doc).toBe(doc);
    }),
    { numRuns: 30 },
  );
});
