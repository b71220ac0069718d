import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Strip } from '#core/blank/fold/testBend';
import { kFromStrip } from '#core/blank/fold/testBend';
import { MAX_STRIPS } from '#core/blank/limits';
import type { Shop } from '#core/blank/shopSchema';
import type { MetalId } from '#core/metal/metals';
import { METALS } from '#core/metal/metals';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';

type Typed = Record<
  'thicknessMm' | 'radiusMm' | 'flatMm' | 'legAMm' | 'legBMm' | 'readingMm',
  number | null
>;

/** Nothing is measured yet; a rule and a square read to about a tenth. */
const NEW_STRIP: Typed = {
  thicknessMm: null,
  radiusMm: null,
  flatMm: null,
  legAMm: null,
  legBMm: null,
  readingMm: 0.1,
};

/** The strip once all of it is measured; it is folded square. */
function measured(typed: Typed): Strip | null {
  const { thicknessMm, radiusMm, flatMm, legAMm, legBMm, readingMm } = typed;
  if (thicknessMm === null || radiusMm === null || flatMm === null) return null;
  if (legAMm === null || legBMm === null || readingMm === null) return null;
  return { thicknessMm, radiusMm, flatMm, legAMm, legBMm, readingMm, angleDeg: 90 };
}

/**
 * The shop's own test bends: fold a strip once, measure its legs, and its K is known with how sure
 * it is.
 */
export function TestBends({
  shop,
  onAdd,
}: {
  shop: Shop;
  onAdd: (strip: Shop['strips'][number]) => void;
}) {
  const [metal, setMetal] = useState<MetalId>('dc01');
  const [strip, setStrip] = useState<Typed>(NEW_STRIP);
  const full = shop.strips.length >= MAX_STRIPS;
  const whole = measured(strip);
  const found = whole && kFromStrip(whole);
  const field = (key: keyof Typed, label: string, digits = 2) => (
    <LengthField
      label={label}
      mm={strip[key]}
      min={0}
      digits={digits}
      empty="measure it"
      onChange={(mm) => setStrip({ ...strip, [key]: mm })}
    />
  );
  return (
    <Box
      component="section"
      aria-label="Test bends"
      sx={{ mt: 4, p: 2.5, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
    >
      <Typography variant="h2">Our own test bends</Typography>
      <Typography sx={{ mb: 2, maxWidth: 720 }}>
        Cut a strip, measure it flat, fold it square once, measure both legs on the outside to the
        sharp. That tells more than any table.
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(4, 1fr)' },
          gap: 1.5,
        }}
      >
        <Choice
          label="Metal"
          value={metal}
          onChange={setMetal}
          options={METALS.map((m) => [m.id, m.name] as const)}
        />
        {field('thicknessMm', 'Thickness')}
        {field('radiusMm', 'Inside radius')}
        {field('flatMm', 'Flat length')}
        {field('legAMm', 'First leg')}
        {field('legBMm', 'Second leg')}
        {field('readingMm', 'Each reading good to ±')}
        <Box sx={{ alignSelf: 'end' }}>
          <Button
            variant="outlined"
            fullWidth
            disabled={!found?.ok || full}
            onClick={() => {
              if (!whole) return;
              onAdd({ ...whole, metal });
              setStrip(NEW_STRIP);
            }}
          >
            {full
              ? `${MAX_STRIPS} are kept, and no more`
              : !found
                ? 'Measure all of it'
                : found.ok
                  ? `Add: K ${found.k.toFixed(3)} ± ${found.uK.toFixed(3)}`
                  : 'These do not belong together'}
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
