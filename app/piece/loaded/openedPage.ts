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
  card: { ...sent.card, doc: docOf<PatternDoc>(sent.card.doc) },
  plan: { ...sent.plan, doc: docOf<PlanDoc>(sent.plan.doc) },
});

/** A phone without the server may still keep a page from before documents were sent as text. */
const docOf = <Doc>(sent: string | object): Doc =>
  (typeof sent === 'string' ? JSON.parse(sent) : sent) as Doc;
