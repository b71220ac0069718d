import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { FIGURES } from '../frame/theme';

type Props = {
  label: string;
  /** Null where there is none yet. */
  value: number | null;
  min: number;
  max: number;
  /** What it is counted in, said behind it. */
  unit: string;
  /** What to say of a figure out of range or of something that is none. */
  wrong: string;
  onChange: (value: number) => void;
  /** Called on Enter once the figure was taken. */
  onEnter?: () => void;
};

/**
 * A comma before three figures may part thousands or be a decimal sign: whoever wrote it has to
 * say.
 */
const DOUBTFUL = /^[+-]?\d{1,3},\d{3}$/;

/**
 * A field for a plain figure. Wrong input stays where it is, with what to do about it; Escape puts
 * back what stood.
 */
export function FigureField({ label, value, min, max, unit, wrong, onChange, onEnter }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (): boolean => {
    if (typed === null) return true;
    const written = typed.replace(unit, '').trim();
    if (DOUBTFUL.test(written)) {
      setProblem(
        `Write ${written.replace(',', '')} or ${written.replace(',', '.')}, whichever is meant.`,
      );
      return false;
    }
    const read = written === '' ? NaN : Number(written.replace(',', '.'));
    if (!(read >= min && read <= max)) {
      setProblem(wrong);
      return false;
    }
    setProblem(null);
    setTyped(null);
    onChange(read);
    return true;
  };
  return (
    <TextField
      label={label}
      value={typed ?? (value === null ? '' : Math.round(value * 100) / 100)}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => typed !== '' && take()}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && take()) onEnter?.();
        if (event.key !== 'Escape') return;
        setTyped(null);
        setProblem(null);
      }}
      slotProps={{
        htmlInput: { inputMode: 'decimal', style: { fontFamily: FIGURES, fontSize: '1.1rem' } },
        input: { endAdornment: unit },
      }}
    />
  );
}
