import type { NewId } from '#core/card/kinds';

/** Short random ids for things on a card; the core leaves chance to its callers. */
export const newId: NewId = () => crypto.randomUUID().replace(/-/g, '').slice(0, 10);
