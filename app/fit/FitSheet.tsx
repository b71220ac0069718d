import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { HELD } from '#core/format/lists';
import type { Fit } from '../records/fits.server';
import { Choice } from '../forms/Choice';
import { localInput } from '../frame/Moment';
import { Withdraw } from '../forms/Withdraw';
import { useDraft } from '../forms/useDraft';
import type { Post } from '../forms/usePost';
import { HELD_WORDS } from './held';

/** What is said of a whole trial: when, how the piece was held, what was noticed. */
export function FitSheet({ fit, post }: { fit: Fit; post: Post }) {
  const { draft, set, drop } = useDraft(`fit ${fit.id}`, { at: fit.at, held: fit.held, notes: fit.notes });
  const { at, held, notes } = draft;
  const changed = at !== fit.at || held !== fit.held || notes !== fit.notes;
  return (
    <Stack spacing={1.5} component="section" aria-label="This trial">
      <Typography>Touch an edge to read its gaps.</Typography>
      <Stack spacing={1}>
        <TextField
          label="When"
          type="datetime-local"
          value={localInput(at)}
          slotProps={{ htmlInput: { suppressHydrationWarning: true } }}
          onChange={(event) => event.target.value && set({ at: new Date(event.target.value).toISOString() })}
        />
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
        onChange={(event) => set({ notes: event.target.value.slice(0, 4000) })}
        placeholder="Rocks, springs back, catches on the old flange …"
      />
      {changed && (
        <Button
          variant="contained"
          disabled={post.state === 'busy'}
          onClick={() =>
            void post
              .send({ intent: 'change', id: fit.id, at, held, notes })
              .then((taken) => taken && drop({ at, held, notes }))
          }
        >
          Keep this
        </Button>
      )}
      <Withdraw what="trial" id={fit.id} withdrawn={fit.withdrawn} post={post} />
    </Stack>
  );
}
