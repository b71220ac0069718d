import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { MAX_SHEETS } from '#core/blank/limits';
import type { Shop } from '#core/blank/shopSchema';
import { cut } from '#core/card/cut';
import type { MetalId } from '#core/metal/metals';
import { METALS, metalById } from '#core/metal/metals';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { usePreferences } from '../frame/preferences';

type Sheet = Shop['sheets'][number];

/**
 * Sheet that this shop can get, besides the usual sizes: bought, or cut from an old panel, as thick
 * as it was measured.
 */
export function Sheets({
  sheets,
  onChange,
}: {
  sheets: readonly Sheet[];
  onChange: (sheets: Sheet[]) => void;
}) {
  const { showThin } = usePreferences();
  const [fresh, setFresh] = useState<{
    metal: MetalId;
    from: Sheet['from'];
    thicknessMm: number | null;
    name: string;
  }>({ metal: 'dc01', from: 'donor', thicknessMm: null, name: '' });
  const [missing, setMissing] = useState(false);
  return (
    <Box
      component="section"
      aria-label="Sheet we can get"
      sx={{ mt: 4, p: 2.5, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
    >
      <Typography variant="h2">Sheet we can get</Typography>
      <Typography sx={{ mb: 2, maxWidth: 720 }}>
        Besides the sizes that every merchant has. A good panel of an old vehicle is stock as well:
        measure it bare, and it is offered where its thickness fits.
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: '1.2fr 1fr 0.8fr 1.4fr auto' },
          gap: 1.5,
          alignItems: 'end',
        }}
      >
        <Choice
          label="Metal of the sheet"
          value={fresh.metal}
          onChange={(metal) => setFresh({ ...fresh, metal })}
          options={METALS.map((m) => [m.id, m.name] as const)}
        />
        <Choice
          label="Where from"
          value={fresh.from}
          onChange={(from) => setFresh({ ...fresh, from })}
          options={[
            ['donor', 'An old panel'],
            ['bought', 'Bought'],
          ]}
        />
        <LengthField
          label="As thick as"
          mm={fresh.thicknessMm}
          thin
          min={0.1}
          max={12}
          empty="measure it"
          onChange={(thicknessMm) => setFresh((now) => ({ ...now, thicknessMm }))}
        />
        <TextField
          label="What it is called"
          value={fresh.name}
          onChange={(event) => setFresh({ ...fresh, name: cut(event.target.value, 60) })}
          placeholder="Old roof panel"
        />
        <Button
          variant="outlined"
          color="inherit"
          disabled={sheets.length >= MAX_SHEETS}
          onClick={() => {
            const { thicknessMm } = fresh;
            setMissing(thicknessMm === null);
            if (thicknessMm === null) return;
            onChange([...sheets, { ...fresh, thicknessMm }]);
            setFresh({ ...fresh, thicknessMm: null, name: '' });
          }}
        >
          Add this sheet
        </Button>
      </Box>
      {missing && <Box role="alert">Measure how thick it is.</Box>}
      {sheets.map((sheet, i) => (
        <Box
          key={i}
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            borderTop: '1px solid var(--rule)',
            mt: 1,
            pt: 0.5,
          }}
        >
          <Box sx={{ flex: 1 }}>
            <b className="figure">{showThin(sheet.thicknessMm)}</b> {metalById(sheet.metal).name},{' '}
            {sheet.from === 'donor' ? 'from an old panel' : 'bought'}
            {sheet.name && ` · ${sheet.name}`}
          </Box>
          <Button
            size="small"
            color="inherit"
            onClick={() => onChange(sheets.filter((_, k) => k !== i))}
            aria-label={`Take off the sheet of ${showThin(sheet.thicknessMm)}`}
          >
            Take off
          </Button>
        </Box>
      ))}
    </Box>
  );
}
