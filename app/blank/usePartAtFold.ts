import type { BlankFold } from '#core/blank/fold/developed';
import { cut } from '#core/card/cut';
import { partAtFold } from '#core/card/partAtFold';
import { setPlan } from '#core/weld/planned';
import { usePost } from '../forms/usePost';
import { newId } from '../frame/newId';
import { usePick, usePiece } from '../piece/pieceContext';

const ignored = () => undefined;

/**
 * Cuts the piece apart along a fold: what is beyond becomes a piece of its own in the job, its seam
 * butted against this one with their inner corners touching. The other piece is made first, so that
 * nothing is taken off this card unless it is there.
 */
export function usePartAtFold() {
  const { id, facts, pattern, patternEditor, plan, planEditor } = usePiece();
  const { setPick } = usePick();
  const post = usePost<object>(`/pieces/${id}/other-part`, ignored);
  const parted = ({ id: fold, setbackMm, allowance }: BlankFold) =>
    partAtFold(pattern, fold, setbackMm - allowance.insideSetbackMm, newId);
  const part = async (fold: BlankFold) => {
    const parts = parted(fold);
    if (!parts) return;
    const [stays, other] = parts;
    const name = `${cut(facts.name, 66)}, other part`;
    if (!(await post.send({ name, card: other.card, seams: [other.seam] }))) return;
    patternEditor.edit(stays.card);
    planEditor.edit(setPlan(plan, stays.seam, { meets: name }));
    setPick({ kind: 'edge', id: stays.seam });
  };
  return {
    can: (fold: BlankFold) => parted(fold) !== null,
    part,
    busy: post.state === 'busy',
    problem: post.problem,
  };
}
