import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { WeldRecord } from '#core/format/job';
import { usePiece } from '../shell/pieceContext';
import type { Post } from '../shell/usePost';
import { PROCESS_WORDS } from '../shell/words';
import { FIGURES } from '../shell/theme';
import type { Seam } from './seams';

export const WORK_WORDS: Record<WeldRecord['work'], string> = {
  tacks: 'Tacks',
  plugs: 'Plugs',
  seam: 'Seam',
  stitch: 'Stitch',
};

/** A whole number from a field, or null; anything else is a slip to be told. */
const whole = (text: string): number | null | 'slip' =>
  text.trim() === '' ? null : /^\d+$/.test(text.trim()) ? Number(text) : 'slip';
const decimal = (text: string): number | null | 'slip' => {
  if (text.trim() === '') return null;
  const value = Number(text.replace(',', '.'));
  return Number.isFinite(value) && value >= 0 ? value : 'slip';
};

/** Writing down what was just welded: made for one hand, with last time's settings filled in. */
export function WeldEntry({ seam, post }: { seam: Seam; post: Post }) {
  const { welds } = usePiece();
  const last = welds[welds.length - 1];
  const sameEdge = welds.filter((weld) => weld.edge === seam.edge.id);
  const plugged = seam.plugs.length > 0;
  const count = plugged ? seam.plugs.length : seam.tacks.length;
  const doneSet = plugged ? seam.plugsDone : seam.tacksDone;
  const nextOne = Array.from({ length: count }, (_, i) => i + 1).find((n) => !doneSet.has(n));
  const [open, setOpen] = useState(false);
  const [work, setWork] = useState<WeldRecord['work']>(nextOne === undefined ? 'seam' : plugged ? 'plugs' : 'tacks');
  const [from, setFrom] = useState(String(nextOne ?? ''));
  const [to, setTo] = useState(nextOne === undefined ? '' : String(count));
  const [who, setWho] = useState(last?.who ?? '');
  const [note, setNote] = useState('');
  const settings = sameEdge[sameEdge.length - 1]?.settings ?? last?.settings;
  const [amps, setAmps] = useState(settings?.amps?.toString() ?? '');
  const [volts, setVolts] = useState(settings?.volts?.toString() ?? '');
  const [wire, setWire] = useState(settings?.wireMm?.toString() ?? '');
  const [feed, setFeed] = useState(settings?.feed ?? '');
  const [gas, setGas] = useState(settings?.gas ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const numbered = work === 'tacks' || work === 'plugs';

  const write = async () => {
    const [a, b] = [whole(from), whole(to)];
    const figures = { amps: decimal(amps), volts: decimal(volts), wireMm: decimal(wire) };
    if (numbered && (a === 'slip' || b === 'slip' || a === null || b === null || a < 1 || b < a || b > count)) {
      return setProblem(`Say which: from 1 to ${count}, the first not after the last.`);
    }
    if (Object.values(figures).includes('slip'))
      return setProblem('Amps, volts and wire are plain figures, or left empty.');
    setProblem(null);
    const weld: WeldRecord = {
      at: new Date().toISOString(),
      who: who.trim(),
      edge: seam.edge.id,
      process: seam.edge.weld!.process,
      work,
      from: numbered ? (a as number) : null,
      to: numbered ? (b as number) : null,
      settings: {
        ...(figures as { amps: number | null; volts: number | null; wireMm: number | null }),
        feed: feed.trim(),
        gas: gas.trim(),
      },
      note: note.trim(),
    };
    if (!(await post.send({ intent: 'weld', weld }))) return;
    setNote('');
    setOpen(false);
    const next = typeof b === 'number' && b < count ? b + 1 : null;
    setFrom(next === null ? '' : String(next));
    setTo(next === null ? '' : String(count));
    if (next === null) setWork('seam');
  };

  if (!open) {
    return (
      <Button variant="contained" size="large" onClick={() => setOpen(true)}>
        Write down a weld
      </Button>
    );
  }
  const figure = (label: string, value: string, set: (value: string) => void) => (
    <TextField
      label={label}
      value={value}
      onChange={(event) => set(event.target.value)}
      slotProps={{ htmlInput: { inputMode: 'decimal', style: { fontFamily: FIGURES, fontSize: '1.15rem' } } }}
    />
  );
  return (
    <Stack
      spacing={1.5}
      component="section"
      aria-label="Weld entry"
      sx={{ p: 1.5, bgcolor: 'var(--paper)', border: '2.5px solid var(--torch)' }}
    >
      <Typography variant="h3">
        {PROCESS_WORDS[seam.edge.weld!.process]} on edge {seam.edge.letter}
      </Typography>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={work}
        aria-label="What was done"
        onChange={(_, next: WeldRecord['work'] | null) => next && setWork(next)}
      >
        {(plugged ? (['plugs', 'seam', 'stitch'] as const) : (['tacks', 'seam', 'stitch'] as const)).map((kind) => (
          <ToggleButton key={kind} value={kind}>
            {WORK_WORDS[kind]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {numbered && (
        <Stack direction="row" spacing={1}>
          {figure(`First of ${count}`, from, setFrom)}
          {figure('Last', to, setTo)}
        </Stack>
      )}
      <Stack direction="row" spacing={1}>
        {figure('Amps', amps, setAmps)}
        {figure('Volts', volts, setVolts)}
        {figure('Wire or rod, mm', wire, setWire)}
      </Stack>
      <Stack direction="row" spacing={1}>
        <TextField label="Feed" value={feed} onChange={(event) => setFeed(event.target.value.slice(0, 40))} />
        <TextField label="Gas" value={gas} onChange={(event) => setGas(event.target.value.slice(0, 60))} />
      </Stack>
      <TextField label="Who welded" value={who} onChange={(event) => setWho(event.target.value.slice(0, 60))} />
      <TextField
        label="Note"
        multiline
        value={note}
        onChange={(event) => setNote(event.target.value.slice(0, 4000))}
        placeholder="Waited between, hammered while soft …"
      />
      {problem && (
        <Box role="alert" sx={{ color: 'var(--torch)' }}>
          {problem}
        </Box>
      )}
      <Stack direction="row" spacing={1}>
        <Button
          variant="contained"
          size="large"
          sx={{ flex: 1 }}
          disabled={post.state === 'busy'}
          onClick={() => void write()}
        >
          Put in the record
        </Button>
        <Button color="inherit" onClick={() => setOpen(false)}>
          Not now
        </Button>
      </Stack>
    </Stack>
  );
}
