import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import type { BlankFold } from '#core/blank/fold/developed';
import type { Remedy } from '#core/blank/fold/order/remedies';
import { MOST_TRIED } from '#core/blank/fold/order/remedies';
import type { OrderStep } from '#core/blank/fold/order/solve';
import type { Hit } from '#core/blank/fold/order/inTheWay';
import { Choice } from '../forms/Choice';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import type { OrderDraft, Ordering } from './useOrdering';

const HIT_WORDS: Record<Hit['of'], string> = {
  bar: 'something stands where the bar would be',
  beam: 'it runs into the beam over the bar',
  bed: 'what hangs down runs into the bed',
  apron: 'what is turned down runs into the apron',
  piece: 'it runs into the piece itself',
  length: 'it is longer than the machine',
  'way in': 'the bar does not open far enough to put it in',
  'way out': 'it hooks over the bar and cannot be taken out',
};

/** The order in which the folds are made on a machine: step by step, or what stands in the way and what frees it. */
export function OrderPanel({ ordered, draft, set, brake, folds }: Omit<Ordering, 'shown'> & { folds: readonly BlankFold[] }) {
  const { shop, pattern } = usePiece();
  const { show } = usePreferences();
  const [typed, setTyped] = useState(draft.typed);
  const number = (fold: number) => `fold ${fold + 1}`;
  const count = pattern.folds.length;
  // A tip rounder than a fold is to be bends it round itself.
  const tooSharp = folds.flatMap(({ bend }, i) => (brake && bend.radiusMm < brake.noseRadiusMm ? [number(i)] : []));
  return (
    <Stack spacing={1.6} component="section" aria-label="Order of folding">
      <Choice label="Folded on" value={draft.brake} onChange={(brake) => set({ brake, at: 0 })} options={shop.brakes.map(({ id, name }) => [id, name] as const)} />
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start' }}>
        <TextField
          label="An order of your own (empty: found for you)"
          placeholder={Array.from({ length: Math.min(count, 6) }, (_, i) => i + 1).join(' ')}
          value={typed}
          fullWidth
          slotProps={{ htmlInput: { maxLength: 120 } }}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && set({ typed, at: 0 })}
        />
        <Button variant="outlined" sx={{ mt: 2.6 }} onClick={() => set({ typed, at: 0 })}>
          Check
        </Button>
      </Box>
      {tooSharp.length > 0 && brake && <Told>The bar’s tip has a radius of {show(brake.noseRadiusMm)}: {tooSharp.join(', ')} cannot come out sharper than that.</Told>}
      {ordered.state === 'looking' && <Typography role="status">Looking for an order …</Typography>}
      {ordered.state === 'found' && (
        <Steps steps={ordered.order.steps} at={draft.at} set={set} said={ordered.order.exact ? handlingSaid(ordered.order) : `${handlingSaid(ordered.order)} Of so many folds this is the best that was found; there may be a better one.`} />
      )}
      {ordered.state === 'none' && (
        <>
          <Told>
            {ordered.stuck
              ? `In this order ${number(ordered.stuck.fold)} cannot be made, as number ${ordered.stuck.at + 1}: ${HIT_WORDS[ordered.stuck.hit.of]}, by ${show(ordered.stuck.hit.depthMm)}.`
              : ordered.problems.some(({ code }) => code === 'no-order')
                ? `This machine makes them in no order. What is left over: ${(ordered.problems[0]?.about ?? []).map((id) => number(pattern.folds.findIndex((fold) => fold.id === id))).join(', ')}.`
                : ordered.problems.some(({ code }) => code === 'order-unreadable')
                  ? `Name each of the ${count} folds once, as 1 2 3.`
                  : ordered.problems.some(({ code }) => code === 'order-not-found')
                    ? 'No order was found among those that were followed; there may be one. Type one of your own to have it checked.'
                    : 'No order could be looked for: the blank has to be there, and no more than 30 folds.'}
          </Told>
          {ordered.stuck && (
            <Button variant="outlined" onClick={() => { setTyped(''); set({ typed: '', at: 0 }); }}>
              Find an order that goes
            </Button>
          )}
          {!ordered.stuck && ordered.problems.some(({ code }) => code === 'no-order') && (
            <Box>
              {ordered.shown && (
                <Typography variant="body2" sx={{ mb: 1 }}>
                  Drawn: made as they are numbered, {number(ordered.shown.step.fold)} is the first that hits.
                </Typography>
              )}
              <Typography variant="h3">What frees it</Typography>
              {ordered.remedies === null && <Typography role="status">Being tried …</Typography>}
              {ordered.remedies?.length === 0 && <Typography>{count > MOST_TRIED ? `Of more than ${MOST_TRIED} folds that is not tried: another machine, a fold over a bar, or parts that are welded.` : 'Nothing that one or two folds could do differently: another machine, or parts that are welded.'}</Typography>}
              <Box component="ul" aria-label="What frees it" sx={{ pl: 2.5, m: 0, display: 'grid', gap: 0.6 }}>
                {remediesSaid(ordered.remedies ?? [], show).map((said) => <li key={said}>{said}</li>)}
              </Box>
            </Box>
          )}
        </>
      )}
      <Typography variant="body2">
        <Box component={Link} to="/shop#machines" sx={{ color: 'var(--layout)' }}>
          The machines and their figures
        </Box>. Laps, hems and flanges of joints are not looked at; a fold
        that is held by its joint’s strip wants your own eye.
      </Typography>
    </Stack>
  );
} // prettier-ignore

