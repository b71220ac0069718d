import { CacheProvider } from '@emotion/react';
import { StrictMode, startTransition } from 'react';
import { hydrateRoot } from 'react-dom/client';
import { HydratedRouter } from 'react-router/dom';
import { styleCache } from './frame/styleCache';

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <CacheProvider value={styleCache()}>
        <HydratedRouter />
      </CacheProvider>
    </StrictMode>,
  );
});
