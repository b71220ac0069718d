import { createContext, useContext } from 'react';

/**
 * Opens the key card from wherever one is; who shows it is the root's business, because it draws
 * every mark there is.
 */
export const KeyCardContext = createContext<() => void>(() => {});
export const useKeyCard = (): (() => void) => useContext(KeyCardContext);
