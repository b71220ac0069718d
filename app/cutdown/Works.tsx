import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { cut } from '#core/card/cut';
import type { CutDownWork } from '#core/cutdown/cutDown';
import type { CutDownWorkKind } from '#core/cutdown/kinds';
import { HOLED, WORKS } from '#core/cutdown/kinds';
import { Choice } from '../forms/Choice';
import { FigureField } from '../forms/FigureField';
import { LengthField } from '../forms/LengthField';
import { newId } from '../frame/newId';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { DoneFoot, OneOfList, WhereField } from './OneOfList';
import { HOLED_WORDS, WORK_WORDS, cutDownWorkSaid } from '../piece/cutDownWords';

/** A work of a kind with the figures it usually has (common practice). */
function workOf(kind: CutDownWorkKind, id: string): CutDownWork {
  const of = { id, edge: null, note: '', doneAt: null };
  switch (kind) {
    case 'spots':
      return { ...of, kind, count: 1, holed: 'other' };
    case 'flange':
      return { ...of, kind, byMm: 0 };
    case 'cut':
      return { ...of, kind, leftMm: 3 };
    case 'hole-made':
    case 'hole-stopped':
      return { ...of, kind, diameterMm: 8 };
  }
}

/** What brings the piece to size, to do and done. */
export function Works({
  works,
  onChange,
}: {
  works: readonly CutDownWork[];
  onChange: (works: CutDownWork[]) => void;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const { pattern } = usePiece();
  const { show } = usePreferences();
  const put = (next: CutDownWork) =>
    onChange(works.map((one) => (one.id === next.id ? next : one)));
  const begin = (kind: CutDownWorkKind) => {
    const id = newId();
    onChange([...works, workOf(kind, id)]);
    setOpen(id);
  };
  return (
    <Stack component="section" aria-label="What brings it to size" spacing={1}>
      <Typography variant="h2">What brings it to size</Typography>
      {works.map((work) => (
        <OneOfList
          key={work.id}
          title={cutDownWorkSaid(work, pattern, show)}
          done={work.doneAt !== null}
          open={open === work.id}
          onOpen={() => setOpen(open === work.id ? null : work.id)}
        >
          <WorkFields
            work={work}
            onChange={put}
            onRemove={() => onChange(works.filter((one) => one !== work))}
          />
        </OneOfList>
      ))}
      <Choice<CutDownWorkKind | ''>
        label={works.length === 0 ? 'Something is cut, drilled or stopped' : 'Something else is'}
        value=""
        onChange={(kind) => kind !== '' && begin(kind)}
        options={WORKS.map((kind) => [kind, WORK_WORDS[kind]] as const)}
      />
    </Stack>
  );
}

function WorkFields({
  work,
  onChange,
  onRemove,
}: {
  work: CutDownWork;
  onChange: (work: CutDownWork) => void;
  onRemove: () => void;
}) {
  return (
    <Stack spacing={1.5}>
      {work.kind === 'spots' && (
        <>
          <FigureField
            label="How many"
            value={work.count}
            min={1}
            max={10_000}
            unit="spots"
            wrong="A whole number, 1 or more."
            onChange={(count) => onChange({ ...work, count: Math.round(count) })}
          />
          <Choice
            label="Which layer was holed"
            value={work.holed}
            onChange={(holed) => onChange({ ...work, holed })}
            options={HOLED.map((holed) => [holed, HOLED_WORDS[holed]] as const)}
            help="Holes in this piece are plug holes when it goes back; holes in what stays are stopped."
          />
        </>
      )}
      {work.kind === 'flange' && (
        <LengthField
          label="Trimmed by"
          mm={work.byMm}
          min={0}
          onChange={(mm) => onChange({ ...work, byMm: mm ?? 0 })}
        />
      )}
      {work.kind === 'cut' && (
        <LengthField
          label="Left on to trim at fitting"
          mm={work.leftMm}
          min={0}
          onChange={(mm) => onChange({ ...work, leftMm: mm ?? 0 })}
        />
      )}
      {(work.kind === 'hole-made' || work.kind === 'hole-stopped') && (
        <LengthField
          label="Diameter"
          mm={work.diameterMm}
          min={0.5}
          onChange={(mm) => onChange({ ...work, diameterMm: mm ?? 0 })}
        />
      )}
      <WhereField
        edge={work.edge}
        nowhere="Away from the edges"
        onChange={(edge) => onChange({ ...work, edge })}
      />
      <TextField
        label="Where and how"
        multiline
        value={work.note}
        onChange={(event) => onChange({ ...work, note: cut(event.target.value, 1000) })}
      />
      <DoneFoot
        at={work.doneAt}
        done="Done"
        button="Done"
        onChange={(doneAt) => onChange({ ...work, doneAt })}
        onRemove={onRemove}
      />
    </Stack>
  );
}
