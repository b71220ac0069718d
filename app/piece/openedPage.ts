import type { PatternDoc } from '#core/card/pattern';
import type { PlanDoc } from '#core/weld/plan';
import type { SentPage } from './loaded.server';

type Sent<K extends 'card' | 'plan', Doc> = Omit<SentPage[K], 'doc'> & { doc: Doc };

/** What a piece's page stands on, its documents read from the text they were sent as. */
export type LoadedPage = Omit<SentPage, 'card' | 'plan'> & {
  card: Sent<'card', PatternDoc>;
  plan: Sent<'plan', PlanDoc>;
};

export const openedPage = (sent: SentPage): LoadedPage => ({
  ...sent,
  card: { ...sent.card, doc: JSON.parse(sent.card.doc) as PatternDoc },
  plan: { ...sent.plan, doc: JSON.parse(sent.plan.doc) as PlanDoc },
});
