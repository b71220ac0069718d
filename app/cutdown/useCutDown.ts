import { useCallback } from 'react';
import type { CutDown } from '#core/cutdown/cutDown';
import { CUT_DOWN_MERGE } from '#core/format/mergeRules';
import type { SelfSaved } from '../forms/useSelfSavedDraft';
import { useSelfSavedDraft } from '../forms/useSelfSavedDraft';
import { usePiece } from '../piece/pieceContext';

type Answer = { cutDown?: CutDown };

const body = (since: Partial<CutDown>, mine: Partial<CutDown>) => ({ since, mine });

/** How the piece at hand is brought to size: it saves itself. */
export function useCutDown(): SelfSaved<CutDown> {
  const { id, cutDown, took } = usePiece();
  const takeOver = useCallback(
    (answer: Answer) => answer.cutDown && took({ cutDown: answer.cutDown }),
    [took],
  );
  return useSelfSavedDraft<CutDown, Answer>(
    `cut-down ${id}`,
    cutDown,
    `/pieces/${id}/cut-down`,
    body,
    takeOver,
    CUT_DOWN_MERGE,
  );
}
