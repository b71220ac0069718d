import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { cut } from '#core/card/cut';
import type { Received } from '#core/cutdown/cutDown';
import type { LaidOn, Verdict } from '#core/cutdown/kinds';
import { LAID_ON, VERDICTS } from '#core/cutdown/kinds';
import { Choice } from '../forms/Choice';
import { FoldAway } from '../frame/FoldAway';
import { Moment } from '../frame/Moment';
import { LAID_ON_WORDS, VERDICT_WORDS } from '../piece/cutDownWords';

/** A bought part is laid on something and looked at before anything is cut off it. */
export function Receive({
  received,
  onChange,
}: {
  received: Received | null;
  onChange: (received: Received | null) => void;
}) {
  if (!received)
    return (
      <Stack component="section" aria-label="Received" spacing={1}>
        <Typography variant="h2">Look before it is cut</Typography>
        <Typography>
          Lay it on the template or the old panel, hold it to the vehicle. What is wrong with it is
          noted below; what cannot be put right goes back uncut and unpainted.
        </Typography>
        <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
          {LAID_ON.filter((on) => on !== 'nothing').map((laidOn) => (
            <Button
              key={laidOn}
              variant="outlined"
              onClick={() =>
                onChange({ at: new Date().toISOString(), laidOn, verdict: null, note: '' })
              }
            >
              {LAID_ON_WORDS[laidOn]}
            </Button>
          ))}
        </Stack>
      </Stack>
    );
  const { at, laidOn, verdict, note } = received;
  return (
    <FoldAway
      title={
        verdict
          ? `Received: ${VERDICT_WORDS[verdict].toLowerCase()}`
          : 'Received: what becomes of it?'
      }
      open={verdict !== 'kept'}
    >
      <Stack spacing={1.5}>
        <Choice<LaidOn>
          label="It was laid"
          value={laidOn}
          onChange={(next) => onChange({ ...received, laidOn: next })}
          options={LAID_ON.map((on) => [on, LAID_ON_WORDS[on]] as const)}
        />
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={verdict}
          aria-label="What became of it"
          onChange={(_, next: Verdict | null) => next && onChange({ ...received, verdict: next })}
        >
          {VERDICTS.map((one) => (
            <ToggleButton key={one} value={one}>
              {VERDICT_WORDS[one]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <TextField
          label="What was seen"
          multiline
          value={note}
          onChange={(event) => onChange({ ...received, note: cut(event.target.value, 1000) })}
        />
        <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
          <Typography variant="caption" sx={{ color: 'var(--pencil)' }}>
            Looked at <Moment at={at} />
          </Typography>
          <Button color="inherit" size="small" onClick={() => onChange(null)}>
            That was a slip
          </Button>
        </Stack>
      </Stack>
    </FoldAway>
  );
}
