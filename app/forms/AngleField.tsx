import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { FIGURES } from '../frame/theme';

type Props = {
  label: string;
  /** Null where there is none yet. */
  angleDeg: number | null;
  min: number;
  max: number;
  /** What to say of an angle out of range or of something that is none. */
  wrong: string;
  onChange: (angleDeg: number) => void;
  /** Called on Enter once the figure was taken. */
  onEnter?: () => void;
};

/** A field for an angle in degrees. Wrong input stays where it is, with what to do about it; Escape puts back what stood. */
export function AngleField({ label, angleDeg, min, max, wrong, onChange, onEnter }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (): boolean => {
    if (typed === null) return true;
    const value = typed.trim() === '' ? NaN : Number(typed.replace('°', '').replace(',', '.').trim());
    if (!(value >= min && value <= max)) {
      setProblem(wrong);
      return false;
    }
    setProblem(null);
    setTyped(null);
    onChange(value);
    return true;
  };
  return (
    <TextField
      label={label}
      value={typed ?? (angleDeg === null ? '' : Math.round(angleDeg * 100) / 100)}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && take()) onEnter?.();
        if (event.key !== 'Escape') return;
        setTyped(null);
        setProblem(null);
      }}
      slotProps={{
        htmlInput: { inputMode: 'decimal', style: { fontFamily: FIGURES, fontSize: '1.1rem' } },
        input: { endAdornment: '°' },
      }}
    />
  );
}
