import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** A page for whoever is not in yet: the sign, a heading, what there is to do. */
export function Outside({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        minHeight: '100dvh',
        display: 'grid',
        alignContent: { xs: 'start', sm: 'center' },
        justifyItems: 'center',
        p: 2,
        background: 'radial-gradient(ellipse at 50% 40%, var(--panel) 0%, var(--paper) 75%)',
      }}
    >
      <Stack
        component="main"
        spacing={2.2}
        sx={{
          width: '100%',
          maxWidth: 440,
          bgcolor: 'var(--panel)',
          border: '1.5px solid var(--rule)',
          borderTop: '5px solid var(--layout)',
          p: { xs: 2.2, sm: 3.5 },
        }}
      >
        <Stack direction="row" spacing={1.2} sx={{ alignItems: 'center' }}>
          <img src="/icon.svg" alt="" width={34} height={34} />
          <Box
            component="span"
            className="condensed"
            sx={{ fontSize: '1.5rem', fontWeight: 600, letterSpacing: '0.04em' }}
          >
            Patrone
          </Box>
        </Stack>
        <Typography variant="h1">{title}</Typography>
        {children}
      </Stack>
    </Box>
  );
}
