import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import type { ReactNode } from 'react';
import { byLetter } from '#core/card/outline';
import { Choice } from '../forms/Choice';
import { Moment } from '../frame/Moment';
import { StopMark } from '../frame/StopMark';
import { usePiece } from '../piece/pieceContext';

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

/** The edge at which something of a piece is; null: `nowhere`, in words. */
export function WhereField({
  edge,
  nowhere,
  onChange,
}: {
  edge: string | null;
  nowhere: string;
  onChange: (edge: string | null) => void;
}) {
  const { pattern } = usePiece();
  return (
    <Choice
      label="Where"
      value={edge ?? ''}
      onChange={(next) => onChange(next === '' ? null : next)}
      options={[
        ['', nowhere],
        ...byLetter(pattern.edges).map((one) => [one.id, `Edge ${one.letter}`] as const),
      ]}
    />
  );
}

/** Whether something of a list is done, since when; and the way to take it out again. */
export function DoneFoot({
  at,
  done,
  button,
  onChange,
  onRemove,
}: {
  at: string | null;
  /** How it is said once it is done, and what is touched to say so. */
  done: string;
  button: string;
  onChange: (at: string | null) => void;
  onRemove: () => void;
}) {
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      {at === null ? (
        <Button variant="contained" onClick={() => onChange(new Date().toISOString())}>
          {button}
        </Button>
      ) : (
        <>
          <span>
            {done} <Moment at={at} />
          </span>
          <Button color="inherit" size="small" onClick={() => onChange(null)}>
            Not yet
          </Button>
        </>
      )}
      <Button color="inherit" size="small" sx={{ ml: 'auto' }} onClick={onRemove}>
        That was a slip
      </Button>
    </Box>
  );
}
