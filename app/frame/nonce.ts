import { createContext } from 'react';

/**
 * What this page’s content policy knows its own scripts by; only where it is made on the server.
 */
export const NonceContext = createContext<string | undefined>(undefined);
