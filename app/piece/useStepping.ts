import { useEffect, useMemo, useState } from 'react';
import { useLocation } from 'react-router';
import { usePreferences } from '../frame/preferences';
import { changesOfCard, changesOfPlan } from './changes';
import type { PieceView } from './pieceContext';

/** Time for which a message about an undo is shown, ms. */
const SHOWN_MS = 6000;

export type Stepping = {
  /** Undefined where there is nothing to undo. */
  undo: (() => void) | undefined;
  redo: (() => void) | undefined;
  /** What undo acts on, in words. */
  what: string;
  /** What was just undone or done again. */
  said: string | null;
};

/**
 * Undo acts on what the stop shows: its own last step, the plan where welding is planned, else the
 * card.
 */
export function useStepping({ pattern, patternEditor, planEditor, stopUndo }: PieceView): Stepping {
  const { show } = usePreferences();
  const stop = useLocation().pathname.split('/').pop();
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    const quiet = setTimeout(() => setSaid(null), SHOWN_MS);
    return () => clearTimeout(quiet);
  }, [said]);

  return useMemo(() => {
    const step = async (way: 'undo' | 'redo') => {
      const tell = (changes: string[]) => {
        const more = changes.length > 1 ? ` and ${changes.length - 1} more` : '';
        setSaid(
          `${way === 'undo' ? 'Undone' : 'Done again'}: ${changes[0] ?? 'nothing changed'}${more}`,
        );
      };
      if (stop === 'weld') {
        const moved = await planEditor[way]();
        if (moved) tell(changesOfPlan(moved.from, moved.to, pattern));
      } else {
        const moved = await patternEditor[way]();
        if (moved) tell(changesOfCard(moved.from, moved.to, show));
      }
    };
    if (stop === 'fit') {
      const undo = stopUndo ? () => setSaid(stopUndo.undo()) : undefined;
      return { undo, redo: undefined, what: 'the last reading', said };
    }
    // Where nothing is done nothing is undone.
    if (stop === 'record') return { undo: undefined, redo: undefined, what: 'nothing', said: null };
    const editor = stop === 'weld' ? planEditor : patternEditor;
    return {
      undo: editor.canUndo ? () => void step('undo') : undefined,
      redo: editor.canRedo ? () => void step('redo') : undefined,
      what: stop === 'weld' ? 'the plan' : 'the card',
      said,
    };
  }, [stop, stopUndo, said, show, pattern, patternEditor, planEditor]);
}
