import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { Dispatch, SetStateAction } from 'react';
import { useState } from 'react';
import { cut } from '#core/card/cut';
import { inTime } from '#core/survey/growth';
import { LAYERS, LOOKS, SIDES_OF_VEHICLE } from '#core/survey/kinds';
import type { Layer } from '#core/survey/kinds';
import type { Finding, Look } from '#core/survey/references';
import { LaterMomentField } from '../forms/LaterMomentField';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { Moment } from '../frame/Moment';
import { usePreferences } from '../frame/preferences';
import { LAYER_WORDS, LOOK_WORDS } from '../piece/road/surveyWords';
import type { Picture } from '../records/pictures.server';
import { FormButtons, SIDE_WORDS, useSurveyForm } from './SurveyForms';
import { linesOn } from './outlines';

export const NEW_FINDING: Finding = {
  kind: 'finding',
  name: '',
  where: '',
  side: 'right',
  layers: ['outer'],
  looks: [],
  putAway: false,
};

/** What was found, and how far it reached at each look. */
export function FindingForm({
  id,
  initial,
  pictures,
  onDone,
}: {
  id: string | null;
  initial: Finding;
  /** Those that hang on it: lines drawn on them can be extents. */
  pictures: readonly Picture[];
  onDone: (id?: string) => void;
}) {
  const form = useSurveyForm('finding', id, initial, onDone);
  const { name, where, side, layers, looks } = form.draft;
  const [fresh, setFresh] = useState<Look | null>(null);
  const [asked, setAsked] = useState(false);
  // Keeping takes the measure that is still open with it; one that says nothing yet is asked about.
  const keep = () => {
    if (fresh && !isMeasured(fresh)) return setAsked(true);
    form.keep(fresh ? { looks: [...looks, plainLook(fresh)] } : {});
  };
  return (
    <Box component="section" aria-label="A finding" sx={{ display: 'grid', gap: 1.5 }}>
      <TextField
        label="What was found"
        value={name}
        onChange={(event) => form.set({ name: cut(event.target.value, 80) })}
        placeholder="Hole in the tray floor"
      />
      <TextField
        label="Where it is"
        value={where}
        onChange={(event) => form.set({ where: cut(event.target.value, 200) })}
        multiline
      />
      <Choice
        label="Side of the vehicle"
        value={side}
        onChange={(next) => form.set({ side: next })}
        options={SIDES_OF_VEHICLE.map((s) => [s, SIDE_WORDS[s]] as const)}
      />
      <ToggleButtonGroup
        value={layers}
        onChange={(_, next: Layer[]) =>
          form.set({ layers: LAYERS.filter((layer) => next.includes(layer)) })
        }
        aria-label="Layers concerned"
        fullWidth
        size="small"
      >
        {LAYERS.map((layer) => (
          <ToggleButton key={layer} value={layer}>
            {LAYER_WORDS[layer]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {layers.includes('structural') && (
        <Box sx={{ borderLeft: '6px double var(--torch)', pl: 1.4, fontSize: '0.95rem' }}>
          It is part of what holds the vehicle up: brace before cutting, and have a licensed person
          judge it.
        </Box>
      )}
      <Looks
        looks={looks}
        pictures={pictures}
        onChange={(next) => form.set({ looks: next })}
        fresh={fresh}
        setFresh={setFresh}
        asked={asked}
        setAsked={setAsked}
      />
      <FormButtons
        ready={name.trim() !== ''}
        isNew={id === null}
        form={{ ...form, keep }}
        onDone={onDone}
      />
    </Box>
  );
}

/** Whether a look says how far it reaches: by its size, or a line drawn round it. */
const isMeasured = ({ lengthMm, widthMm, outline }: Look): boolean =>
  (lengthMm !== null && widthMm !== null) || outline !== null;

/** A look as it is kept: of a line round it which one, not how large it is now. */
const plainLook = (look: Look): Look => ({
  ...look,
  outline: look.outline && { picture: look.outline.picture, mark: look.outline.mark },
});

function Looks(given: {
  looks: readonly Look[];
  pictures: readonly Picture[];
  onChange: (looks: Look[]) => void;
  /** The look that is being measured; it is kept with the finding. */
  fresh: Look | null;
  setFresh: Dispatch<SetStateAction<Look | null>>;
  asked: boolean;
  setAsked: (asked: boolean) => void;
}) {
  const { looks, pictures, onChange, fresh, setFresh, asked, setAsked } = given;
  const { bare, show } = usePreferences();
  const all = inTime(looks);
  const last = all[all.length - 1];
  const lines = linesOn(pictures);
  const begin = () => {
    const next = LOOKS[Math.min(LOOKS.length - 1, last ? LOOKS.indexOf(last.how) + 1 : 0)]!;
    setFresh({
      at: new Date().toISOString(),
      how: next,
      lengthMm: null,
      widthMm: null,
      outline: null,
      note: '',
    });
  };
  const chosen = (look: Look) =>
    look.outline ? `${look.outline.picture} ${look.outline.mark}` : '';
  const ready = fresh !== null && isMeasured(fresh);
  return (
    <Box component="section" aria-label="Looks" sx={{ display: 'grid', gap: 1 }}>
      <Typography variant="h3">How far it reaches</Typography>
      {all.map((look, i) => (
        <Box
          key={i}
          sx={{
            display: 'flex',
            gap: 1,
            alignItems: 'start',
            borderTop: '1px solid var(--rule)',
            pt: 0.8,
          }}
        >
          <Box sx={{ flex: 1 }}>
            <b>{LOOK_WORDS[look.how]}</b>{' '}
            {look.lengthMm !== null && look.widthMm !== null ? (
              <span className="figure">
                {bare(look.lengthMm)} × {show(look.widthMm)}
              </span>
            ) : (
              'drawn on the picture'
            )}
            <Box sx={{ color: 'var(--pencil)', fontSize: '0.9rem' }}>
              <Moment at={look.at} /> {look.note && `· ${look.note}`}
            </Box>
          </Box>
          <Button
            size="small"
            color="inherit"
            aria-label={`Take off the look ${i + 1}`}
            onClick={() => onChange(looks.filter((other) => other !== look))}
          >
            Take off
          </Button>
        </Box>
      ))}
      {fresh ? (
        <Box
          sx={{
            display: 'grid',
            gap: 1.2,
            p: 1.5,
            bgcolor: 'var(--chalk)',
            border: '1.5px solid var(--rule)',
          }}
        >
          <Choice
            label="How it was found out"
            value={fresh.how}
            onChange={(how) => setFresh({ ...fresh, how })}
            options={LOOKS.map((how) => [how, LOOK_WORDS[how]] as const)}
          />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
            <LengthField
              label="Length"
              mm={fresh.lengthMm}
              min={0.1}
              max={20_000}
              empty="measure it"
              onChange={(lengthMm) => setFresh((now) => now && { ...now, lengthMm })}
            />
            <LengthField
              label="Width"
              mm={fresh.widthMm}
              min={0.1}
              max={20_000}
              empty="measure it"
              onChange={(widthMm) => setFresh((now) => now && { ...now, widthMm })}
            />
          </Box>
          {lines.length > 0 && (
            <Choice
              label="Or a line drawn round it"
              value={chosen(fresh)}
              onChange={(next) =>
                setFresh({
                  ...fresh,
                  outline: lines.find(({ picture, mark }) => `${picture} ${mark}` === next) ?? null,
                })
              }
              options={[
                ['', 'None'],
                ...lines.map(
                  ({ picture, mark, called }) => [`${picture} ${mark}`, called] as const,
                ),
              ]}
            />
          )}
          <TextField
            label="What was seen"
            value={fresh.note}
            multiline
            onChange={(event) => setFresh({ ...fresh, note: cut(event.target.value, 400) })}
          />
          <LaterMomentField
            label="When"
            at={fresh.at}
            onChange={(at) => setFresh((now) => now && { ...now, at })}
          />
          <Box sx={{ display: 'flex', gap: 1 }}>
            <Button
              variant="contained"
              onClick={() => {
                setAsked(true);
                if (!ready) return;
                onChange([...looks, plainLook(fresh)]);
                setFresh(null);
                setAsked(false);
              }}
            >
              Add this look
            </Button>
            <Button color="inherit" onClick={() => setFresh(null)}>
              Not now
            </Button>
          </Box>
          {!ready && asked && (
            <Box role="alert">
              Measure its length and width, or draw a line round it on a picture of it.
            </Box>
          )}
        </Box>
      ) : (
        <Button variant="outlined" color="inherit" onClick={begin}>
          {looks.length === 0 ? 'Measure it' : 'It has grown: measure again'}
        </Button>
      )}
    </Box>
  );
}
