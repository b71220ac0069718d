import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** Of a record that was written here: that the server has not got it yet. */
export const WaitsForServer = ({ what, children }: { what: string; children?: ReactNode }) => (
  <Typography sx={{ color: 'var(--torch)', fontSize: '0.95rem' }}>
    {what} waits for the server, and goes in when it answers. {children}
  </Typography>
);
