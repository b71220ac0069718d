import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { cut } from '#core/card/cut';
import { SIDES_OF_VEHICLE } from '#core/format/lists';
import { MEASURE_KINDS, ROUND_STAGES, USUAL_U, inDegrees } from '#core/survey/kinds';
import type { Measure, ReferencePlace, Round } from '#core/survey/references';
import { LaterMomentField } from '../forms/LaterMomentField';
import { AngleField } from '../forms/AngleField';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { useDraft } from '../forms/useDraft';
import { KIND_WORDS, STAGE_WORDS } from './surveyWords';
import { useSurvey } from './useSurvey';

export const SIDE_WORDS: Record<ReferencePlace['side'], string> = {
  left: 'Left',
  right: 'Right',
  front: 'Front',
  rear: 'Rear',
  centre: 'Centre',
};
export const NEW_POINT: ReferencePlace = {
  kind: 'point',
  name: '',
  where: '',
  side: 'right',
  partner: null,
  putAway: false,
};
export const NEW_MEASURE: Measure = {
  kind: 'measure',
  of: 'distance',
  name: '',
  from: null,
  to: null,
  where: '',
  u: USUAL_U.distance,
  tolerance: null,
  partner: null,
  putAway: false,
};

/**
 * What the forms share: what was typed stays until it is kept, and another page's word on it is
 * told.
 */
export function useSurveyForm<T extends { putAway: boolean }>(
  about: string,
  id: string | null,
  initial: T,
  onDone: (id: string) => void,
) {
  const { job, post, add, change } = useSurvey();
  const told =
    id !== null && post.refusal?.id === id ? (post.refusal.now as T | undefined) : undefined;
  const form = useDraft<T>(`${about} ${job} ${id ?? 'new'}`, initial, told);
  const { draft, since, drop } = form;
  const keep = async (body: T) => {
    if (id === null) {
      const made = await add(body as never);
      if (made === null) return;
      drop();
      onDone(made);
    } else if (await change(id, since, body)) {
      drop();
      onDone(id);
    }
  };
  return {
    ...form,
    busy: post.state === 'busy',
    keep: (more?: Partial<T>) => void keep({ ...draft, ...more }),
    putAway: () => void keep({ ...draft, putAway: true }),
  };
}

export function FormButtons(given: {
  ready: boolean;
  isNew: boolean;
  form: { busy: boolean; keep: () => void; putAway: () => void; drop: () => void };
  onDone: () => void;
}) {
  const { ready, isNew, form, onDone } = given;
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      <Button variant="contained" disabled={!ready || form.busy} onClick={() => form.keep()}>
        Keep
      </Button>
      <Button
        color="inherit"
        onClick={() => {
          form.drop();
          onDone();
        }}
      >
        Not now
      </Button>
      {!isNew && (
        <Button color="inherit" onClick={form.putAway} disabled={form.busy}>
          Put away
        </Button>
      )}
    </Box>
  );
}

export function PointForm({
  id,
  initial,
  onDone,
}: {
  id: string | null;
  initial: ReferencePlace;
  onDone: (id?: string) => void;
}) {
  const { points } = useSurvey();
  const form = useSurveyForm('point', id, initial, onDone);
  const { name, where, side, partner } = form.draft;
  return (
    <Box component="section" aria-label="A reference point" sx={{ display: 'grid', gap: 1.5 }}>
      <TextField
        label="Name of the point"
        value={name}
        onChange={(event) => form.set({ name: cut(event.target.value, 40) })}
        placeholder="Door hinge, upper bolt"
      />
      <TextField
        label="Where it is"
        value={where}
        onChange={(event) => form.set({ where: cut(event.target.value, 200) })}
        placeholder="In the centre of the bolt"
        multiline
      />
      <Choice
        label="Side of the vehicle"
        value={side}
        onChange={(next) => form.set({ side: next })}
        options={SIDES_OF_VEHICLE.map((s) => [s, SIDE_WORDS[s]] as const)}
      />
      <Choice
        label="The same place on the other side"
        value={partner ?? ''}
        onChange={(next) => form.set({ partner: next || null })}
        options={[
          ['', 'None'],
          ...points.filter((p) => p.id !== id).map((p) => [p.id, p.name] as const),
        ]}
      />
      <FormButtons ready={name.trim() !== ''} isNew={id === null} form={form} onDone={onDone} />
    </Box>
  );
}

