import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { cut } from '#core/card/cut';
import type { Brace } from '#core/survey/references';
import { LaterMomentField } from '../forms/LaterMomentField';
import { Choice } from '../forms/Choice';
import { FormButtons, useSurveyForm } from './SurveyForms';
import { useSurvey } from './useSurvey';

export const NEW_BRACE: Brace = {
  kind: 'brace',
  name: '',
  from: null,
  to: null,
  made: '',
  in: null,
  out: null,
  putAway: false,
};

/** A brace: between which points, of what, when it went in and came out. */
export function BraceForm({
  id,
  initial,
  onDone,
}: {
  id: string | null;
  initial: Brace;
  onDone: (id?: string) => void;
}) {
  const { points } = useSurvey();
  const form = useSurveyForm('brace', id, initial, onDone);
  const { name, from, to, made } = form.draft;
  const end = (label: string, value: string | null, key: 'from' | 'to') => (
    <Choice
      label={label}
      value={value ?? ''}
      onChange={(next) => form.set({ [key]: next || null })}
      options={[['', 'Nowhere that is named'], ...points.map((p) => [p.id, p.name] as const)]}
    />
  );
  const when = (label: string, key: 'in' | 'out') => {
    const at = form.draft[key];
    return at === null ? (
      <Button
        variant="outlined"
        color="inherit"
        onClick={() => form.set({ [key]: new Date().toISOString() })}
      >
        {key === 'in' ? 'It is in now' : 'It has come out'}
      </Button>
    ) : (
      <Box sx={{ display: 'flex', gap: 1 }}>
        <LaterMomentField label={label} at={at} onChange={(next) => form.set({ [key]: next })} />
        <Button color="inherit" onClick={() => form.set({ [key]: null })}>
          Not so
        </Button>
      </Box>
    );
  };
  return (
    <Box
      component="section"
      aria-label="A brace"
      sx={{
        display: 'grid',
        gap: 1.5,
        p: 1.5,
        bgcolor: 'var(--panel)',
        border: '1.5px solid var(--rule)',
      }}
    >
      <TextField
        label="Name of the brace"
        value={name}
        onChange={(event) => form.set({ name: cut(event.target.value, 60) })}
        placeholder="Tube across the door opening"
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr' }, gap: 1 }}>
        {end('From', from, 'from')}
        {end('To', to, 'to')}
      </Box>
      <TextField
        label="What it is made of, and how it is held"
        value={made}
        onChange={(event) => form.set({ made: cut(event.target.value, 200) })}
        multiline
      />
      {when('In since', 'in')}
      {form.draft.in !== null && when('Out since', 'out')}
      <FormButtons ready={name.trim() !== ''} isNew={id === null} form={form} onDone={onDone} />
    </Box>
  );
}
