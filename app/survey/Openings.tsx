import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { cut } from '#core/card/cut';
import type { OpeningTwist } from '#core/survey/openings';
import { openingTwist } from '#core/survey/openings';
import type { Opening, Round, Surveyed } from '#core/survey/references';
import { inHand } from '#core/survey/inHand';
import { Choice } from '../forms/Choice';
import { usePreferences } from '../frame/preferences';
import { listed } from '../frame/words';
import { FormButtons, useSurveyForm } from './SurveyForms';
import { useSurvey } from './useSurvey';

/** Openings with four corners, and how far each was out of its plane round after round. */
export function Openings() {
  const { all, points, rounds } = useSurvey();
  const openings = inHand(all, 'opening');
  const [open, setOpen] = useState<string | null | undefined>(undefined);
  if (points.length < 4) return null;
  const fresh: Opening = { kind: 'opening', name: '', corners: ['', '', '', ''], putAway: false };
  return (
    <Box component="section" aria-label="Twist of openings" sx={{ mt: 3.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Twist of openings
        </Typography>
        <Button variant="outlined" color="inherit" onClick={() => setOpen(null)}>
          New opening
        </Button>
      </Box>
      {openings.length === 0 && open === undefined && (
        <Typography sx={{ color: 'var(--pencil)' }}>
          Of an opening with four corners the four sides and both diagonals tell whether it lies
          flat.
        </Typography>
      )}
      {openings.map((opening) =>
        opening.id === open ? (
          <OpeningForm
            key={opening.id}
            id={opening.id}
            initial={opening}
            onDone={() => setOpen(undefined)}
          />
        ) : (
          <Box key={opening.id} sx={{ borderTop: '1px solid var(--rule)', py: 1 }}>
            <Box sx={{ display: 'flex', alignItems: 'center' }}>
              <Typography variant="h3" sx={{ flex: 1 }}>
                {opening.name}
              </Typography>
              <Button
                size="small"
                color="inherit"
                onClick={() => setOpen(opening.id)}
                aria-label={`Change ${opening.name}`}
              >
                Change
              </Button>
            </Box>
            <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {rounds.map((round) => (
                <TwistLine key={round.id} opening={opening} round={round} />
              ))}
            </Box>
          </Box>
        ),
      )}
      {open === null && <OpeningForm id={null} initial={fresh} onDone={() => setOpen(undefined)} />}
    </Box>
  );
}

function TwistLine({ opening, round }: { opening: Surveyed<Opening>; round: Surveyed<Round> }) {
  const { points, measures } = useSurvey();
  const { show } = usePreferences();
  const nameOf = (id: string) => points.find((point) => point.id === id)?.name ?? 'a corner';
  const found = openingTwist(opening, measures, round);
  const plain = found.kind === 'told' && found.visible;
  return (
    <Box
      component="li"
      sx={{ py: 0.4, pl: plain ? 1 : 0, borderLeft: plain ? '5px solid var(--torch)' : 'none' }}
    >
      <b>{round.name}</b>: {twistSaid(found, show, nameOf)}
    </Box>
  );
}

/** What the six tapes say of an opening. */
function twistSaid(
  found: OpeningTwist,
  show: (mm: number) => string,
  nameOf: (id: string) => string,
): string {
  const between = (pairs: [string, string][]) =>
    listed(pairs.map(([a, b]) => `${nameOf(a)} to ${nameOf(b)}`));
  switch (found.kind) {
    case 'missing':
      return `not read: ${between(found.between)}.`;
    case 'impossible':
      return `these cannot all be right: ${between(found.between)}. Take them again.`;
    case 'told':
      return found.visible
        ? `twisted: the last corner stands ${show(found.outOfPlaneMm)} off the plane of the others, ± ${show(found.uMm)}.`
        : `no twist shows, but these tapes would not show one under ${show(2 * found.uMm)}. Winding strips, or a level on each end, would.`;
  }
}

function OpeningForm({
  id,
  initial,
  onDone,
}: {
  id: string | null;
  initial: Opening;
  onDone: (id?: string) => void;
}) {
  const { points } = useSurvey();
  const form = useSurveyForm('opening', id, initial, onDone);
  const { name, corners } = form.draft;
  const put = (i: number, point: string) =>
    form.set({ corners: corners.map((was, k) => (k === i ? point : was)) as Opening['corners'] });
  const ready = name.trim() !== '' && new Set(corners.filter(Boolean)).size === 4;
  return (
    <Box
      component="section"
      aria-label="An opening"
      sx={{
        display: 'grid',
        gap: 1.5,
        p: 1.5,
        mt: 1,
        bgcolor: 'var(--panel)',
        border: '1.5px solid var(--rule)',
        maxWidth: 720,
      }}
    >
      <TextField
        label="Name of the opening"
        value={name}
        onChange={(event) => form.set({ name: cut(event.target.value, 60) })}
        placeholder="Door opening"
      />
      <Typography>Its corners, one after the other round it:</Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr' }, gap: 1 }}>
        {corners.map((corner, i) => (
          <Choice
            key={i}
            label={`Corner ${i + 1}`}
            value={corner}
            onChange={(next) => put(i, next)}
            options={[['', 'Choose a point'], ...points.map((p) => [p.id, p.name] as const)]}
          />
        ))}
      </Box>
      <FormButtons ready={ready} isNew={id === null} form={form} onDone={onDone} />
    </Box>
  );
}
