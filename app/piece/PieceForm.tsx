import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import type { ReactNode } from 'react';
import { PIECE_MERGE } from '#core/format/mergeRules';
import { cut } from '#core/card/cut';
import type { PieceFacts } from '#core/format/job';
import { PIECE_KINDS, SIDES_OF_VEHICLE } from '#core/format/lists';
import type { GaugeSystem } from '#core/metal/gauges';
import {
  GAUGE_NUMBERS,
  GAUGE_SYSTEMS,
  SYSTEM_NAMES,
  nearestGauges,
  thicknessOfGauge,
} from '#core/metal/gauges';
import { METALS, metalById } from '#core/metal/metals';
import type { Unit } from '#core/measure/length';
import { KIND_ABOUT, KIND_WORDS } from './kindWords';
import { SIDE_WORDS } from './sideWords';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import type { Answered } from '../records/changed.server';
import { useAnswers } from '../forms/useAnswers';
import { useDraft } from '../forms/useDraft';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';

/** A new piece: of sheet as it is bought where inches are gone by, by its gauge. */
export function newPieceFacts(unit: Unit): PieceFacts {
  if (unit === 'mm') return NEW_PIECE;
  const system = metalById(NEW_PIECE.metal).gauges;
  const found = thicknessOfGauge(system, USUAL_GAUGE);
  return found.ok
    ? {
        ...NEW_PIECE,
        thickness: { by: 'gauge', system, gauge: USUAL_GAUGE },
        thicknessMm: found.thicknessMm,
      }
    : NEW_PIECE;
}
/** Most outer panels are of this gauge (common practice). */
const USUAL_GAUGE = 20;

const NEW_PIECE: PieceFacts = {
  name: '',
  kind: 'made',
  part: '',
  side: 'left',
  metal: 'dc01',
  thicknessMm: 1,
  thickness: { by: 'mm' },
  structural: false,
  notes: '',
};

/** What the facts are called, where two pages differ about one. */
export const FACT_WORDS: { [K in keyof PieceFacts]: string } = {
  name: 'Name',
  kind: 'Where it comes from',
  part: 'What part it is',
  side: 'Side of the vehicle',
  metal: 'Metal',
  thicknessMm: 'Thickness',
  thickness: 'Thickness chosen by',
  structural: 'Part of what holds the vehicle up',
  notes: 'Notes',
};

/** A fact as it is told. */
export function factSaid(
  field: keyof PieceFacts,
  value: unknown,
  show: (mm: number) => string,
): string {
  if (field === 'metal') return metalById(value as PieceFacts['metal']).name;
  if (field === 'kind') return KIND_WORDS[value as PieceFacts['kind']];
  if (field === 'side') return SIDE_WORDS[value as PieceFacts['side']];
  if (field === 'thickness') return (value as PieceFacts['thickness']).by;
  if (field === 'structural') return value ? 'yes' : 'no';
  return field === 'thicknessMm' ? show(Number(value)) : String(value);
}

/**
 * What a piece is and what it is made of. Sent to the page's own action; an answer with a message
 * is shown.
 */
export function PieceForm({
  about,
  initial,
  button,
  children,
}: {
  /** What the draft is kept under. */
  about: string;
  initial: PieceFacts;
  button: (kind: PieceFacts['kind']) => string;
  children?: ReactNode;
}) {
  const fetcher = useAnswers<Answered<PieceFacts>>();
  // What another page wrote is shown; kept again, one's own stands.
  const {
    draft: facts,
    since,
    kept,
    set: change,
    drop,
  } = useDraft(about, initial, fetcher.data?.now, PIECE_MERGE);
  const [nameless, setNameless] = useState(false);
  const sent = useRef<PieceFacts | null>(null);
  // A new piece is made once, however often it is sent until an answer comes.
  const key = useRef<string | null>(null);
  const keep = () => {
    setNameless(facts.name.trim() === '');
    if (facts.name.trim() === '') return;
    sent.current = facts;
    const mine = { ...facts, name: facts.name.trim() };
    key.current ??= crypto.randomUUID();
    void fetcher.submit(
      { mine, since, key: key.current },
      { method: 'post', encType: 'application/json' },
    );
  };
  const taken = fetcher.state === 'idle' && fetcher.data?.saved === true ? fetcher.data : null;
  // Once the server has it, the draft has done its work.
  useEffect(() => {
    if (taken) drop(sent.current ?? undefined);
  }, [taken, drop]);
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
      sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 1fr' }, gap: 3, alignItems: 'start' }}
    >
      <Stack spacing={1.8}>
        <TextField
          label="Name of the piece"
          value={facts.name}
          error={nameless}
          helperText={
            nameless ? 'Give it a name that everyone in the shop knows it by.' : undefined
          }
          onChange={(event) => change({ name: cut(event.target.value, 80) })}
        />
        <Choice
          label="Where it comes from"
          value={facts.kind}
          onChange={(kind) => change({ kind })}
          options={PIECE_KINDS.map((kind) => [kind, KIND_WORDS[kind]] as const)}
          help={KIND_ABOUT[facts.kind]}
        />
        <TextField
          label="What part it is"
          value={facts.part}
          onChange={(event) => change({ part: cut(event.target.value, 120) })}
          placeholder="Where it sits and what it does"
        />
        <Choice
          label="Side of the vehicle"
          value={facts.side}
          onChange={(side) => change({ side })}
          options={SIDES_OF_VEHICLE.map((side) => [side, SIDE_WORDS[side]] as const)}
        />
        <FormControlLabel
          control={
            <Switch
              checked={facts.structural}
              onChange={(_, structural) => change({ structural })}
            />
          }
          label="Part of what holds the vehicle up (sill, pillar, rail, mount)"
        />
        {facts.structural && (
          <Box sx={{ borderLeft: '6px double var(--torch)', pl: 1.4, fontSize: '0.95rem' }}>
            Brace before cutting, stagger the cuts of inner and outer layers, and follow the maker’s
            and local inspection rules. Have a licensed person judge it.
          </Box>
        )}
        <TextField
          label="Notes"
          multiline
          minRows={4}
          value={facts.notes}
          onChange={(event) => change({ notes: cut(event.target.value, 8000) })}
          placeholder="What was found, what must stay, what gives the reference"
        />
      </Stack>
      <Stack spacing={1.8}>
        <Choice
          label="Metal"
          value={facts.metal}
          onChange={(metal) => change({ metal })}
          options={METALS.map((metal) => [metal.id, metal.name] as const)}
          help={metalById(facts.metal).about}
        />
        <Thickness facts={facts} onChange={change} />
        {fetcher.data?.message && <Told>{fetcher.data.message}</Told>}
        <Stack
          direction="row"
          spacing={1}
          useFlexGap
          sx={{ flexWrap: 'wrap', alignItems: 'center' }}
        >
          <Button
            type="submit"
            variant="contained"
            size="large"
            disabled={fetcher.state !== 'idle'}
          >
            {button(facts.kind)}
          </Button>
          {children}
          {kept ? (
            <Box sx={{ color: 'var(--pencil)' }}>Typed, not kept yet</Box>
          ) : (
            taken && <Box role="status">Saved</Box>
          )}
        </Stack>
      </Stack>
    </Box>
  );
}

