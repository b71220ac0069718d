import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Person } from '../access/people.server';
import { Choice } from '../forms/Choice';
import { useAnswers } from '../forms/useAnswers';
import { Moment } from '../frame/Moment';
import { Told } from '../frame/Told';
import type { Route } from './+types/people';
import { JobTicks } from './JobTicks';
import { ROLES } from './NewPerson';
import { ROLE_WORDS } from './fields';

/**
 * Somebody of the shop: what they do, what they may look at, phrase and PIN, and letting them go.
 */
export function PersonCard({
  person,
  jobs,
  me,
}: {
  person: Person;
  jobs: readonly { id: string; name: string }[];
  me: boolean;
}) {
  const fetcher = useAnswers<Route.ComponentProps['actionData']>();
  const [open, setOpen] = useState(false);
  const [role, setRole] = useState(person.role);
  const [leaving, setLeaving] = useState(false);
  const busy = fetcher.state !== 'idle';
  const looksAt = jobs.filter(({ id }) => person.jobs.includes(id)).map(({ name }) => name);
  return (
    <Stack
      component="section"
      aria-label={person.name}
      spacing={1.5}
      sx={{ border: '1.5px solid var(--rule)', bgcolor: 'var(--panel)', p: 2 }}
    >
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Box sx={{ flex: 1 }}>
          <Typography variant="h3">
            {person.name}
            {me && ' (you)'}
          </Typography>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            {ROLE_WORDS[person.role].name}
            {person.role === 'looks' && `: ${looksAt.join(', ') || 'no job'}`}
            {person.seen && (
              <>
                , last here <Moment at={person.seen} />
              </>
            )}
          </Typography>
        </Box>
        <Button
          variant="outlined"
          aria-expanded={open}
          aria-label={`${open ? 'Close' : 'Change'} ${person.name}`}
          onClick={() => setOpen(!open)}
        >
          {open ? 'Close' : 'Change'}
        </Button>
      </Stack>
      {fetcher.state === 'idle' && fetcher.data?.message && <Told>{fetcher.data.message}</Told>}
      {fetcher.state === 'idle' && fetcher.data?.done && (
        <Typography role="status">{fetcher.data.done}</Typography>
      )}
      {open && (
        <>
          <fetcher.Form method="post" style={{ display: 'grid', gap: 14 }}>
            <input type="hidden" name="person" value={person.id} />
            <TextField
              name="name"
              label="First name"
              required
              defaultValue={person.name}
              autoComplete="off"
              slotProps={{ htmlInput: { maxLength: 40 } }}
            />
            <Choice
              label="What they do"
              name="role"
              value={role}
              onChange={setRole}
              options={ROLES}
              help={ROLE_WORDS[role].about}
            />
            {role === 'looks' && <JobTicks jobs={jobs} chosen={person.jobs} />}
            <Button
              type="submit"
              name="intent"
              value="change"
              variant="contained"
              disabled={busy}
              sx={{ justifySelf: 'start' }}
            >
              Keep
            </Button>
          </fetcher.Form>
          <fetcher.Form method="post" style={{ display: 'flex', gap: 8, alignItems: 'flex-end' }}>
            <input type="hidden" name="person" value={person.id} />
            <TextField
              name="phrase"
              label={person.hasPhrase ? 'A new pass phrase' : 'A pass phrase'}
              type="password"
              autoComplete="new-password"
              fullWidth
              slotProps={{ htmlInput: { maxLength: 200 } }}
            />
            <Button
              type="submit"
              name="intent"
              value="phrase"
              variant="outlined"
              disabled={busy}
              sx={{ flexShrink: 0 }}
            >
              Set it
            </Button>
          </fetcher.Form>
          {person.role !== 'looks' && (
            <fetcher.Form method="post" style={{ display: 'flex', gap: 8, alignItems: 'flex-end' }}>
              <input type="hidden" name="person" value={person.id} />
              <TextField
                name="pin"
                label={
                  person.hasPin
                    ? 'PIN for the shop’s devices: set. Empty takes it off'
                    : 'PIN for the shop’s devices'
                }
                type="password"
                autoComplete="off"
                fullWidth
                slotProps={{ htmlInput: { maxLength: 8, inputMode: 'numeric' } }}
              />
              <Button
                type="submit"
                name="intent"
                value="pin"
                variant="outlined"
                disabled={busy}
                sx={{ flexShrink: 0 }}
              >
                Set it
              </Button>
            </fetcher.Form>
          )}
          {leaving ? (
            <fetcher.Form method="post">
              <input type="hidden" name="person" value={person.id} />
              <Typography sx={{ mb: 1 }}>
                {person.name} is signed out everywhere, with every phone of theirs. What they made
                and wrote stays.
              </Typography>
              <Stack direction="row" spacing={1}>
                <Button
                  type="submit"
                  name="intent"
                  value="let-go"
                  variant="contained"
                  disabled={busy}
                >
                  Let {person.name} go
                </Button>
                <Button color="inherit" onClick={() => setLeaving(false)}>
                  Not now
                </Button>
              </Stack>
            </fetcher.Form>
          ) : (
            <Button color="inherit" sx={{ alignSelf: 'start' }} onClick={() => setLeaving(true)}>
              {person.name} is here no longer
            </Button>
          )}
        </>
      )}
    </Stack>
  );
}
