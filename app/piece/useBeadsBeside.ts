import { useEffect } from 'react';
import { useFetcher } from 'react-router';
import type { BeadBeside } from '../records/beadsBeside.server';

/**
 * The beads of the other pieces of the job; none until they are here, nor while the server does not
 * answer.
 */
export function useBeadsBeside(piece: string): readonly BeadBeside[] {
  const fetcher = useFetcher<BeadBeside[]>({ key: `beads beside ${piece}` });
  const { load, state, data } = fetcher;
  useEffect(() => {
    if (state === 'idle' && data === undefined) void load(`/pieces/${piece}/beads-beside`);
  }, [load, state, data, piece]);
  return Array.isArray(data) ? data : [];
}
