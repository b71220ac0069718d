import createCache from '@emotion/cache';

export const styleCache = () => createCache({ key: 'p' });
