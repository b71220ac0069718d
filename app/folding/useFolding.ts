import { useCallback } from 'react';
import { FOLDING_MERGE } from '#core/format/mergeRules';
import type { Folding } from '#core/blank/fold/folding';
import type { SelfSaved } from '../forms/useSelfSavedDraft';
import { useSelfSavedDraft } from '../forms/useSelfSavedDraft';
import { usePiece } from '../piece/pieceContext';

type Answer = { folding?: Folding };

const body = (since: Partial<Folding>, mine: Partial<Folding>) => ({ since, mine });

/** How the piece at hand is folded, and how far it is: it saves itself. */
export function useFolding(): SelfSaved<Folding> {
  const { id, folding, took } = usePiece();
  const takeOver = useCallback(
    (answer: Answer) => answer.folding && took({ folding: answer.folding }),
    [took],
  );
  return useSelfSavedDraft<Folding, Answer>(
    `folding ${id}`,
    folding,
    `/pieces/${id}/folding`,
    body,
    takeOver,
    FOLDING_MERGE,
  );
}
