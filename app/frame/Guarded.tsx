import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Component } from 'react';
import type { ReactNode } from 'react';
import { DrawnHere } from './drawnHere';

type Props = {
  /** The part of the page as it is named where it could not be shown: “The drawing”. */
  what: string;
  /** What to do about it, where that is known. */
  advice?: string;
  /** Room above what is said, for what floats there; in steps of 8 px. */
  below?: number;
  children: ReactNode;
};

/**
 * A part of a page that falls by itself: where it cannot be shown that is said in its place, and all
 * round it stays. React hands such faults to classes only, and on the server to none (`DrawnHere`).
 */
export class Guarded extends Component<Props, { failed: Error | null }> {
  static override contextType = DrawnHere;
  override state: { failed: Error | null } = { failed: null };

  static getDerivedStateFromError(failed: Error): { failed: Error } {
    return { failed };
  }

  override render(): ReactNode {
    const { what, advice, below = 2, children } = this.props;
    const { failed } = this.state;
    if (!failed) return this.context === false ? null : children;
    return (
      <Box
        role="alert"
        sx={{
          m: 2,
          mt: below,
          p: 2,
          bgcolor: 'var(--torch-ground)',
          borderLeft: '5px solid var(--torch)',
        }}
      >
        <Typography sx={{ fontWeight: 600 }}>{what} could not be shown.</Typography>
        <Typography sx={{ mb: 1, overflowWrap: 'anywhere' }}>
          {advice ?? `Nothing is lost. It stopped at: ${failed.message}`}
        </Typography>
        <Button variant="outlined" onClick={() => this.setState({ failed: null })}>
          Try again
        </Button>
      </Box>
    );
  }
}
