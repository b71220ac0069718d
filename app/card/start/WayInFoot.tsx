import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';

type Props = {
  /** Makes the card; null while there is nothing to make it of. */
  onMake: (() => void) | null;
  /** Back to the choice of how a card gets in. */
  onBack: () => void;
  children?: ReactNode;
};

/** The foot of every way in which a card gets in: making it, what else can be done, and going back. */
export const WayInFoot = ({ onMake, onBack, children }: Props) => (
  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
    <Button variant="contained" size="large" disabled={onMake === null} onClick={() => onMake?.()}>
      Make the card
    </Button>
    {children}
    <Button color="inherit" onClick={onBack}>
      Another way in
    </Button>
  </Box>
);
