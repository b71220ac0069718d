import Box from '@mui/material/Box';
import { Link } from 'react-router';
import type { Change } from '#core/survey/moved';
import { movedSentence } from '../frame/measuredWords';
import { usePreferences } from '../frame/preferences';
import { useWho } from '../frame/recordedBy';

/**
 * What of the vehicle has moved, in words: as few as can be read at a glance, and where the rest
 * stands.
 */
export function JobMoved({
  job,
  changes,
  all,
}: {
  job: string;
  changes: readonly Change[];
  all: number;
}) {
  const { show } = usePreferences();
  const looks = useWho()?.role === 'looks';
  if (all === 0) return null;
  return (
    <Box
      component="section"
      aria-label="What moved"
      sx={{ mb: 2.5, p: 1.5, bgcolor: 'var(--torch-ground)', borderLeft: '5px solid var(--torch)' }}
    >
      {changes.map((change) => (
        <Box key={change.measure.id}>{movedSentence(change, show)}</Box>
      ))}
      {!looks && (
        <Link to={`/jobs/${job}/references`} style={{ color: 'inherit', fontWeight: 600 }}>
          {all > changes.length
            ? `${all - changes.length} more, and whether a tape was misread: References`
            : 'Whether it is only a tape that was misread: References'}
        </Link>
      )}
    </Box>
  );
}