const handlingSaid = ({ turnings, fingerChanges }: { turnings: number; fingerChanges: number }): string => {
  const times = (n: number, what: string) => (n === 0 ? `no ${what}` : n === 1 ? `one ${what}` : `${n} ${what}s`);
  const said = `${times(turnings, 'turning')} of the piece, ${times(fingerChanges, 'change')} of fingers.`;
  return said.charAt(0).toUpperCase() + said.slice(1);
};

function Steps({ steps, at, set, said }: { steps: readonly OrderStep[]; at: number; set: (change: Partial<OrderDraft>) => void; said: string }) {
  const { show } = usePreferences();
  const now = Math.min(at, steps.length);
  return (
    <>
      <Typography>{said}</Typography>
      <Box component="ol" aria-label="Steps" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1 }}>
        {steps.map((step, i) => {
          const before = steps[i - 1];
          const current = i === now;
          return (
            <Box
              component="li"
              key={step.fold}
              aria-current={current ? 'step' : undefined}
              sx={{ borderLeft: `6px solid ${current ? 'var(--torch)' : i < now ? 'var(--done)' : 'var(--rule)'}`, pl: 1.5, py: 0.4, bgcolor: current ? 'var(--torch-ground)' : undefined, cursor: 'pointer', opacity: i < now ? 0.7 : 1 }}
              onClick={() => set({ at: i })}
            >
              <Typography sx={{ fontWeight: 600 }}>
                {i + 1}. Fold {step.fold + 1} to {step.angleDeg}°{i < now ? ' · done' : ''}
              </Typography>
              <Typography variant="body2">
                {step.faceUp ? 'The side you drew on is up' : 'The side you drew on is down'}
                {before && before.faceUp !== step.faceUp ? ' (turn it over)' : ''}; {roundSaid(before, step)}.{' '}
                {step.clamped === 'base' ? 'The side with the face that stays put is held.' : 'The other side is held: the face that stays put swings.'}
                {step.fingersMm && ` Fingers ${step.fingersMm.map((mm) => show(mm)).join(' + ')}.`}
              </Typography>
            </Box>
          );
        })}
      </Box>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button variant="contained" size="large" disabled={now >= steps.length} onClick={() => set({ at: now + 1 })} sx={{ flex: 1 }}>
          {now >= steps.length ? 'All folds made' : 'Done, next'}
        </Button>
        <Button variant="outlined" size="large" disabled={now === 0} onClick={() => set({ at: now - 1 })}>
          Back
        </Button>
      </Box>
    </>
  );
} // prettier-ignore

function roundSaid(before: OrderStep | undefined, step: OrderStep): string {
  if (!before) return `turned ${Math.round(step.turnDeg)}° to the left from how it is drawn`;
  const round = Math.round((step.turnDeg - before.turnDeg + 360) % 360);
  if (before.faceUp !== step.faceUp) return `lying turned ${Math.round(step.turnDeg)}° to the left from how it is drawn`;
  return round === 0 ? 'lying as before' : `turned round ${round > 180 ? `${360 - round}° to the right` : `${round}° to the left`}`;
} // prettier-ignore

/** What frees a piece, folds of which the same can be said together. */
function remediesSaid(remedies: readonly Remedy[], show: (mm: number) => string): string[] {
  const groups = new Map<string, { said: (folds: string) => string; folds: string[] }>();
  for (const remedy of remedies) {
    const said = remedySaid(remedy, show);
    const key = said('');
    const group = groups.get(key) ?? { said, folds: [] };
    groups.set(key, group);
    group.folds.push(remedy.kind === 'over-a-bar' && remedy.also !== undefined ? `${remedy.fold + 1} and ${remedy.also + 1}` : String(remedy.fold + 1)); // prettier-ignore
  }
  return [...groups.values()].map(({ said, folds }) => {
    const last = folds[folds.length - 1]!;
    return said(folds.length === 1 ? `fold ${last}` : `fold ${folds.slice(0, -1).join(', ')} or ${last}`);
  });
}

const remedySaid = (remedy: Remedy, show: (mm: number) => string): ((folds: string) => string) => {
  switch (remedy.kind) {
    case 'leave-open':
      return (folds) =>
        `Leave ${folds} at ${remedy.deg}° on the machine; close it over a bar when the others are made.`;
    case 'over-a-bar':
      return (folds) => `Make ${folds} over a bar by hand, when the others are made.`;
    case 'part':
      return (folds) => `Cut the piece apart along ${folds}, fold both parts, and weld them.`;
    case 'shorten':
      return (folds) => `Make the flange of ${folds} ${show(remedy.byMm)} shorter.`;
  }
};
