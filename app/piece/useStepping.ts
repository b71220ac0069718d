import { useEffect, useMemo, useState } from 'react';
import { useLocation } from 'react-router';
import { usePreferences } from '../frame/preferences';
import { changesOfCard, changesOfPlan } from './documents/changes';
import { stopAt } from '../frame/stops';
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
  const { pathname } = useLocation();
  // What came of a piece is only read; whatever else is not a stop is a page of its card.
  const acts = stopAt(pathname)?.undo ?? (pathname.endsWith('/record') ? null : 'card');
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
      if (acts === 'plan') {
        const moved = await planEditor[way]();
        if (moved) tell(changesOfPlan(moved.from, moved.to, pattern));
      } else {
        const moved = await patternEditor[way]();
        if (moved) tell(changesOfCard(moved.from, moved.to, show));
      }
    };
    if (acts === 'reading') {
      const undo = stopUndo ? () => setSaid(stopUndo.undo()) : undefined;
      return { undo, redo: undefined, what: 'the last reading', said };
    }
    // Where nothing is done nothing is undone.
    if (acts === null) return { undo: undefined, redo: undefined, what: 'nothing', said: null };
    const editor = acts === 'plan' ? planEditor : patternEditor;
    return {
      undo: editor.canUndo ? () => void step('undo') : undefined,
      redo: editor.canRedo ? () => void step('redo') : undefined,
      what: acts === 'plan' ? 'the plan' : 'the card',
      said,
    };
  }, [acts, stopUndo, said, show, pattern, patternEditor, planEditor]);
}
