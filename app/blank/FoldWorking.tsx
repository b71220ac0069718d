import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { BlankFold } from '#core/blank/fold/developed';
import { usePreferences } from '../frame/preferences';
import { foldWorking } from './workings';

/** The picked fold, with its working open. */
export function FoldWorking({ fold, number }: { fold: BlankFold; number: number }) {
  const working = foldWorking(fold, usePreferences());
  return (
    <Box component="section" aria-label={`Working of fold ${number}`}>
      <Typography variant="h2">Fold {number}</Typography>
      <Typography sx={{ mb: 1 }}>
        {working.title}, {fold.toward === 'face' ? 'toward you' : 'away from you'}
      </Typography>
      {working.lines.map((line) => (
        <Box
          key={line}
          className="figure"
          sx={{ fontSize: '0.9rem', py: 0.35, borderBottom: '1px dotted var(--rule)' }}
        >
          {line}
        </Box>
      ))}
      <Typography variant="caption" sx={{ color: 'var(--pencil)' }}>
        {working.source}
      </Typography>
    </Box>
  );
}
