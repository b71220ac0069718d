import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Development } from '#core/blank/fold/developed';
import { turnedEdgeIds } from '#core/blank/fold/order/bodies';
import { usePreferences } from '../frame/preferences';
import type { Ordering } from '../folding/useOrdering';

type Settled = { said: string; label: string; name: string; act: () => void };

/** What is settled about the folding besides the order: each can be taken back. */
export function SettledByHand({
  saved,
  development,
}: Pick<Ordering, 'saved'> & { development: Development }) {
  const { folds, edges } = development;
  const { show } = usePreferences();
  const { byHand, leftOpen, turnedAfter, uncoveredMm } = saved.draft;
  const number = (id: string) => folds.findIndex((fold) => fold.id === id) + 1;
  const letter = (id: string) => edges.find((edge) => edge.id === id)?.letter ?? '';
  const without = (id: string) => turnedAfter.filter((one) => one !== id);
  const all: Settled[] = [
    ...leftOpen
      .filter(({ fold }) => number(fold) > 0)
      .map(({ fold, deg }) => ({
        said: `Fold ${number(fold)} is left at ${deg}° and closed by hand.`,
        label: 'Take back',
        name: `Take back: fold ${number(fold)} by hand`,
        act: () => saved.set({ leftOpen: leftOpen.filter((one) => one.fold !== fold) }),
      })),
    ...byHand
      .filter((fold) => number(fold) > 0)
      .map((fold) => ({
        said: `Fold ${number(fold)} is made by hand.`,
        label: 'Take back',
        name: `Take back: fold ${number(fold)} by hand`,
        act: () => saved.set({ byHand: byHand.filter((one) => one !== fold) }),
      })),
    ...turnedEdgeIds(development).map((id) => {
      const late = turnedAfter.includes(id);
      const other = late ? 'Before them' : 'After them';
      return {
        said: `Edge ${letter(id)} is turned over ${late ? 'after' : 'before'} the folds.`,
        label: other,
        name: `Edge ${letter(id)}: ${other.toLowerCase()}`,
        act: () => saved.set({ turnedAfter: late ? without(id) : [...turnedAfter, id] }),
      };
    }),
    ...(uncoveredMm === null
      ? []
      : [
          {
            said: `Fingers may leave ${show(uncoveredMm)} of a fold uncovered.`,
            label: 'Take back',
            name: 'Take back: what fingers leave uncovered',
            act: () => saved.set({ uncoveredMm: null }),
          },
        ]),
  ];
  if (all.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Settled"
      sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.6 }}
    >
      {all.map(({ said, label, name, act }) => (
        <Box
          component="li"
          key={name}
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            borderLeft: '5px solid var(--layout)',
            pl: 1.2,
          }}
        >
          <span style={{ flex: 1 }}>{said}</span>
          <Button size="small" color="inherit" onClick={act} aria-label={name}>
            {label}
          </Button>
        </Box>
      ))}
    </Box>
  );
}