export function MeasureForm({
  id,
  initial,
  onDone,
}: {
  id: string | null;
  initial: Measure;
  onDone: (id?: string) => void;
}) {
  const { points, measures } = useSurvey();
  const form = useSurveyForm('measure', id, initial, onDone);
  const { of, name, from, to, where, u, tolerance, partner } = form.draft;
  const called = (end: string | null) => points.find((point) => point.id === end)?.name;
  // Two points are a name already.
  const usual = cut([called(from), called(to)].filter(Boolean).join(' to '), 60);
  const ready =
    of === 'distance' ? from !== null && to !== null && from !== to : (name || usual).trim() !== '';
  const set = (change: Partial<Measure>) => form.set(change);
  const end = (label: string, value: string | null, key: 'from' | 'to') => (
    <Choice
      label={label}
      value={value ?? ''}
      onChange={(next) => set({ [key]: next || null })}
      options={[['', 'Choose a point'], ...points.map((p) => [p.id, p.name] as const)]}
    />
  );
  // A measure between two points is called by them where it is called nothing else.
  const keep = () => form.keep(name.trim() === '' ? { name: usual } : {});
  return (
    <Box component="section" aria-label="A measure" sx={{ display: 'grid', gap: 1.5 }}>
      <Choice
        label="What is measured"
        value={of}
        onChange={(next) => set({ of: next, u: USUAL_U[next] })}
        options={MEASURE_KINDS.map((k) => [k, KIND_WORDS[k]] as const)}
      />
      {of === 'distance' && (
        <>
          {end('From', from, 'from')}
          {end('To', to, 'to')}
          {from !== null && from === to && <Box role="alert">Choose two different points.</Box>}
        </>
      )}
      <TextField
        label="Name of the measure"
        value={name || usual}
        onChange={(event) => set({ name: cut(event.target.value, 60) })}
        placeholder="Front diagonal"
      />
      <TextField
        label="Where, and how it is taken"
        value={where}
        onChange={(event) => set({ where: cut(event.target.value, 200) })}
        multiline
      />
      {inDegrees(of) ? (
        <AngleField
          label="A reading is good to"
          angleDeg={u}
          min={0.01}
          max={10}
          wrong="Degrees, from 0.01 to 10."
          onChange={(next) => set({ u: next })}
        />
      ) : (
        <LengthField
          label="A reading is good to"
          mm={u}
          min={0.01}
          max={100}
          digits={2}
          onChange={(next) => next !== null && set({ u: next })}
        />
      )}
      {!inDegrees(of) && (
        <LengthField
          label="Say it has moved from"
          mm={tolerance}
          min={0}
          max={1000}
          empty="when the readings show it"
          onChange={(next) => set({ tolerance: next })}
        />
      )}
      {of !== 'distance' && (
        <Choice
          label="The same measure on the other side"
          value={partner ?? ''}
          onChange={(next) => set({ partner: next || null })}
          options={[
            ['', 'None'],
            ...measures
              .filter((m) => m.of === of && m.id !== id)
              .map((m) => [m.id, m.name] as const),
          ]}
        />
      )}
      <FormButtons ready={ready} isNew={id === null} form={{ ...form, keep }} onDone={onDone} />
    </Box>
  );
}

export function RoundForm({
  id,
  initial,
  onDone,
}: {
  id: string | null;
  initial: Round;
  onDone: (id?: string) => void;
}) {
  // Readings have a way of their own.
  const { readings: _readings, ...said } = initial;
  const form = useSurveyForm<Omit<Round, 'readings'> & { readings?: Round['readings'] }>(
    'round',
    id,
    id === null ? initial : said,
    onDone,
  );
  const { stage, name } = form.draft;
  return (
    <Box component="section" aria-label="A round" sx={{ display: 'grid', gap: 1.5 }}>
      <Choice
        label="When in the work"
        value={stage}
        onChange={(next) =>
          form.set({
            stage: next,
            ...(Object.values(STAGE_WORDS).includes(name) || name === ''
              ? { name: STAGE_WORDS[next] }
              : {}),
          })
        }
        options={ROUND_STAGES.map((s) => [s, STAGE_WORDS[s]] as const)}
      />
      <LaterMomentField
        label="When it was read"
        at={form.draft.at}
        onChange={(at) => form.set({ at })}
      />
      <TextField
        label="Name of the round"
        value={name}
        onChange={(event) => form.set({ name: cut(event.target.value, 60) })}
      />
      <FormButtons ready={name.trim() !== ''} isNew={id === null} form={form} onDone={onDone} />
    </Box>
  );
}
