import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import type { Learnt, LearntGroup, OpenPiece, ReadingList } from '#core/blank/fold/learnt';
import { changedPieces } from '#core/blank/fold/learnt';
import type { Shop } from '#core/blank/shopSchema';
import { metalById } from '#core/metal/metals';
import { usePreferences } from '../frame/preferences';
import { Changes } from './Changes';

type Leave = (list: ReadingList, index: number, why: string | null) => Promise<boolean>;
type Props = { group: LearntGroup; shop: Shop; open: readonly OpenPiece[]; leaveOut: Leave };

/**
 * Readings that stand together: what they say, and each of them; one can be left out, with a
 * reason.
 */
export function Group({ group, shop, open, leaveOut }: Props) {
  const { show, showThin } = usePreferences();
  const { list, metal, thicknessMm, readings, mean } = group;
  const [thin, thick] = thicknessMm;
  const counted = readings.filter(({ leftOut }) => leftOut === null).length;
  const said = (value: number, u: number) =>
    list === 'strips'
      ? `K ${value.toFixed(3)} ± ${u.toFixed(3)}`
      : list === 'springs'
        ? `${(value * 100).toFixed(1)} % of the angle is left, ± ${(u * 100).toFixed(1)}`
        : `${value < 0 ? '−' : '+'}${showThin(Math.abs(value))} against what was wanted, ± ${showThin(u)}`;
  return (
    <Box sx={{ mt: 1.5, p: 2, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}>
      <Typography variant="h3">
        {metalById(metal).name},{' '}
        {thin === thick ? showThin(thin) : `${showThin(thin)} to ${showThin(thick)}`}
        {list !== 'strips' && `, about ${readings[0]!.round.toFixed(1)} × as round`}
      </Typography>
      <Typography className="figure" sx={{ mb: 0.8 }}>
        {mean
          ? `${said(mean.value, mean.u)} · of ${counted === 1 ? 'one reading' : `${counted} readings`}`
          : 'None of these counts.'}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {readings.map((one) => (
          <Reading
            key={one.index}
            one={one}
            said={said(one.value, one.u)}
            what={whatOf(shop, list, one.index, show)}
            list={list}
            shop={shop}
            open={open}
            leaveOut={leaveOut}
          />
        ))}
      </Box>
    </Box>
  );
}

/** A reading as it was written down, and on which machine. */
function whatOf(
  shop: Shop,
  list: ReadingList,
  index: number,
  show: (mm: number, digits?: number) => string,
): string {
  const brake = shop.brakes.find(({ id }) => id === shop[list][index]!.brake);
  return `${readingSaid(shop, list, index, show)}${brake ? `, on “${brake.name}”` : ''}`;
}

function readingSaid(
  shop: Shop,
  list: ReadingList,
  index: number,
  show: (mm: number, digits?: number) => string,
): string {
  if (list === 'strips') {
    const s = shop.strips[index]!;
    return `radius ${show(s.radiusMm, 2)}: ${show(s.flatMm, 2)} → ${show(s.legAMm, 2)} + ${show(s.legBMm, 2)}`;
  }
  if (list === 'springs') {
    const s = shop.springs[index]!;
    return `radius ${show(s.radiusMm, 2)}: to ${s.foldedToDeg}°, back to ${s.cameBackToDeg}°`;
  }
  const s = shop.radii[index]!;
  return `${show(s.wantedMm, 2)} wanted, ${show(s.gotMm, 2)} came out`;
}

type ReadingProps = Omit<Props, 'group'> & {
  one: Learnt;
  said: string;
  what: string;
  list: ReadingList;
};

function Reading({ one, said, what, list, shop, open, leaveOut }: ReadingProps) {
  const [why, setWhy] = useState<string | null>(null);
  const { leftOut, standsOut, index } = one;
  const effect = useMemo(() => {
    if (why === null) return null;
    const without: Shop = {
      ...shop,
      [list]: shop[list].map((reading, i) =>
        i === index ? { ...reading, leftOut: 'asked' } : reading,
      ),
    };
    return changedPieces(shop, without, open);
  }, [why, shop, list, index, open]);
  const out = async () => {
    if (why?.trim() && (await leaveOut(list, index, why.trim()))) setWhy(null);
  };
  return (
    <Box
      component="li"
      sx={{
        py: 0.6,
        borderTop: '1px solid var(--rule)',
        color: leftOut === null ? undefined : 'var(--pencil)',
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
        <Box
          sx={{ flex: '1 1 260px', textDecoration: leftOut === null ? undefined : 'line-through' }}
        >
          <span className="figure">{what}</span>
          <Box component="span" sx={{ color: 'var(--pencil)' }}>{` · ${said}`}</Box>
        </Box>
        {standsOut && (
          <Box sx={{ color: 'var(--torch)', fontWeight: 600 }}>
            Stands out: farther from the others than three standard deviations
          </Box>
        )}
        {leftOut === null ? (
          <Button size="small" color="inherit" onClick={() => setWhy(why === null ? '' : null)}>
            Leave out
          </Button>
        ) : (
          <Button size="small" color="inherit" onClick={() => void leaveOut(list, index, null)}>
            Let it count again
          </Button>
        )}
      </Box>
      {leftOut !== null && <Typography variant="body2">Left out: {leftOut}</Typography>}
      {why !== null && (
        <Box
          sx={{
            display: 'grid',
            gap: 1,
            mt: 0.8,
            mb: 1,
            pl: 1.5,
            borderLeft: '5px solid var(--torch)',
          }}
        >
          {effect &&
            (list === 'springs' ? (
              <Typography>What such folds are folded to changes; no blank does.</Typography>
            ) : (
              <Changes changes={effect} none="No piece in hand would change." />
            ))}
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-end' }}>
            <TextField
              label="Why it does not count"
              value={why}
              fullWidth
              slotProps={{ htmlInput: { maxLength: 200 } }}
              onChange={(event) => setWhy(event.target.value)}
              onKeyDown={(event) => event.key === 'Enter' && void out()}
            />
            <Button
              variant="outlined"
              disabled={!why.trim()}
              onClick={() => void out()}
              sx={{ flex: 'none' }}
            >
              Leave it out
            </Button>
          </Box>
        </Box>
      )}
    </Box>
  );
}
