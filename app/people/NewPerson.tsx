import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { useAnswers } from '../forms/useAnswers';
import type { Role } from '../records/peopleTables.server';
import { Choice } from '../forms/Choice';
import { Told } from '../frame/Told';
import type { Route } from './+types/people';
import { JobTicks } from './JobTicks';
import { ROLE_WORDS } from './fields';

export const ROLES = (Object.keys(ROLE_WORDS) as Role[]).map(
  (role) => [role, ROLE_WORDS[role].name] as const,
);

/** Takes somebody into the shop. */
export function NewPerson({
  jobs,
  first,
}: {
  jobs: readonly { id: string; name: string }[];
  first: boolean;
}) {
  const fetcher = useAnswers<Route.ComponentProps['actionData']>();
  const [role, setRole] = useState<Role>(first ? 'runs' : 'works');
  const form = useRef<HTMLFormElement>(null);
  const done = fetcher.state === 'idle' && fetcher.data?.done;
  useEffect(() => {
    if (done) form.current?.reset();
  }, [done]);
  return (
    <Stack
      component="section"
      aria-label="Somebody new"
      spacing={1.5}
      sx={{ border: '1.5px dashed var(--rule)', p: 2 }}
    >
      <Typography variant="h3">Somebody new</Typography>
      <fetcher.Form method="post" ref={form} style={{ display: 'grid', gap: 14 }}>
        <TextField
          name="name"
          label="First name"
          required
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
        {role === 'looks' && <JobTicks jobs={jobs} chosen={[]} />}
        <TextField
          name="phrase"
          label="Pass phrase"
          type="password"
          autoComplete="new-password"
          helperText="Ten letters or more. Leave it empty for one who only comes in with a phone."
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        {fetcher.state === 'idle' && fetcher.data?.message && <Told>{fetcher.data.message}</Told>}
        {done && <Typography role="status">{done}</Typography>}
        <Button
          type="submit"
          name="intent"
          value="add"
          variant="contained"
          disabled={fetcher.state !== 'idle'}
          sx={{ justifySelf: 'start' }}
        >
          Take them in
        </Button>
      </fetcher.Form>
    </Stack>
  );
}
