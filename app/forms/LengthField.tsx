import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { KeyboardEvent } from 'react';
import { formatField, formatLength, formatThin, stepOf } from '#core/measure/length';
import { parseLength } from '#core/measure/writtenLength';
import { usePreferences } from '../frame/preferences';
import { lengthProblem } from '../frame/sentences';
import { FIGURES } from '../frame/theme';

type Props = {
  label: string;
  mm: number | null;
  /** The length, and as it was written where it was written and not stepped. */
  onChange: (mm: number | null, written?: string) => void;
  /** Smallest length that makes sense; shorter ones are explained and not taken. */
  min?: number;
  /** Largest that makes sense; longer ones are explained and not taken. */
  max?: number;
  /** An empty field is an answer: said in grey what it then means. */
  empty?: string;
  digits?: number;
  /** A thin thing: shown in hundredths of a millimetre or thousandths of an inch. */
  thin?: boolean;
  autoFocus?: boolean;
  /** Called on Enter once the figure was taken. */
  onEnter?: () => void;
  big?: boolean;
  /**
   * Below nothing makes sense: a leading + or − is the figure's own sign, not a change to what
   * stands there.
   */
  signed?: boolean;
  disabled?: boolean;
};

/**
 * No length on a card is longer, mm: the same as in the documents, so that the field says it and
 * not the server.
 */
const LONGEST_MM = 100_000;

/**
 * A field that takes lengths as people write them. Wrong input stays where it is, with what to do
 * about it; with the field in hand both units are shown, and the arrow keys step by half a
 * millimetre or 1/32 in.
 */
export function LengthField({
  label,
  mm,
  onChange,
  min,
  max = LONGEST_MM,
  empty,
  digits = 1,
  thin,
  autoFocus,
  onEnter,
  big,
  signed,
  disabled,
}: Props) {
  const { unit, inches, show } = usePreferences();
  const written = (length: number, inUnit: typeof unit) =>
    thin ? formatThin(length, inUnit, false) : formatField(length, inUnit, digits);
  const shown = mm === null ? '' : written(mm, unit);
  const [typed, setTyped] = useState<string | null>(null);
  const [inHand, setInHand] = useState(false);
  const [toLeft, setToLeft] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  const take = (): boolean => {
    if (typed === null || typed === shown) {
      setTyped(null);
      return problem === null;
    }
    if (typed.trim() === '' && empty !== undefined) {
      onChange(null);
      setTyped(null);
      setProblem(null);
      return true;
    }
    const read = parseLength(typed, unit, signed ? undefined : (mm ?? undefined));
    if (!read.ok) {
      setProblem(lengthProblem(read.problems[0]!, show));
      return false;
    }
    if (min !== undefined && read.mm < min) {
      setProblem(`At least ${formatLength(min, unit, digits)}.`);
      return false;
    }
    if (read.mm > max || (signed && read.mm < -max)) {
      setProblem(`At most ${formatLength(max, unit, digits)}.`);
      return false;
    }
    setProblem(null);
    setTyped(null);
    // The figure that stood there, rounded as it is shown, typed again: nothing was said anew.
    const same = mm !== null && shown !== '' ? parseLength(shown, unit) : null;
    if (!(same?.ok && same.mm === read.mm)) onChange(read.mm, typed.trim());
    return true;
  };
  const keyed = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      const taken = take();
      if (onEnter || !taken) event.preventDefault();
      if (taken) onEnter?.();
    } else if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && typed === null) {
      event.preventDefault();
      const next = (mm ?? 0) + (event.key === 'ArrowUp' ? 1 : -1) * stepOf(unit);
      if ((min === undefined || next >= min) && next <= max) onChange(Math.round(next * 1e4) / 1e4);
    } else if (event.key === 'Escape') {
      setTyped(null);
      setProblem(null);
    }
  };
  const read =
    typed === null ? null : parseLength(typed, unit, signed ? undefined : (mm ?? undefined));
  const inHandMm = read ? (read.ok ? read.mm : null) : mm;
  const both =
    inHandMm === null
      ? null
      : `${formatLength(inHandMm, 'mm', Math.max(digits, 2))} · ${thin ? formatThin(inHandMm, inches) : formatLength(inHandMm, inches, 2)}`;
  return (
    <Box sx={{ position: 'relative', width: '100%' }}>
      <TextField
        label={label}
        value={typed ?? shown}
        placeholder={empty}
        error={problem !== null}
        helperText={problem ?? undefined}
        autoFocus={autoFocus}
        disabled={disabled}
        onChange={(event) => setTyped(event.target.value)}
        onFocus={(event) => {
          setInHand(true);
          setToLeft(event.target.getBoundingClientRect().left > window.innerWidth / 2);
          event.target.select();
        }}
        onBlur={() => {
          setInHand(false);
          take();
        }}
        onKeyDown={keyed}
        slotProps={{
          htmlInput: {
            inputMode: unit === 'mm' ? 'decimal' : 'text',
            autoComplete: 'off',
            style: {
              fontFamily: FIGURES,
              fontFeatureSettings: "'zero'", // A fraction with its rest is long; it must be read whole.
              fontSize: big ? '1.9rem' : (typed ?? shown).length > 8 ? '0.95rem' : '1.1rem',
            },
          },
          input: {
            endAdornment: (
              <span style={{ color: 'var(--pencil)' }}>{unit === 'mm' ? 'mm' : 'in'}</span>
            ),
          },
        }}
      />
      {inHand && problem === null && both && (
        // Laid over what is below, on one line: were it to take room, leaving the field would move
        // the button being pressed. At the right side of a page it reaches to the left, or a
        // phone’s page would be wider by it.
        <Box
          className="figure"
          aria-hidden
          sx={{
            position: 'absolute',
            top: '100%',
            ...(toLeft ? { right: 0 } : { left: 0 }),
            zIndex: 2,
            px: 0.8,
            py: 0.2,
            whiteSpace: 'nowrap',
            fontSize: '0.85rem',
            bgcolor: 'var(--ink)',
            color: 'var(--panel)',
            pointerEvents: 'none',
          }}
        >
          {both}
        </Box>
      )}
    </Box>
  );
}
