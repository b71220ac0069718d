import Box from '@mui/material/Box';
import { useLayoutEffect, useRef } from 'react';
import { useNotKept } from './browserStore';

/** Told above everything: what was typed is held by this page alone. */
export function NotKept() {
  const bar = useRef<HTMLDivElement>(null);
  const shown = useNotKept();
  // What fills the window below it is that much lower.
  useLayoutEffect(() => {
    const height = bar.current?.offsetHeight ?? 0;
    document.documentElement.style.setProperty('--above', `${height}px`);
  }, [shown]);
  if (!shown) return null;
  return (
    <Box
      ref={bar}
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
