import type { CutDown } from './cutDown';

/**
 * A piece of whose cutting down nothing has been said. Apart from the schema: pages need this and not
 * the validation.
 */
export const uncut = (): CutDown => ({ readingsMm: [], received: null, faults: [], works: [] });
