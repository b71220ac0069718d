import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import type { ReactNode } from 'react';
import { Form } from 'react-router';
import type { JobFacts } from '#core/format/job';
import { Told } from '../frame/Told';

export const NEW_JOB: JobFacts = { name: '', vehicle: '', owner: '', notes: '' };

const factsOnly = ({ name, vehicle, owner, notes }: JobFacts): JobFacts => ({
  name,
  vehicle,
  owner,
  notes,
});

/** Name, vehicle, owner and notes of a job; a plain form that works before any script does. */
export function JobForm({
  initial,
  intent,
  button,
  message,
  since = initial,
  sentAs,
  children,
}: {
  initial: JobFacts;
  intent: string;
  button: string;
  message?: string;
  /** The job as the user last saw it: another's changes since then are not undone. */
  since?: JobFacts;
  /** The key it is sent under, so that sent twice it is done once. */
  sentAs?: string;
  children?: ReactNode;
}) {
  return (
    <Form method="post">
      <input type="hidden" name="intent" value={intent} />
      {sentAs && <input type="hidden" name="key" value={sentAs} />}
      <input type="hidden" name="since" value={JSON.stringify(factsOnly(since))} />
      <Stack spacing={1.5}>
        <TextField
          name="name"
          label="Name of the job"
          defaultValue={initial.name}
          required
          autoFocus
          slotProps={{ htmlInput: { maxLength: 80 } }}
        />
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
          <TextField
            name="vehicle"
            label="Vehicle"
            defaultValue={initial.vehicle}
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          <TextField
            name="owner"
            label="Owner"
            defaultValue={initial.owner}
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
        </Stack>
        <TextField
          name="notes"
          label="Notes"
          multiline
          minRows={2}
          defaultValue={initial.notes}
          slotProps={{ htmlInput: { maxLength: 8000 } }}
        />
        {message && <Told>{message}</Told>}
        <Stack direction="row" spacing={1}>
          <Button type="submit" variant="contained">
            {button}
          </Button>
          {children}
        </Stack>
      </Stack>
    </Form>
  );
}
