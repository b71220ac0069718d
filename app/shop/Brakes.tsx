import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { MAX_BRAKES } from '#core/blank/limits';
import type { Shop } from '#core/blank/shopSchema';
import { cut } from '#core/card/cut';
import { FINGER_GAP_MM, sectionOf } from '#core/machine/brake';
import { Choice } from '../forms/Choice';
import { FigureField } from '../forms/FigureField';
import { LengthField } from '../forms/LengthField';
import { FoldAway } from '../frame/FoldAway';
import { Told } from '../frame/Told';
import { BrakeSection } from './BrakeSection';

type ShopBrake = Shop['brakes'][number];

/** Folders and brakes: their figures beside the section they make. */
export function Brakes({
  brakes,
  onChange,
}: {
  brakes: readonly ShopBrake[];
  onChange: (brakes: ShopBrake[]) => void;
}) {
  const [chosen, choose] = useState(brakes[0]?.id ?? '');
  const brake = brakes.find(({ id }) => id === chosen) ?? brakes[0];
  const change = (next: Partial<ShopBrake>) =>
    brake && onChange(brakes.map((one) => (one.id === brake.id ? { ...one, ...next } : one)));
  const another = () => {
    const id = crypto.randomUUID().slice(0, 8);
    onChange([...brakes, { ...(brake ?? FIRST), id, name: `${brake?.name ?? 'Brake'} (another)` }]);
    choose(id);
  };
  return (
    <Box
      component="section"
      id="machines"
      aria-label="Folders and brakes"
      sx={{ mt: 4, p: 2.5, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
    >
      <Typography variant="h2">Folders and brakes</Typography>
      <Typography sx={{ mb: 2, maxWidth: 720 }}>
        Measure your own: from these figures it is told in which order a piece can be folded. The
        three to start from are no maker’s.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'flex-end', flexWrap: 'wrap', mb: 2 }}>
        {brake && (
          <Box sx={{ minWidth: 260 }}>
            <Choice
              label="Machine"
              value={brake.id}
              onChange={choose}
              options={brakes.map(({ id, name }) => [id, name] as const)}
            />
          </Box>
        )}
        <Button variant="outlined" disabled={brakes.length >= MAX_BRAKES} onClick={another}>
          Another machine
        </Button>
        {brake && brakes.length > 1 && (
          <Button
            color="inherit"
            onClick={() => onChange(brakes.filter(({ id }) => id !== brake.id))}
          >
            Take this one off
          </Button>
        )}
      </Box>
      {brake && <BrakeFields key={brake.id} brake={brake} change={change} />}
    </Box>
  );
}

const FIRST: Omit<ShopBrake, 'id' | 'name'> = {
  lengthMm: 1000,
  openMm: 40,
  noseHeightMm: 80,
  noseDepthMm: 40,
  noseRakeDeg: 30,
  noseRadiusMm: 1,
  apronMm: 15,
  fingersMm: null,
};

const figure = (text: string | undefined): number => Number((text ?? '').replace(',', '.'));
const rowsSaid = (rows: ShopBrake['thickest']): string =>
  (rows ?? []).map(({ lengthMm, thicknessMm }) => `${lengthMm}: ${thicknessMm}`).join('; ');

