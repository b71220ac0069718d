import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { cut } from '#core/card/cut';
import { Told } from '../frame/Told';
import type { Who } from '../frame/recordedBy';
import { useWho } from '../frame/recordedBy';

type Name = NonNullable<Who['names']>[number];

/**
 * Who did it. Whoever is signed in is named without typing; on the shop’s own device names are
 * touched, in gloves, and those who want it give their PIN.
 */
export function WhoField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (who: string) => void;
}) {
  const who = useWho();
  if (!who?.names)
    return (
      <TextField
        label={label}
        value={value}
        onChange={(event) => onChange(cut(event.target.value, 60))}
      />
    );
  return <Names label={label} names={who.names} now={who.name} value={value} onChange={onChange} />;
}

function Names({
  label,
  names,
  now,
  value,
  onChange,
}: {
  label: string;
  names: Name[];
  now: string | null;
  value: string;
  onChange: (who: string) => void;
}) {
  const [asked, setAsked] = useState<Name | null>(null);
  const [pin, setPin] = useState('');
  const [problem, setProblem] = useState('');
  const choose = async (person: Name, given: string) => {
    setProblem('');
    try {
      const answer = await fetch('/who', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ person: person.id, pin: given }),
      });
      const said = (await answer.json().catch(() => ({}))) as { message?: string; name?: string };
      if (!answer.ok || !said.name)
        return setProblem(said.message ?? 'The server would not take it: try again.');
      onChange(said.name);
      setAsked(null);
      setPin('');
    } catch {
      // Without the server a name without a PIN is taken as it is touched.
      if (person.hasPin)
        setProblem('No answer from the server, and a PIN is asked for: try again when it is back.');
      else onChange(person.name);
    }
  };
  const touched = (person: Name) => {
    if (!person.hasPin) void choose(person, '');
    // Who gave their PIN already is not asked again.
    else if (person.name === now || person.name === value) onChange(person.name);
    else setAsked(person);
  };
  // Whoever said so last is still at it, as long as the server says so.
  const chosen = value !== '' ? value : now;
  return (
    <Box role="group" aria-label={label} sx={{ display: 'grid', gap: 1 }}>
      <Typography sx={{ fontWeight: 600 }}>{label}</Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(120px, 1fr))',
          gap: 1,
        }}
      >
        {names.map((person) => (
          <Button
            key={person.id}
            variant={person.name === chosen ? 'contained' : 'outlined'}
            aria-pressed={person.name === chosen}
            onClick={() => touched(person)}
            sx={{ minHeight: 60, fontSize: '1.15rem' }}
          >
            {person.name}
          </Button>
        ))}
      </Box>
      {asked && (
        <Box
          component="form"
          onSubmit={(event) => {
            event.preventDefault();
            event.stopPropagation();
            void choose(asked, pin);
          }}
          sx={{ display: 'flex', gap: 1, alignItems: 'flex-end' }}
        >
          <TextField
            autoFocus
            label={`PIN of ${asked.name}`}
            type="password"
            value={pin}
            onChange={(event) => setPin(cut(event.target.value.replace(/\D/g, ''), 8))}
            slotProps={{ htmlInput: { inputMode: 'numeric', autoComplete: 'off' } }}
            fullWidth
          />
          <Button type="submit" variant="contained" size="large" sx={{ flexShrink: 0 }}>
            It is me
          </Button>
        </Box>
      )}
      {problem && <Told>{problem}</Told>}
    </Box>
  );
}
