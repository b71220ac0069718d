import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { cut } from '#core/card/cut';
import type { Edge } from '#core/card/pattern';
import type { InspectionRecord } from '#core/format/job';
import { INSPECTIONS } from '#core/format/lists';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { useDraft } from '../forms/useDraft';
import type { Post } from '../forms/usePost';
import { WhoField } from '../piece/WhoField';
import { useWho, whoAtFirst } from '../frame/recordedBy';
import { usePiece } from '../piece/pieceContext';
import { INSPECTION_WORDS } from '../frame/recordWords';

type Draft = {
  open: boolean;
  kind: InspectionRecord['kind'];
  /** Null until it is said: a finding is never sound by default. */
  sound: boolean | null;
  reading: number | null;
  finding: string;
  remedy: string;
  who: string;
};

/** Writing down what was looked at and found. */
export function InspectionPanel({ edge, post }: { edge: Edge; post: Post }) {
  const { id, inspections } = usePiece();
  const me = useWho();
  const { draft, set, drop } = useDraft<Draft>(`inspection ${id} ${edge.id}`, {
    open: false,
    kind: 'lamp',
    sound: null,
    reading: null,
    finding: '',
    remedy: '',
    who: whoAtFirst(me, inspections[inspections.length - 1]?.who),
  });
  const { open, kind, sound, reading, finding, remedy, who } = draft;
  const measures = kind === 'flush' || kind === 'thickness';
  const write = async () => {
    if (sound === null) return;
    const inspection: InspectionRecord = {
      at: new Date().toISOString(),
      who: who.trim() || (me?.names ? (me.name ?? '') : ''),
      edge: edge.id,
      kind,
      sound,
      readingMm: measures ? reading : null,
      finding: finding.trim(),
      withdrawn: null,
      remedy: sound ? '' : remedy.trim(),
    };
    if (
      !(await post.sendOrWait(
        { intent: 'inspection', id: crypto.randomUUID(), inspection },
        `Inspection on ${edge.letter}: ${sound ? 'sound' : 'not sound'}`,
        id,
      ))
    )
      return;
    drop(draft);
  };
  if (!open) {
    return (
      <Button variant="outlined" size="large" onClick={() => set({ open: true })}>
        Write down an inspection
      </Button>
    );
  }
  return (
    <Stack
      spacing={1.5}
      component="section"
      aria-label="Inspection entry"
      sx={{ p: 1.5, bgcolor: 'var(--paper)', border: '2.5px solid var(--torch)' }}
    >
      <Typography variant="h3">Edge {edge.letter} looked at</Typography>
      <Choice
        label="How"
        value={kind}
        onChange={(next) => set({ kind: next })}
        options={INSPECTIONS.map((k) => [k, INSPECTION_WORDS[k]] as const)}
      />
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={sound === null ? null : sound ? 'sound' : 'not'}
        aria-label="Finding"
        onChange={(_, next: string | null) => next && set({ sound: next === 'sound' })}
      >
        <ToggleButton value="sound">Sound</ToggleButton>
        <ToggleButton value="not">Not sound</ToggleButton>
      </ToggleButtonGroup>
      {measures && (
        <LengthField
          label={kind === 'flush' ? 'Step, + proud, − low' : 'Thickness left'}
          mm={reading}
          signed={kind === 'flush'}
          thin
          empty="not measured"
          onChange={(mm) => set({ reading: mm })}
        />
      )}
      <TextField
        label="What was seen"
        multiline
        value={finding}
        onChange={(event) => set({ finding: cut(event.target.value, 2000) })}
      />
      {sound === false && (
        <TextField
          label="What was done about it (may follow later)"
          multiline
          value={remedy}
          onChange={(event) => set({ remedy: cut(event.target.value, 2000) })}
        />
      )}
      <WhoField label="Who looked" value={who} onChange={(next) => set({ who: next })} />
      <Stack direction="row" spacing={1}>
        <Button
          variant="contained"
          size="large"
          sx={{ flex: 1 }}
          disabled={post.state === 'busy' || sound === null}
          onClick={() => void write()}
        >
          Put in the record
        </Button>
        <Button color="inherit" onClick={() => set({ open: false })}>
          Not now
        </Button>
      </Stack>
    </Stack>
  );
}