function BrakeFields({
  brake,
  change,
}: {
  brake: ShopBrake;
  change: (next: Partial<ShopBrake>) => void;
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  const [fingers, setFingers] = useState(brake.fingersMm?.join(' ') ?? '');
  const [thickest, setThickest] = useState(rowsSaid(brake.thickest));
  const [nose, setNose] = useState(
    (brake.noseMm ?? []).map(([back, up]) => `${back} ${up}`).join('; '),
  );
  const takeNose = () => {
    const points = nose
      .split(/;|\n/)
      .map((one) => one.trim())
      .filter(Boolean)
      .map((one) => one.split(/\s+/).map(figure));
    const noseMm = points.map(([back, up]): [number, number] => [back ?? NaN, up ?? NaN]);
    const told =
      'The front of the bar from its tip up, each point as “back up” in millimetres: 20 35; 5 60. Every point higher than the one before, none farther back than the bar.';
    if (
      points.some((one) => one.length !== 2) ||
      noseMm.length > 24 ||
      noseMm.flat().some((one) => !(one >= 0 && one <= 20_000))
    )
      return setWrong(told);
    const next = noseMm.length > 0 ? noseMm : undefined;
    if (!sectionOf({ ...brake, noseMm: next }, 1).ok) return setWrong(told);
    setWrong(null);
    change({ noseMm: next });
  };
  const takeThickest = () => {
    const read = thickest
      .split(/[;\n]+|,\s+/)
      .map((one) => one.trim())
      .filter(Boolean)
      .map((one) => /^(\d+(?:[.,]\d+)?)\s*(?::|=|×|x)\s*(\d+(?:[.,]\d+)?)$/i.exec(one));
    const rows = read.map((found) => ({
      lengthMm: figure(found?.[1]),
      thicknessMm: figure(found?.[2]),
    }));
    if (
      rows.some(
        ({ lengthMm, thicknessMm }) =>
          !(lengthMm >= 1 && lengthMm <= 20_000 && thicknessMm >= 0.1 && thicknessMm <= 20),
      ) ||
      rows.length > 12
    )
      return setWrong(
        'Length: thickness in millimetres, parted by semicolons: 600: 2; 1250: 1.5. Empty where nothing is known.',
      );
    setWrong(null);
    change({ thickest: rows.length > 0 ? rows : undefined });
  };
  const field = (
    key: 'lengthMm' | 'openMm' | 'noseHeightMm' | 'noseDepthMm' | 'noseRadiusMm' | 'apronMm',
    label: string,
    min = 0,
  ) => (
    <LengthField
      label={label}
      mm={brake[key]}
      min={min}
      max={20_000}
      onChange={(mm) => mm !== null && change({ [key]: mm })}
    />
  );
  const takeFingers = () => {
    const read = fingers
      .split(/[\s;+]+/)
      .filter(Boolean)
      .map((one) => Number(one.replace(',', '.')));
    if (read.some((one) => !(one >= 1 && one <= 20_000)) || read.length > 60)
      return setWrong(
        'Widths in millimetres, parted by spaces: 25 30 50 100. Empty for one bar all along.',
      );
    setWrong(null);
    change({ fingersMm: read.length > 0 ? read : null });
  };
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 1fr' }, gap: 2.5 }}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: '1fr 1fr',
          gap: 1.5,
          alignContent: 'start',
          alignItems: 'end',
        }}
      >
        <TextField
          label="Name"
          value={brake.name}
          onChange={(event) => change({ name: cut(event.target.value, 60) || 'Brake' })}
          sx={{ gridColumn: '1 / -1' }}
        />
        {field('lengthMm', 'Longest fold', 1)}
        {field('openMm', 'The bar opens by')}
        <LengthField
          label="Shortest flat it holds"
          mm={brake.leastFlangeMm ?? null}
          min={0}
          max={200}
          empty="as the shop’s"
          onChange={(leastFlangeMm) => change({ leastFlangeMm: leastFlangeMm ?? undefined })}
        />
        <Box sx={{ gridColumn: '1 / -1' }}>
          <FoldAway title="Its shape in figures">
            <Box
              sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5, alignItems: 'end' }}
            >
              {field('noseHeightMm', 'Bar, from the sheet up to the beam', 1)}
              {field('noseDepthMm', 'Bar, from its tip back', 1)}
              <FigureField
                label="Its front leans back by"
                value={brake.noseRakeDeg}
                min={0}
                max={85}
                unit="°"
                wrong="Degrees from upright, 0 to 85."
                onChange={(noseRakeDeg) => change({ noseRakeDeg })}
              />
              {field('noseRadiusMm', 'Radius of its tip')}
              {field('apronMm', 'Apron, wide where it bears')}
              <LengthField
                label="Bed, from the line back"
                mm={brake.bedMm ?? brake.noseDepthMm}
                min={0}
                max={20_000}
                onChange={(mm) => mm !== null && change({ bedMm: mm })}
              />
              <LengthField
                label="Bench or floor, down from the sheet"
                mm={brake.benchMm ?? null}
                min={1}
                max={20_000}
                empty="nothing in the way"
                onChange={(mm) => change({ benchMm: mm ?? undefined })}
              />
              <TextField
                label="Widths of all fingers, mm (empty: one bar)"
                value={fingers}
                onChange={(event) => setFingers(event.target.value)}
                onBlur={takeFingers}
                onKeyDown={(event) => event.key === 'Enter' && takeFingers()}
                slotProps={{ htmlInput: { maxLength: 400 } }}
                sx={{ gridColumn: '1 / -1' }}
              />
              <TextField
                label="Thickest sheet up to a length, mm (length: thickness; …)"
                value={thickest}
                placeholder="600: 2; 1250: 1.5"
                onChange={(event) => setThickest(event.target.value)}
                onBlur={takeThickest}
                onKeyDown={(event) => event.key === 'Enter' && takeThickest()}
                slotProps={{ htmlInput: { maxLength: 300 } }}
                sx={{ gridColumn: '1 / -1' }}
              />
              <TextField
                label="Front of the bar where it is not straight (back up; …)"
                value={nose}
                placeholder="20 35; 5 60"
                onChange={(event) => setNose(event.target.value)}
                onBlur={takeNose}
                onKeyDown={(event) => event.key === 'Enter' && takeNose()}
                slotProps={{ htmlInput: { maxLength: 300 } }}
                sx={{ gridColumn: '1 / -1' }}
              />
              {brake.fingersMm && (
                <LengthField
                  label="Fingers stand apart by at most"
                  mm={brake.fingerGapMm ?? FINGER_GAP_MM}
                  min={0}
                  max={200}
                  onChange={(mm) => mm !== null && change({ fingerGapMm: mm })}
                />
              )}
            </Box>
          </FoldAway>
        </Box>
        {wrong && (
          <Box sx={{ gridColumn: '1 / -1' }}>
            <Told>{wrong}</Told>
          </Box>
        )}
      </Box>
      <Box sx={{ minHeight: 460, position: 'relative', border: '1.5px solid var(--rule)' }}>
        <BrakeSection brake={brake} change={change} />
      </Box>
    </Box>
  );
}
