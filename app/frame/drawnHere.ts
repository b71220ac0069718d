import { createContext } from 'react';

/**
 * Whether the server draws what can fall by itself (`Guarded`, a stop): no, once a page could not be
 * drawn with it. The browser then draws it, and says what went wrong in its place.
 */
export const DrawnHere = createContext(true);
