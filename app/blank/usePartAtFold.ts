import { useRef } from 'react';
import type { BlankFold } from '#core/blank/fold/developed';
import { cut } from '#core/card/cut';
import type { Parted } from '#core/card/partAtFold';
import { partAtFold } from '#core/card/partAtFold';
import type { PatternDoc } from '#core/card/pattern';
import { usePost } from '../forms/usePost';
import { newId } from '../frame/newId';
import type { Records } from '../piece/pieceContext';
import { usePick, usePiece } from '../piece/pieceContext';

/**
 * Cuts the piece apart along a fold: what is beyond becomes a piece of its own in the job, its seam
 * butted against this one with their inner corners touching. The other piece is made first, so that
 * nothing is taken off this card unless it is there.
 */
export function usePartAtFold() {
  const { id, facts, pattern, patternEditor, took } = usePiece();
  const { setPick } = usePick();
  const post = usePost<Partial<Records>>(`/pieces/${id}/other-part`, took);
  // Sent again, because no answer came, it is the same piece: its ids are made once.
  const made = useRef<{ of: PatternDoc; parts: Map<string, [Parted, Parted] | null> } | null>(null);
  const parted = ({ id: fold, setbackMm, allowance }: BlankFold) => {
    if (made.current?.of !== pattern) made.current = { of: pattern, parts: new Map() };
    const { parts } = made.current;
    if (!parts.has(fold))
      parts.set(fold, partAtFold(pattern, fold, setbackMm - allowance.insideSetbackMm, newId));
    return parts.get(fold)!;
  };
  const part = async (fold: BlankFold) => {
    const parts = parted(fold);
    if (!parts) return;
    const [stays, other] = parts;
    const name = `${cut(facts.name, 66)}, other part`;
    if (
      !(await post.send({
        name,
        card: other.card,
        seams: [{ edge: other.seam, meets: stays.seam }],
        turned: pattern.turned,
      }))
    )
      return;
    patternEditor.edit(stays.card);
    setPick({ kind: 'edge', id: stays.seam });
  };
  return {
    /** Whether the two parts can be had; where they can't, it is only told. */
    can: (fold: BlankFold) => parted(fold) !== null,
    part,
    busy: post.state === 'busy',
    problem: post.problem,
  };
}
