import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { cut } from '#core/card/cut';
import type { WeldRecord } from '#core/format/job';
import type { Unit } from '#core/measure/length';
import { parseLength } from '#core/measure/writtenLength';
import { useDraft } from '../forms/useDraft';
import type { Post } from '../forms/usePost';
import { formatDay, formatTime } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { FIGURES } from '../frame/theme';
import { PROCESS_WORDS } from '../frame/words';
import { WhoField } from '../piece/WhoField';
import { useWho, whoAtFirst } from '../frame/recordedBy';
import { usePiece } from '../piece/pieceContext';
import type { Weld } from '../records/records.server';
import type { Seam } from '#core/weld/seams';
import { WORK_WORDS } from '../frame/recordWords';

type Draft = {
  open: boolean;
  work: WeldRecord['work'];
  from: string;
  to: string;
  who: string;
  note: string;
  amps: string;
  volts: string;
  wire: string;
  feed: string;
  gas: string;
};

/** A whole number from a field, or null; anything else is a slip to be told. */
const whole = (text: string): number | null | 'slip' =>
  text.trim() === '' ? null : /^\d+$/.test(text.trim()) ? Number(text) : 'slip';
const decimal = (text: string): number | null | 'slip' => {
  if (text.trim() === '') return null;
  const value = Number(text.replace(',', '.'));
  return Number.isFinite(value) && value >= 0 ? value : 'slip';
};

/** A wire or rod as it is written on its box: a length in the unit in use. */
const wireMm = (text: string, unit: Unit): number | null | 'slip' => {
  if (text.trim() === '') return null;
  const read = parseLength(text, unit);
  return read.ok && read.mm >= 0 && read.mm <= 10 ? read.mm : 'slip';
};

