import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { cut } from '#core/card/cut';
import type { Withdrawn } from '#core/format/job';
import { Moment } from '../frame/Moment';
import { useDraft } from './useDraft';
import type { Post } from './usePost';

/**
 * Taking an entry back: it stays in the record, struck out, with when and why. A wrong one is taken
 * back and written anew.
 */
export function Withdraw({
  what,
  id,
  withdrawn,
  post,
  onAnew,
}: {
  what: 'weld' | 'inspection' | 'trial';
  id: string;
  withdrawn: Withdrawn | null;
  post: Post;
  /** Begins the right entry with what this one says; where there is such a way. */
  onAnew?: () => void;
}) {
  const { draft, set, drop } = useDraft(`withdraw ${id}`, { open: false, why: '' });
  if (withdrawn) {
    return (
      <Box sx={{ color: 'var(--torch)', fontSize: '0.9rem' }}>
        Taken back <Moment at={withdrawn.at} />: {withdrawn.why}{' '}
        {onAnew && (
          <Button size="small" color="inherit" onClick={onAnew}>
            Write the right one
          </Button>
        )}
      </Box>
    );
  }
  if (!draft.open) {
    return (
      <Button size="small" color="inherit" onClick={() => set({ open: true })}>
        Take this back
      </Button>
    );
  }
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-end', mt: 1 }}>
      <TextField
        label="Why it is taken back"
        value={draft.why}
        onChange={(event) => set({ why: cut(event.target.value, 400) })}
        helperText="It stays in the record, marked so. Write the right one down anew."
      />
      <Button
        variant="contained"
        disabled={draft.why.trim() === '' || post.state === 'busy'}
        onClick={() =>
          void post
            .send({ intent: 'withdraw', what, id, why: draft.why.trim() })
            .then((taken) => taken && drop())
        }
      >
        Take back
      </Button>
    </Box>
  );
}
