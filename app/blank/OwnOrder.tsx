import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { BlankFold } from '#core/blank/fold/developed';
import { Told } from '../frame/Told';
import type { Ordering } from '../folding/useOrdering';

/** An order of one's own, by the numbers of folds; without one it is found. */
export function OwnOrder({
  saved,
  folds,
}: Pick<Ordering, 'saved'> & { folds: readonly BlankFold[] }) {
  const { order } = saved.draft;
  const said = order
    ? order.folds
        .map((id) => folds.findIndex((fold) => fold.id === id) + 1)
        .filter((number) => number > 0)
        .join(' ')
    : '';
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const check = () => {
    const given = (typed ?? said).trim();
    const numbers = given.match(/\d+/g)?.slice(0, 400).map(Number) ?? [];
    const bad =
      (given !== '' && numbers.length === 0) ||
      numbers.some((number) => !folds[number - 1]) ||
      new Set(numbers).size !== numbers.length ||
      (numbers.length > 0 && numbers.length !== folds.length);
    setWrong(bad);
    if (bad) return;
    setTyped(null);
    saved.set({
      order: numbers.length > 0 ? { folds: numbers.map((number) => folds[number - 1]!.id) } : null,
    });
  };
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start' }}>
        <TextField
          label="An order of your own (empty: found for you)"
          placeholder={Array.from({ length: Math.min(folds.length, 6) }, (_, i) => i + 1).join(' ')}
          value={typed ?? said}
          fullWidth
          slotProps={{ htmlInput: { maxLength: 120, inputMode: 'numeric' } }}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && check()}
        />
        <Button variant="outlined" sx={{ mt: 2.6 }} onClick={check}>
          Check
        </Button>
      </Box>
      {wrong && (
        <Told>
          Name each fold once, by its number, as {folds.map((_, i) => i + 1).join(' ')}. Empty, an
          order is found for you.
        </Told>
      )}
      {order && (
        <Button
          variant="outlined"
          onClick={() => {
            setTyped(null);
            setWrong(false);
            saved.set({ order: null });
          }}
        >
          Find an order that goes
        </Button>
      )}
    </Box>
  );
}
