import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { cut } from '#core/card/cut';
import { HELD } from '#core/format/lists';
import { LaterMomentField } from '../forms/LaterMomentField';
import { Choice } from '../forms/Choice';
import { Withdraw } from '../forms/Withdraw';
import { useDraft } from '../forms/useDraft';
import type { Post } from '../forms/usePost';
import { WaitsForServer } from '../piece/WaitsForServer';
import { usePiece } from '../piece/pieceContext';
import { PiecePictures } from '../piece/PiecePictures';
import type { Fit } from '../records/records.server';
import { HELD_WORDS } from '../frame/recordWords';

/** What is said of a whole trial: when, how the piece was held, what was noticed. */
/** While a trial waits for the server there is nothing to be changed, or to hang a picture on. */
export function FitSheet({ fit, post }: { fit: Fit; post: Post }) {
  const said = { at: fit.at, held: fit.held, notes: fit.notes };
  // What another page has said meanwhile is shown; kept again, one's own stands.
  const there =
    post.refusal?.id === fit.id ? (post.refusal.now as typeof said | undefined) : undefined;
  const { draft, since, set, drop } = useDraft(`fit ${fit.id}`, said, there);
  const { waits } = usePiece();
  const { at, held, notes } = draft;
  if (waits.has(fit.id))
    return (
      <WaitsForServer what="This trial">
        Read its gaps meanwhile: they go in after it.
      </WaitsForServer>
    );
  const changed = at !== fit.at || held !== fit.held || notes !== fit.notes;
  return (
    <Stack spacing={1.5} component="section" aria-label="This trial">
      <Stack spacing={1}>
        <LaterMomentField label="When" at={at} onChange={(next) => set({ at: next })} />
        <Choice
          label="Held by"
          value={held}
          onChange={(next) => set({ held: next })}
          options={HELD.map((h) => [h, HELD_WORDS[h]] as const)}
        />
      </Stack>
      <TextField
        label="What was noticed"
        multiline
        minRows={2}
        value={notes}
        onChange={(event) => set({ notes: cut(event.target.value, 4000) })}
        placeholder="Rocks, springs back, catches on the old flange …"
      />
      {changed && (
        <Button
          variant="contained"
          disabled={post.state === 'busy'}
          onClick={() =>
            void post
              .send({ intent: 'change', id: fit.id, mine: { at, held, notes }, since })
              .then((taken) => taken && drop({ at, held, notes }))
          }
        >
          Keep this
        </Button>
      )}
      <PiecePictures owner="fit" of={fit.id} title="Pictures of this trial" small />
      <Withdraw what="trial" id={fit.id} withdrawn={fit.withdrawn} post={post} />
    </Stack>
  );
}
