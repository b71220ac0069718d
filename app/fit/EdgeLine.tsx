import Box from '@mui/material/Box';
import type { EdgeCondition } from '#core/fit/gapCondition';
import type { GapState } from '../drawing/marks';
import { GapSign } from '../drawing/marks';

/** The mark of an edge as a whole: the way that most of what is out on it is out. */
export function signOf(condition: EdgeCondition | null): GapState {
  if (!condition || condition.read === 0) return 'unread';
  if (condition.good) return 'right';
  const count = {
    tight: condition.tight.length,
    wide: condition.wide.length,
    proud: condition.proud.length,
    low: condition.low.length,
  };
  return (Object.keys(count) as (keyof typeof count)[]).sort((a, b) => count[b] - count[a])[0]!;
}

/** How an edge lies, in one line to be touched. */
export function EdgeLine({
  letter,
  said,
  state,
  picked,
  onPick,
}: {
  letter: string;
  said: string;
  state: GapState;
  picked: boolean;
  onPick: () => void;
}) {
  return (
    <Box
      component="button"
      type="button"
      onClick={onPick}
      aria-pressed={picked}
      sx={{
        font: 'inherit',
        color: 'inherit',
        textAlign: 'left',
        cursor: 'pointer',
        display: 'flex',
        alignItems: 'center',
        gap: 1.2,
        minHeight: 46,
        px: 1.2,
        bgcolor: picked ? 'var(--torch-ground)' : 'var(--chalk)',
        border: '1.5px solid',
        borderColor: picked ? 'var(--torch)' : 'var(--rule)',
      }}
    >
      <Box
        component="span"
        className="condensed"
        sx={{ fontSize: '1.3rem', fontWeight: 600, minWidth: 26 }}
      >
        {letter}
      </Box>
      <GapSign state={state} />
      <Box component="span" sx={{ lineHeight: 1.2 }}>
        {said}
      </Box>
    </Box>
  );
}
