import createCache from '@emotion/cache';

/** `nonce`: what the page’s content policy knows its own style tags by. */
export const styleCache = (nonce?: string) => createCache({ key: 'p', nonce });
