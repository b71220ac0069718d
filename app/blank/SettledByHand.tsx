import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { BlankFold } from '#core/blank/fold/developed';
import type { Ordering } from './useOrdering';

/** What was settled to be done by hand: it can be taken back. */
export function SettledByHand({
  saved,
  folds,
}: Pick<Ordering, 'saved'> & { folds: readonly BlankFold[] }) {
  const { byHand, leftOpen } = saved.draft;
  const number = (id: string) => folds.findIndex((fold) => fold.id === id) + 1;
  const all = [
    ...leftOpen.map(({ fold, deg }) => ({
      fold,
      said: `Fold ${number(fold)} is left at ${deg}° and closed by hand.`,
      back: () => saved.set({ leftOpen: leftOpen.filter((one) => one.fold !== fold) }),
    })),
    ...byHand.map((fold) => ({
      fold,
      said: `Fold ${number(fold)} is made by hand.`,
      back: () => saved.set({ byHand: byHand.filter((one) => one !== fold) }),
    })),
  ].filter(({ fold }) => number(fold) > 0);
  if (all.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Settled"
      sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.6 }}
    >
      {all.map(({ fold, said, back }) => (
        <Box
          component="li"
          key={said}
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            borderLeft: '5px solid var(--layout)',
            pl: 1.2,
          }}
        >
          <span style={{ flex: 1 }}>{said}</span>
          <Button
            size="small"
            color="inherit"
            onClick={back}
            aria-label={`Take back: fold ${number(fold)} by hand`}
          >
            Take back
          </Button>
        </Box>
      ))}
    </Box>
  );
}
