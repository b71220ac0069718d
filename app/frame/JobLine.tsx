import Box from '@mui/material/Box';
import { NavLink } from 'react-router';
import { useWho } from './recordedBy';

const STOPS = [
  { to: '', word: 'Pieces' },
  { to: '/found', word: 'Found' },
  { to: '/references', word: 'References' },
] as const;

/** The line of stops of a whole job. */
export function JobLine({ job }: { job: string }) {
  const looks = useWho()?.role === 'looks';
  const stops = STOPS.filter(({ to }) => !looks || to !== '/references');
  return (
    <Box
      component="nav"
      aria-label="The job’s stops"
      sx={{ display: 'flex', gap: 0.5, mb: 2.5, borderBottom: '1.5px solid var(--rule)' }}
    >
      {stops.map(({ to, word }) => (
        <Box
          key={word}
          component={NavLink}
          to={`/jobs/${job}${to}`}
          end
          className="condensed"
          sx={{
            px: 2,
            minHeight: 48,
            display: 'flex',
            alignItems: 'center',
            fontSize: '1.15rem',
            fontWeight: 600,
            color: 'inherit',
            textDecoration: 'none',
            borderBottom: '4px solid transparent',
            '&.active': { borderBottomColor: 'var(--torch)' },
            '&:hover': { bgcolor: 'var(--chalk)' },
          }}
        >
          {word}
        </Box>
      ))}
    </Box>
  );
}
