import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

/** A page that could not be shown, and the two ways on. */
export function Lost({ title, text }: { title: string; text: string }) {
  return (
    <Stack component="main" spacing={2} sx={{ maxWidth: 620, mx: 'auto', p: 4, pt: 10 }}>
      <Typography variant="h1">{title}</Typography>
      <Typography>{text}</Typography>
      <Stack direction="row" spacing={1}>
        <Button variant="contained" onClick={() => window.location.reload()}>
          Try again
        </Button>
        <Button variant="outlined" href="/">
          To the jobs
        </Button>
      </Stack>
    </Stack>
  );
}
