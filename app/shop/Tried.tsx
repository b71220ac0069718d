import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import type { Shop } from '#core/blank/shopSchema';
import { shrinkLimit, stretchLimit } from '#core/metal/forming';
import type { MetalId } from '#core/metal/metals';
import { metalById } from '#core/metal/metals';
import type { TriedGroup, TriedKind, TriedReading } from '#core/shape/tried';
import { triedGroups } from '#core/shape/tried';
import { usePreferences } from '../frame/preferences';

const TITLES: Record<TriedKind, string> = {
  stretch: 'A bite stretches',
  shrink: 'A bite gathers',
  share: 'Of a bead’s take-up draws in',
  pass: 'A pass goes deeper',
  torn: 'An edge tore at',
  wrinkled: 'An edge folded over at',
  'flange-pace': 'A metre of flange takes',
  'bead-pace': 'A metre of bead takes',
};

type Leave = (reading: TriedReading, why: string | null) => Promise<boolean>;

/**
 * What the shop has learnt of flanges and beads, with ± and the handbook’s figure where there is
 * one.
 */
export function Tried({ shop, leaveOut }: { shop: Shop; leaveOut: Leave }) {
  const groups = useMemo(() => triedGroups(shop), [shop]);
  return (
    <Box component="section" aria-label="Flanges and beads" sx={{ mt: 4 }}>
      <Typography variant="h2">Flanges and beads</Typography>
      {groups.length === 0 && (
        <Typography sx={{ color: 'var(--pencil)' }}>
          No strip or piece was tried yet: the Shape stop of a piece asks for what it needs and
          takes the readings.
        </Typography>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '1fr 1fr' },
          gap: 1.5,
          mt: 1.5,
          alignItems: 'start',
        }}
      >
        {groups.map((group) => (
          <GroupBox
            key={`${group.kind} ${group.metal} ${group.thicknessMm}`}
            group={group}
            leaveOut={leaveOut}
          />
        ))}
      </Box>
    </Box>
  );
}

function GroupBox({ group, leaveOut }: { group: TriedGroup; leaveOut: Leave }) {
  const { showThin } = usePreferences();
  const { kind, metal, thicknessMm, readings, said } = group;
  const book = bookSaid(kind, metal);
  const value = useValue(kind);
  return (
    <Box sx={{ p: 2, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}>
      <Typography variant="h3">{TITLES[kind]}</Typography>
      <Typography variant="body2">
        {metalById(metal).name}, {showThin(thicknessMm)}
      </Typography>
      <Typography className="figure" sx={{ fontSize: '1.3rem', my: 0.5 }}>
        {said
          ? `${value(said.value)}${said.u !== null ? ` ± ${value(said.u)}` : ''}`
          : 'none counts'}
      </Typography>
      {book && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          {book}
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {readings.map((one) => (
          <ReadingRow
            key={`${one.list} ${one.index}`}
            one={one}
            said={value(one.value)}
            leaveOut={leaveOut}
          />
        ))}
      </Box>
    </Box>
  );
}

function useValue(kind: TriedKind): (value: number) => string {
  const { showThin } = usePreferences();
  if (kind === 'stretch' || kind === 'shrink' || kind === 'pass')
    return (value) => showThin(Math.abs(value));
  if (kind.endsWith('pace')) return (hours) => `${Math.round(hours * 60)} min`;
  return (value) => `${(value * 100).toFixed(1)} %`;
}

function bookSaid(kind: TriedKind, metal: MetalId): string {
  if (kind === 'torn')
    return `The handbook’s: ${(stretchLimit(metalById(metal)).strain * 100).toFixed(1)} %. The lesser counts.`;
  if (kind === 'wrinkled')
    return `Usual: ${Math.abs(shrinkLimit().strain * 100).toFixed(0)} % (common practice). What was seen here counts.`;
  if (kind === 'share') return 'Usual: 80 % right across, 20 % inside a panel (common practice).';
  return '';
}

function ReadingRow({ one, said, leaveOut }: { one: TriedReading; said: string; leaveOut: Leave }) {
  const [why, setWhy] = useState<string | null>(null);
  const out = async () => {
    if (why?.trim() && (await leaveOut(one, why.trim()))) setWhy(null);
  };
  return (
    <Box component="li" sx={{ borderTop: '1px solid var(--rule)', py: 0.4 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box
          className="figure"
          sx={{ flex: 1, textDecoration: one.leftOut === null ? undefined : 'line-through' }}
        >
          {said}
        </Box>
        {one.leftOut === null ? (
          <Button size="small" color="inherit" onClick={() => setWhy(why === null ? '' : null)}>
            Leave out
          </Button>
        ) : (
          <Button size="small" color="inherit" onClick={() => void leaveOut(one, null)}>
            Let it count again
          </Button>
        )}
      </Box>
      {one.leftOut !== null && <Typography variant="body2">Left out: {one.leftOut}</Typography>}
      {why !== null && (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-end', pb: 1 }}>
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
      )}
    </Box>
  );
}
