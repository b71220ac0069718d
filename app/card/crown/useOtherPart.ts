import { useCallback, useRef, useState } from 'react';
import { crownCard } from '#core/card/crownCard';
import { cut } from '#core/card/cut';
import { emptyPattern } from '#core/card/emptyPattern';
import { mirrored } from '#core/card/mirror';
import { usePost } from '../../forms/usePost';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import type { LayAsked } from './laying';
import { laidOnce } from './useLaid';

/** The other part as a piece of the job: its edges along the seam, in its outline's order. */
export type OtherPart = { piece: string; seams: string[]; turned: boolean };
type Sent = { of: string; body: object; seams: string[]; turned: boolean };

/**
 * Makes the other part of a panel a piece of its own, laid flat as this one is, its seam butted
 * against this one.
 */
export function useOtherPart() {
  const { id: own, facts, pattern } = usePiece();
  const { show } = usePreferences();
  const id = useRef<string | null>(null);
  const took = useCallback((answer: { id?: string }) => {
    id.current = answer.id ?? null;
  }, []);
  const post = usePost(`/pieces/${own}/other-part`, took);
  const [laying, setLaying] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  // Sent again, because no answer came, it is the same piece.
  const last = useRef<Sent | null>(null);
  const name = `${cut(facts.name, 66)}, other part`;
  const send = async (sent: Sent): Promise<OtherPart | null> => {
    if (!(await post.send(sent.body)) || id.current === null) return null;
    return { piece: id.current, seams: sent.seams, turned: sent.turned };
  };
  /** The piece, once it is there; null where it could not be made. */
  const make = async (
    wanted: Pick<LayAsked, 'made' | 'balance' | 'part' | 'strips'>,
  ): Promise<OtherPart | null> => {
    setProblem(null);
    const of = JSON.stringify(wanted);
    if (last.current?.of === of) return send(last.current);
    const { made, balance, part, strips } = wanted;
    setLaying(true);
    const found = await laidOnce({ made, balance, part, strips, keep: [], hold: [] });
    setLaying(false);
    if (Array.isArray(found)) {
      setProblem(`The other part: ${problemSentence({ ...found[0]!, about: [] }, null, show)}`);
      return null;
    }
    const { laid, seams } = found;
    if (laid.overlaps.length > 0) {
      setProblem('The blank of the other part runs over itself: part the panel elsewhere.');
      return null;
    }
    const card = crownCard(
      emptyPattern(),
      { made, balance, keep: [], hold: [], part, seams },
      laid,
      found.strips,
      newId,
    );
    const whole = pattern.crown?.turned ? mirrored(card) : card;
    const met = card.edges.filter((_, i) => seams[i]).map((edge) => edge.id);
    const said = met.map((edge) => ({ edge, meets: null }));
    const body = { name, card: whole, seams: said, turned: pattern.turned };
    last.current = { of, body, seams: met, turned: whole.turned };
    return send(last.current);
  };
  return { make, busy: laying || post.state === 'busy', problem: problem ?? post.problem };
}
