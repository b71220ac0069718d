import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { cut } from '#core/card/cut';
import type { Fault } from '#core/cutdown/cutDown';
import type { FaultKind } from '#core/cutdown/kinds';
import { FAULTS, FAULT_MEASURED } from '#core/cutdown/kinds';
import { AngleField } from '../forms/AngleField';
import { Choice } from '../forms/Choice';
import { FigureField } from '../forms/FigureField';
import { LengthField } from '../forms/LengthField';
import { newId } from '../frame/newId';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { DoneFoot, OneOfList, WhereField } from './OneOfList';
import { FAULT_WORDS, faultSaid } from '../piece/cutDownWords';

/** What is wrong with the piece: each fault, how it was put right, and the hours that took. */
export function Faults({
  faults,
  onChange,
}: {
  faults: readonly Fault[];
  onChange: (faults: Fault[]) => void;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const { pattern } = usePiece();
  const { show } = usePreferences();
  const put = (next: Fault) => onChange(faults.map((one) => (one.id === next.id ? next : one)));
  const begin = (kind: FaultKind) => {
    const id = newId();
    const nothing = { edge: null, by: null, note: '', mendedAt: null, how: '', hours: null };
    onChange([...faults, { id, kind, ...nothing }]);
    setOpen(id);
  };
  return (
    <Stack component="section" aria-label="What is wrong with it" spacing={1}>
      <Typography variant="h2">What is wrong with it</Typography>
      {faults.map((fault) => (
        <OneOfList
          key={fault.id}
          title={faultSaid(fault, pattern, show)}
          done={fault.mendedAt !== null}
          open={open === fault.id}
          onOpen={() => setOpen(open === fault.id ? null : fault.id)}
        >
          <FaultFields
            fault={fault}
            onChange={put}
            onRemove={() => onChange(faults.filter((one) => one !== fault))}
          />
        </OneOfList>
      ))}
      <Choice<FaultKind | ''>
        label={
          faults.length === 0 ? 'Something is wrong with it' : 'Something else is wrong with it'
        }
        value=""
        onChange={(kind) => kind !== '' && begin(kind)}
        options={FAULTS.map((kind) => [kind, FAULT_WORDS[kind]] as const)}
      />
    </Stack>
  );
}

function FaultFields({
  fault,
  onChange,
  onRemove,
}: {
  fault: Fault;
  onChange: (fault: Fault) => void;
  onRemove: () => void;
}) {
  const measured = FAULT_MEASURED[fault.kind];
  const set = (change: Partial<Fault>) => onChange({ ...fault, ...change });
  return (
    <Stack spacing={1.5}>
      <WhereField
        edge={fault.edge}
        nowhere="Nowhere in particular"
        onChange={(edge) => set({ edge })}
      />
      {measured === 'mm' && (
        <LengthField
          label="By"
          mm={fault.by}
          min={0}
          empty="not measured"
          onChange={(by) => set({ by })}
        />
      )}
      {measured === 'deg' && (
        <AngleField
          label="By"
          angleDeg={fault.by}
          min={0}
          max={180}
          wrong="Between 0 and 180 degrees."
          onChange={(by) => set({ by })}
        />
      )}
      <TextField
        label="What is to be seen"
        multiline
        value={fault.note}
        onChange={(event) => set({ note: cut(event.target.value, 1000) })}
      />
      <TextField
        label="How it is put right"
        multiline
        value={fault.how}
        placeholder="A band taken out across the middle, re-struck over the anvil …"
        onChange={(event) => set({ how: cut(event.target.value, 1000) })}
      />
      <FigureField
        label="Hours it took"
        value={fault.hours}
        min={0}
        max={10_000}
        unit="h"
        wrong="Hours as a figure: 1.5 is an hour and a half."
        onChange={(hours) => set({ hours })}
      />
      <DoneFoot
        at={fault.mendedAt}
        done="Put right"
        button="It is put right"
        onChange={(mendedAt) => set({ mendedAt })}
        onRemove={onRemove}
      />
    </Stack>
  );
}
