import Box from '@mui/material/Box';
import { useNotKept } from './browserStore';

/** Told above everything: what was typed is held by this page alone. */
export function NotKept() {
  if (!useNotKept()) return null;
  return (
    <Box
      role="alert"
      sx={{
        position: 'sticky',
        top: 0,
        zIndex: 'snackbar',
        px: 2,
        py: 1,
        fontWeight: 600,
        color: 'var(--chalk)',
        bgcolor: 'var(--torch)',
      }}
    >
      Not kept: this browser’s store is full or switched off. Leave this page open until what you
      typed is saved.
    </Box>
  );
}