/**
 * Thickness three ways: by gauge number in its system, in millimetres, or as read with a
 * micrometer.
 */
function Thickness({
  facts,
  onChange,
}: {
  facts: PieceFacts;
  onChange: (next: Partial<PieceFacts>) => void;
}) {
  const { thickness } = facts;
  const { unit } = usePreferences();
  const near = nearestGauges(facts.thicknessMm);
  const both = [
    `${facts.thicknessMm.toFixed(2)} mm`,
    `${(facts.thicknessMm / 25.4).toFixed(4)} in`,
  ] as const;
  const byGauge = (system: GaugeSystem, gauge: number) => {
    const found = thicknessOfGauge(system, gauge);
    if (found.ok)
      onChange({ thickness: { by: 'gauge', system, gauge }, thicknessMm: found.thicknessMm });
  };
  const choose = (by: PieceFacts['thickness']['by'] | null) => {
    if (by === 'gauge') {
      const system = metalById(facts.metal).gauges;
      const nearest = near.ok ? near.nearest.find((n) => n.system === system) : undefined;
      byGauge(system, nearest?.gauge ?? 20);
    } else if (by) onChange({ thickness: { by } });
  };
  return (
    <Box component="fieldset" sx={{ border: '1.5px solid var(--rule)', p: 2, m: 0 }}>
      <Typography component="legend" variant="h3" sx={{ px: 1 }}>
        Thickness
      </Typography>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={thickness.by}
        onChange={(_, by) => choose(by as typeof thickness.by | null)}
        aria-label="How the thickness is known"
        sx={{ mb: 1.5 }}
      >
        <ToggleButton value="gauge">Gauge</ToggleButton>
        <ToggleButton value="mm">By size</ToggleButton>
        <ToggleButton value="micrometer">Micrometer</ToggleButton>
      </ToggleButtonGroup>
      {thickness.by === 'gauge' ? (
        <Stack direction="row" spacing={1}>
          <Choice
            label="System"
            value={thickness.system}
            onChange={(system) =>
              byGauge(
                system,
                GAUGE_NUMBERS[system].includes(thickness.gauge) ? thickness.gauge : 20,
              )
            }
            options={GAUGE_SYSTEMS.map((s) => [s, SYSTEM_NAMES[s]] as const)}
          />
          <Box sx={{ minWidth: 110 }}>
            <Choice
              label="Gauge"
              value={String(thickness.gauge)}
              onChange={(gauge) => byGauge(thickness.system, Number(gauge))}
              options={GAUGE_NUMBERS[thickness.system].map((g) => [String(g), String(g)] as const)}
            />
          </Box>
        </Stack>
      ) : (
        <LengthField
          label={
            thickness.by === 'micrometer' ? 'Micrometer reading, paint and rust off' : 'Thickness'
          }
          mm={facts.thicknessMm}
          min={0.1}
          digits={2}
          max={12}
          onChange={(mm) => mm !== null && onChange({ thicknessMm: mm })}
        />
      )}
      <Box sx={{ mt: 1.5 }}>
        <Box className="figure" sx={{ fontSize: '1.6rem' }}>
          {unit === 'mm' ? both[0] : both[1]}{' '}
          <span style={{ color: 'var(--pencil)' }}>· {unit === 'mm' ? both[1] : both[0]}</span>
        </Box>
        <Box
          component="ul"
          aria-label="Nearest gauge in each system"
          sx={{ m: 0, mt: 0.5, p: 0, listStyle: 'none', fontSize: '0.92rem' }}
        >
          {near.ok &&
            near.nearest.map(({ system, gauge, differenceMm }) => (
              <li key={system}>
                <span className="figure">{String(gauge).padStart(2)}</span> {SYSTEM_NAMES[system]}
                <span className="figure" style={{ color: 'var(--pencil)' }}>
                  {' '}
                  {Math.abs(differenceMm) < 0.0005
                    ? 'exactly'
                    : `${differenceMm > 0 ? '+' : '−'}${unit === 'mm' ? `${Math.abs(differenceMm).toFixed(3)} mm` : `${(Math.abs(differenceMm) / 25.4).toFixed(4)} in`}`}
                </span>
              </li>
            ))}
        </Box>
      </Box>
    </Box>
  );
}
