import Box from '@mui/material/Box';
import { useState } from 'react';
import type { ReactNode } from 'react';

/** Something that is wanted now and then: its title, and what is under it once it is opened. */
export function FoldAway({
  title,
  open: first = false,
  children,
}: {
  title: string;
  open?: boolean;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(first);
  // What was opened once stays as it was left.
  const [met, setMet] = useState(first);
  return (
    <Box
      component="details"
      open={open}
      onToggle={(event) => {
        setOpen(event.currentTarget.open);
        if (event.currentTarget.open) setMet(true);
      }}
      sx={{ border: '1.5px solid var(--rule)', bgcolor: 'var(--chalk)', px: 1.5 }}
    >
      <Box
        component="summary"
        className="condensed"
        sx={{
          cursor: 'pointer',
          minHeight: 44,
          lineHeight: '44px',
          fontSize: '1.12rem',
          fontWeight: 500,
        }}
      >
        {title}
      </Box>
      {met && <Box sx={{ pt: 1, pb: 1.5 }}>{children}</Box>}
    </Box>
  );
}
