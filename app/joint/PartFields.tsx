import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { CONDITIONS } from '#core/joint/kinds';
import { thicknessOf } from '#core/joint/joint';
import type { Part, Structured } from '#core/joint/structure';
import { METALS } from '#core/metal/metals';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { usePreferences } from '../frame/preferences';
import { OrUnsaid } from './OrUnsaid';
import { CONDITION_WORDS } from './jointWords';

/** The facts of a part of the vehicle: metal, thickness, condition. */
export function PartFields({
  part,
  onChange,
}: {
  part: Structured<Part>;
  onChange: (change: Partial<Part>) => void;
}) {
  const { showThin } = usePreferences();
  const thickMm = thicknessOf(part);
  return (
    <Stack spacing={1.5} role="group" aria-label={part.name}>
      <Typography variant="h3">{part.name}</Typography>
      <OrUnsaid
        label="Metal"
        value={part.metal}
        options={METALS.map((metal) => [metal.id, metal.name] as const)}
        onChange={(metal) => onChange({ metal })}
      />
      <LengthField
        label="Thickness of its sheet"
        mm={part.thicknessMm}
        min={0.1}
        max={12}
        thin
        empty="not known"
        onChange={(thicknessMm) => onChange({ thicknessMm })}
      />
      <Readings
        key={part.readingsMm.length}
        readingsMm={part.readingsMm}
        onChange={(readingsMm) => onChange({ readingsMm })}
      />
      {part.readingsMm.length > 0 && (
        <Typography variant="body2">
          The smallest, <span className="figure">{showThin(thickMm!)}</span>, is what settings go
          by.
        </Typography>
      )}
      <Choice
        label="Its condition"
        value={part.condition}
        options={CONDITIONS.map((one) => [one, CONDITION_WORDS[one]] as const)}
        onChange={(condition) => onChange({ condition })}
      />
    </Stack>
  );
}

/** What a micrometer read of it: one more goes in with Enter, one that is wrong is taken out. */
function Readings({
  readingsMm,
  onChange,
}: {
  readingsMm: readonly number[];
  onChange: (readingsMm: number[]) => void;
}) {
  const { showThin } = usePreferences();
  const [next, setNext] = useState<number | null>(null);
  const full = readingsMm.length >= MAX_READINGS;
  return (
    <Box>
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Read with a micrometer"
          mm={next}
          min={0.1}
          max={12}
          thin
          empty="paint and rust off"
          onChange={setNext}
          onEnter={() => next !== null && !full && onChange([...readingsMm, next])}
        />
        <Button
          variant="outlined"
          color="inherit"
          disabled={next === null || full}
          sx={{ whiteSpace: 'nowrap', flex: 'none', alignSelf: 'end' }}
          onClick={() => next !== null && onChange([...readingsMm, next])}
        >
          Put in
        </Button>
      </Stack>
      {readingsMm.length > 0 && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.8, mt: 1 }}>
          {readingsMm.map((mm, i) => (
            <Chip
              key={i}
              className="figure"
              label={showThin(mm)}
              onDelete={() => onChange(readingsMm.filter((_, k) => k !== i))}
            />
          ))}
        </Box>
      )}
    </Box>
  );
}

const MAX_READINGS = 50;
