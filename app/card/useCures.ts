import { canNotch, notched } from '#core/card/notch';
import type { Problem } from '#core/measure/result';
import { newId } from '../frame/newId';
import type { Cure } from '../piece/Notices';
import { usePick, usePiece } from '../piece/pieceContext';

/** What mends a fault of the card in one touch, where there is such a thing. */
export function useCures(): (problem: Problem) => Cure | null {
  const { pattern, patternEditor } = usePiece();
  const { setPick } = usePick();
  return ({ code, about = [] }) => {
    const [a, b] = about;
    if (code !== 'folds-cross' || a === undefined || b === undefined || !canNotch(pattern, a, b))
      return null;
    return {
      label: 'Notch the corner',
      run: () => {
        const found = notched(pattern, a, b, newId);
        if (!found.ok) return;
        patternEditor.edit(found.doc);
        setPick({ kind: 'fold', id: b });
      },
    };
  };
}
