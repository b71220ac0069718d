import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

/** The jobs that somebody who looks may see, in a form. */
export function JobTicks({
  jobs,
  chosen,
}: {
  jobs: readonly { id: string; name: string }[];
  chosen: readonly string[];
}) {
  if (jobs.length === 0)
    return <Typography>There is no job yet that could be looked at.</Typography>;
  return (
    <Stack
      role="group"
      aria-label="Jobs that may be looked at"
      sx={{ maxHeight: 260, overflowY: 'auto', border: '1.5px solid var(--rule)', px: 1.5 }}
    >
      {jobs.map(({ id, name }) => (
        <FormControlLabel
          key={id}
          control={<Checkbox name="job" value={id} defaultChecked={chosen.includes(id)} />}
          label={name}
        />
      ))}
    </Stack>
  );
}