/** Writing down what was just welded: made for one hand, with last time's settings filled in. */
export function WeldEntry({
  seam,
  post,
  anew,
  onDone,
}: {
  seam: Seam;
  post: Post;
  /** An entry that was taken back, to be written right. */
  anew: Weld | null;
  onDone: () => void;
}) {
  const { id, welds, patternEditor, pattern } = usePiece();
  const me = useWho();
  const { unit, thin } = usePreferences();
  const last = welds[welds.length - 1];
  const sameEdge = welds.filter((weld) => weld.edge === seam.edge.id && !weld.withdrawn);
  const plugged = seam.plugs.length > 0;
  const spots = plugged ? seam.plugs : seam.tacks;
  const count = spots.length;
  const doneSet = plugged ? seam.plugsDone : seam.tacksDone;
  const nextOne = Array.from({ length: count }, (_, i) => i + 1).find((n) => !doneSet.has(n));
  const { dates } = usePreferences();
  const settings = anew?.settings ?? sameEdge[sameEdge.length - 1]?.settings ?? last?.settings;
  const { draft, set, drop } = useDraft<Draft>(
    `weld ${id} ${seam.edge.id}${anew ? ` ${anew.id}` : ''}`,
    {
      open: anew !== null,
      work: anew?.work ?? (nextOne === undefined ? 'seam' : plugged ? 'plugs' : 'tacks'),
      from: String((anew ? anew.from : nextOne) ?? ''),
      to: anew ? String(anew.to ?? '') : nextOne === undefined ? '' : String(count),
      who: anew?.who ?? whoAtFirst(me, last?.who),
      note: anew
        ? `In place of the entry of ${formatDay(anew.at, dates)}, ${formatTime(anew.at, dates)}. ${anew.note}`.trim()
        : '',
      amps: settings?.amps?.toString() ?? '',
      volts: settings?.volts?.toString() ?? '',
      wire: settings?.wireMm == null ? '' : thin(settings.wireMm),
      feed: settings?.feed ?? '',
      gas: settings?.gas ?? '',
    },
  );
  const { open, work, from, to, who, note, amps, volts, wire, feed, gas } = draft;
  const [problem, setProblem] = useState<string | null>(null);
  const numbered = work === 'tacks' || work === 'plugs';

  const write = async () => {
    const [a, b] = [whole(from), whole(to)];
    const figures = { amps: decimal(amps), volts: decimal(volts), wireMm: wireMm(wire, unit) };
    if (
      numbered &&
      (a === 'slip' || b === 'slip' || a === null || b === null || a < 1 || b < a || b > count)
    ) {
      return setProblem(`Say which: from 1 to ${count}, the first not after the last.`);
    }
    if (Object.values(figures).includes('slip'))
      return setProblem('Amps, volts and wire are plain figures, or left empty.');
    const by = who.trim() || (me?.names ? (me.name ?? '') : '');
    if (me?.names && by === '') return setProblem('Touch who welded it.');
    setProblem(null);
    const weld: WeldRecord = {
      at: new Date().toISOString(),
      who: by,
      edge: seam.edge.id,
      process: seam.plan.process,
      work,
      from: numbered ? (a as number) : null,
      to: numbered ? (b as number) : null,
      made: {
        revision: patternEditor.number,
        turned: pattern.turned,
        placesMm: numbered ? spots.slice((a as number) - 1, b as number) : [],
      },
      withdrawn: null,
      settings: {
        ...(figures as { amps: number | null; volts: number | null; wireMm: number | null }),
        feed: feed.trim(),
        gas: gas.trim(),
      },
      note: note.trim(),
    };
    const what = numbered ? `${WORK_WORDS[work]} ${from} to ${to}` : WORK_WORDS[work];
    if (
      !(await post.sendOrWait(
        { intent: 'weld', id: crypto.randomUUID(), weld },
        `Weld on ${seam.edge.letter}: ${what}`,
        id,
      ))
    )
      return;
    // The next entry begins where the record now ends.
    drop(draft);
    onDone();
  };

  // On a phone the form opens under the drawing, below the fold of the screen.
  const form = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (open) form.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);

  if (!open) {
    return (
      <Button variant="contained" size="large" onClick={() => set({ open: true })}>
        Write down a weld
      </Button>
    );
  }
  const figure = (label: string, key: 'from' | 'to' | 'amps' | 'volts' | 'wire') => (
    <TextField
      label={label}
      value={draft[key]}
      onChange={(event) => set({ [key]: event.target.value })}
      slotProps={{
        htmlInput: { inputMode: 'decimal', style: { fontFamily: FIGURES, fontSize: '1.15rem' } },
      }}
    />
  );
  return (
    <Stack
      spacing={1.5}
      component="section"
      ref={form}
      aria-label="Weld entry"
      sx={{ p: 1.5, bgcolor: 'var(--paper)', border: '2.5px solid var(--torch)' }}
    >
      <Typography variant="h3">
        {PROCESS_WORDS[seam.plan.process]} on edge {seam.edge.letter}
      </Typography>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={work}
        aria-label="What was done"
        onChange={(_, next: WeldRecord['work'] | null) => next && set({ work: next })}
      >
        {(plugged
          ? (['plugs', 'seam', 'stitch'] as const)
          : (['tacks', 'seam', 'stitch'] as const)
        ).map((kind) => (
          <ToggleButton key={kind} value={kind}>
            {WORK_WORDS[kind]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {numbered && (
        <Stack direction="row" spacing={1}>
          {figure(`First of ${count}`, 'from')}
          {figure('Last', 'to')}
        </Stack>
      )}
      <Stack direction="row" spacing={1}>
        {figure('Amps', 'amps')}
        {figure('Volts', 'volts')}
        {figure(unit === 'mm' ? 'Wire or rod, mm' : 'Wire or rod, inches', 'wire')}
      </Stack>
      <Stack direction="row" spacing={1}>
        <TextField
          label="Feed"
          value={feed}
          onChange={(event) => set({ feed: cut(event.target.value, 40) })}
        />
        <TextField
          label="Gas"
          value={gas}
          onChange={(event) => set({ gas: cut(event.target.value, 60) })}
        />
      </Stack>
      <WhoField label="Who welded" value={who} onChange={(next) => set({ who: next })} />
      <TextField
        label="Note"
        multiline
        value={note}
        onChange={(event) => set({ note: cut(event.target.value, 4000) })}
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
        <Button
          color="inherit"
          onClick={() => {
            set({ open: false });
            onDone();
          }}
        >
          Not now
        </Button>
      </Stack>
    </Stack>
  );
}
