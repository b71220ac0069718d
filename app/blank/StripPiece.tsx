import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useCallback, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { SeparateFlange } from '#core/blank/flange/separateFlange';
import { stripCard } from '#core/blank/flange/stripCard';
import { cut } from '#core/card/cut';
import type { Edge, Flange } from '#core/card/pattern';
import { usePost } from '../forms/usePost';
import { Told } from '../frame/Told';
import { newId } from '../frame/newId';
import type { Records } from '../piece/pieceContext';
import { usePiece } from '../piece/pieceContext';

/**
 * Makes a flange that is cut apart a piece of its own: to be printed, laid on the sheet, folded and
 * welded like any other.
 */
export function StripPiece({
  strip,
  edge,
  flange,
}: {
  strip: SeparateFlange;
  edge: Pick<Edge, 'id' | 'letter'>;
  flange: Flange;
}) {
  const { id, facts, pattern, took } = usePiece();
  const [made, setMade] = useState<string | null>(null);
  const answered = useCallback(
    ({ id: other, ...records }: { id?: string } & Partial<Records>) => {
      setMade(other ?? null);
      took(records);
    },
    [took],
  );
  const post = usePost(`/pieces/${id}/other-part`, answered);
  // Sent again, because no answer came, it is the same card.
  const wanted = JSON.stringify({ strip, flange });
  const card = useMemo(() => {
    const { strip: of, flange: to } = JSON.parse(wanted) as {
      strip: SeparateFlange;
      flange: Flange;
    };
    return stripCard(of, to, newId);
  }, [wanted]);
  const name = cut(`${cut(facts.name, 58)}, strip for ${edge.letter}`, 80);
  if (made)
    return (
      <Typography role="status">
        It is a piece of the job now: <Link to={`/pieces/${made}/blank`}>{name}</Link>
      </Typography>
    );
  const seams = card.edges
    .filter(({ joint }) => joint.kind === 'butt')
    .map((own) => ({ edge: own.id, meets: edge.id }));
  return (
    <>
      <Button
        variant="outlined"
        disabled={post.state === 'busy'}
        onClick={() => void post.send({ name, card, seams, turned: pattern.turned })}
        sx={{ mt: 1 }}
      >
        Make it a piece of its own
      </Button>
      {post.problem && <Told>{post.problem}</Told>}
    </>
  );
}
