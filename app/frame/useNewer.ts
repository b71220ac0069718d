import { useCallback, useState } from 'react';

/**
 * What was loaded with the page, or what the server has answered since; loading anew puts that in
 * its place.
 */
export function useNewer<T>(loaded: T): [T, (now: T) => void] {
  const [newer, setNewer] = useState({ than: loaded, now: loaded });
  const take = useCallback((now: T) => setNewer({ than: loaded, now }), [loaded]);
  return [newer.than === loaded ? newer.now : loaded, take];
}
