import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { ReactNode } from 'react';
import { StopMark } from '../frame/StopMark';

/** One thing of a list: its line with a mark, done or still open, and under it what it says. */
export function OneOfList({
  title,
  done,
  open,
  onOpen,
  children,
}: {
  title: string;
  done: boolean;
  open: boolean;
  onOpen: () => void;
  children: ReactNode;
}) {
  return (
    <Box sx={{ border: '1.5px solid var(--rule)', bgcolor: 'var(--chalk)' }}>
      <ButtonBase
        onClick={onOpen}
        aria-expanded={open}
        aria-label={`${title}, ${done ? 'done' : 'open'}`}
        sx={{
          width: '100%',
          minHeight: 48,
          px: 1.4,
          gap: 1.2,
          justifyContent: 'flex-start',
          textAlign: 'left',
          fontFamily: 'Barlow, sans-serif',
          fontSize: '1.02rem',
        }}
      >
        <StopMark state={done ? 'done' : 'ahead'} />
        {title}
      </ButtonBase>
      {open && <Box sx={{ p: 1.4, pt: 0.6 }}>{children}</Box>}
    </Box>
  );
}
