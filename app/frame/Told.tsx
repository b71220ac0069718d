import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** What did not go through, and what to do: said where it was asked for. */
export const Told = ({ children }: { children: ReactNode }) => (
  <Box
    role="alert"
    sx={{ p: 1.2, bgcolor: 'var(--torch-ground)', borderLeft: '5px solid var(--torch)' }}
  >
    {children}
  </Box>
);
