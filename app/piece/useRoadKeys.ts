import { useNavigate } from 'react-router';
import { byLetter } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { useKeys } from '../frame/keys';
import { useWho } from '../frame/recordedBy';
import type { Picked } from './pieceContext';
import { stopsOf } from '../frame/stops';
import type { PieceKind } from '#core/format/lists';
import type { Stepping } from './useStepping';

/**
 * The keys of every stop: along the road, from edge to edge and fold to fold, undo and redo, put
 * down.
 */
export function useRoadKeys(
  id: string,
  kind: PieceKind,
  pattern: PatternDoc,
  { pick, setPick }: Picked,
  stepping: Stepping,
): void {
  const navigate = useNavigate();
  const nextOf = (kind: 'edge' | 'fold' | 'bead', ids: string[], step: number) => {
    if (ids.length === 0) return;
    const at = pick?.kind === kind ? ids.indexOf(pick.id) : step > 0 ? -1 : 0;
    setPick({ kind, id: ids[(at + step + ids.length) % ids.length]! });
  };
  const edges = byLetter(pattern.edges).map((e) => e.id);
  const folds = pattern.folds.map((f) => f.id);
  const beads = pattern.beads.map((b) => b.id);
  const looks = useWho()?.role === 'looks';
  useKeys({
    ...Object.fromEntries(
      (looks ? [] : stopsOf(kind)).map((stop) => [
        String(stop.key),
        () => void navigate(`/pieces/${id}/${stop.id}`),
      ]),
    ),
    e: () => nextOf('edge', edges, 1),
    'Shift+E': () => nextOf('edge', edges, -1),
    f: () => nextOf('fold', folds, 1),
    b: () => nextOf('bead', beads, 1),
    z: stepping.undo,
    'Shift+Z': stepping.redo,
    Escape: () => setPick(null),
  });
}
