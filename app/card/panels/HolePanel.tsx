import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { setHole, without } from '#core/card/edit';
import type { Hole, HoleForm } from '#core/card/pattern';
import { AngleField } from '../../forms/AngleField';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { usePick, usePiece } from '../../piece/pieceContext';

type FormKind = 'round' | HoleForm['kind'];
const FORMS: readonly (readonly [FormKind, string])[] = [
  ['round', 'Round'],
  ['slot', 'Slot'],
  ['square', 'Square'],
];
const SIZE_WORDS: Record<FormKind, string> = { round: 'Diameter', slot: 'Wide', square: 'Side' };
/** Default length of a slot, in widths. */
const SLOT_LONG = 2;

const slotOf = ({ diameterMm, form }: Hole): Extract<HoleForm, { kind: 'slot' }> =>
  form?.kind === 'slot'
    ? form
    : { kind: 'slot', longMm: SLOT_LONG * diameterMm, turnDeg: form?.turnDeg ?? 0 };

function formOf(kind: FormKind, hole: Hole): HoleForm | undefined {
  if (kind === 'round') return undefined;
  return kind === 'slot' ? slotOf(hole) : { kind, turnDeg: hole.form?.turnDeg ?? 0 };
}

/** A hole at the card stage: how big and where, from the card's own zero. */
export function HolePanel({ hole }: { hole: Hole }) {
  const { patternEditor, pattern } = usePiece();
  const { setPick } = usePick();
  const change = (next: Partial<Hole>) => patternEditor.edit(setHole(pattern, hole.id, next));
  return (
    <>
      <Typography variant="h2">Hole {pattern.holes.indexOf(hole) + 1}</Typography>
      <Choice
        label="Form"
        value={hole.form?.kind ?? 'round'}
        options={FORMS}
        onChange={(kind) => change({ form: formOf(kind, hole) })}
      />
      <LengthField
        label={SIZE_WORDS[hole.form?.kind ?? 'round']}
        mm={hole.diameterMm}
        min={0.5}
        onChange={(mm) => mm && change({ diameterMm: mm })}
      />
      {!hole.form && (
        <LengthField
          label="Or what a tape reads round a thing of its size"
          mm={Math.PI * hole.diameterMm}
          min={1.5}
          onChange={(mm) => mm && change({ diameterMm: mm / Math.PI })}
        />
      )}
      {hole.form && (
        <Stack direction="row" spacing={1}>
          {hole.form.kind === 'slot' && (
            <LengthField
              label="Long over all"
              mm={hole.form.longMm}
              min={hole.diameterMm}
              onChange={(mm) => mm && change({ form: { ...slotOf(hole), longMm: mm } })}
            />
          )}
          <AngleField
            label="Turned by"
            angleDeg={hole.form.turnDeg}
            min={-180}
            max={180}
            wrong="Degrees, from −180 to 180."
            onChange={(turnDeg) => change({ form: { ...hole.form!, turnDeg } })}
          />
        </Stack>
      )}
      {!hole.form && <FlareFields hole={hole} change={change} />}
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Across, from the left"
          signed
          mm={hole.x}
          onChange={(mm) => mm !== null && change({ x: mm })}
        />
        <LengthField
          label="Up, from the bench"
          signed
          mm={hole.y}
          onChange={(mm) => mm !== null && change({ y: mm })}
        />
      </Stack>
      <Button
        variant="outlined"
        onClick={() => {
          setPick(null);
          patternEditor.edit(without(pattern, hole.id));
        }}
      >
        Take this hole off
      </Button>
    </>
  );
}

/** A rim to begin with: as high as such rims usually are. */
const RIM_MM = 5;

/** The rim of a hole turned up: a lightening hole, or one for a pipe. */
function FlareFields({ hole, change }: { hole: Hole; change: (next: Partial<Hole>) => void }) {
  const { pattern, patternEditor } = usePiece();
  const { flare } = hole;
  if (!flare)
    return (
      <Button
        variant="outlined"
        onClick={() =>
          change({ flare: { heightMm: RIM_MM, radiusMm: null, toward: 'back', made: 'drilled' } })
        }
      >
        Turn its rim up (flared hole)
      </Button>
    );
  const set = (next: Partial<typeof flare>) => change({ flare: { ...flare, ...next } });
  const alike = pattern.holes.filter(
    (one) =>
      one !== hole &&
      !one.form &&
      Math.abs(one.diameterMm - hole.diameterMm) < 0.01 &&
      JSON.stringify(one.flare) !== JSON.stringify(flare),
  );
  return (
    <>
      <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
        The diameter is the finished one, inside the rim. What to drill first is told on the Blank
        stop.
      </Typography>
      <Stack direction="row" spacing={1}>
        <LengthField
          label="Rim high over all, sheet included"
          mm={flare.heightMm}
          min={0.5}
          onChange={(mm) => mm && set({ heightMm: mm })}
        />
        <LengthField
          label="Inside radius (empty: usual)"
          mm={flare.radiusMm}
          min={0}
          thin
          empty="usual"
          onChange={(radiusMm) => set({ radiusMm })}
        />
      </Stack>
      <Stack direction="row" spacing={1}>
        <Choice
          label="First hole"
          value={flare.made}
          onChange={(made) => set({ made })}
          options={[
            ['drilled', 'Drilled, burr off'],
            ['punched', 'Punched'],
          ]}
        />
        <Choice
          label="The rim stands"
          value={flare.toward}
          onChange={(toward) => set({ toward })}
          options={[
            ['face', 'Toward you'],
            ['back', 'Away'],
          ]}
        />
      </Stack>
      {alike.length > 0 && (
        <Button
          variant="outlined"
          onClick={() =>
            patternEditor.edit({
              ...pattern,
              holes: pattern.holes.map((one) => (alike.includes(one) ? { ...one, flare } : one)),
            })
          }
        >
          {alike.length === 1
            ? 'The other hole of this size likewise'
            : `The ${alike.length} other holes of this size likewise`}
        </Button>
      )}
      <Button variant="outlined" onClick={() => change({ flare: undefined })}>
        Leave its rim flat
      </Button>
    </>
  );
}
