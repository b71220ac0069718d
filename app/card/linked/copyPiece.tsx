import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useMemo, useRef, useState } from 'react';
import { Link, data, redirect } from 'react-router';
import { z } from 'zod';
import { cut } from '#core/card/cut';
import { madeFrom } from '#core/card/link/alignment';
import { laidOver } from '#core/card/link/linked';
import type { EdgeOffset } from '#core/card/pattern';
import { EdgeOffsetSchema } from '#core/card/pattern';
import type { CameAs } from '#core/format/job';
import { CAME_AS, PieceFactsSchema, why } from '#core/format/job';
import { SIDES_OF_VEHICLE } from '#core/format/lists';
import { Choice } from '../../forms/Choice';
import { orSay } from '../../forms/orSay';
import { useAnswers } from '../../forms/useAnswers';
import { StopLayout } from '../../frame/StopLayout';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { SIDE_WORDS } from '../../piece/sideWords';
import { usePiece } from '../../piece/pieceContext';
import { makeAnother } from '../../records/linked.server';
import { once } from '../../records/once.server';
import { Key, idOr404, sentence } from '../../records/parse.server';
import { viewerIn } from '../../records/viewer.server';
import type { Route } from './+types/copyPiece';
import { SideBySide } from './SideBySide';
import { TakeOffFields } from './TakeOffFields';

const Body = Key.extend({
  as: z.enum(CAME_AS),
  name: PieceFactsSchema.shape.name,
  side: PieceFactsSchema.shape.side,
  takeOff: z.array(EdgeOffsetSchema).max(100),
  why,
});

export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.pieceId);
  const parsed = Body.safeParse(await request.json().catch(() => null));
  if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
  const { key, ...asked } = parsed.data;
  const made = await once(viewer, key, (tx) => makeAnother(viewer, tx, id, asked));
  if (!made) throw data(null, { status: 404 });
  if (!made.ok) return data({ problems: made.problems }, { status: 422 });
  return redirect(`/pieces/${made.id}/card`);
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

const OTHER_SIDE = {
  left: 'right',
  right: 'left',
  front: 'front',
  rear: 'rear',
  centre: 'centre',
} as const;

/** The name of the piece for the other side: left for right where the name says so. */
export function otherName(name: string, as: CameAs): string {
  if (as === 'again') return `${cut(name, 68)} (again)`;
  const swap: Record<string, string> = {
    left: 'right',
    right: 'left',
    Left: 'Right',
    Right: 'Left',
  };
  const swapped = name.replace(/\b(left|right)\b/gi, (word) => swap[word] ?? word);
  return swapped === name ? `${cut(name, 65)} (other side)` : cut(swapped, 80);
}

/**
 * Another piece made from this one: for the other side, or once more; what it will be is drawn
 * beside it.
 */
export default function AnotherPage() {
  const { id, facts, pattern, patternEditor } = usePiece();
  const { show } = usePreferences();
  const fetcher = useAnswers<Route.ComponentProps['actionData']>();
  const [as, setAs] = useState<CameAs>('other-side');
  const [named, setNamed] = useState<string | null>(null);
  const [side, setSide] = useState<(typeof SIDES_OF_VEHICLE)[number]>(OTHER_SIDE[facts.side]);
  const [takeOff, setTakeOff] = useState<EdgeOffset[]>([]);
  const [reason, setReason] = useState('');
  const [wanting, setWanting] = useState(false);
  // Made once, however often it is sent until an answer comes.
  const key = useRef<string | null>(null);
  const name = named ?? otherName(facts.name, as);
  const off = useMemo(() => (as === 'again' ? [] : takeOff), [as, takeOff]);
  const { made, failed } = useMemo(() => {
    const { doc, failed } = madeFrom(pattern, as, off);
    return { made: doc, failed };
  }, [pattern, as, off]);
  const sides = useMemo(() => {
    const linked = { first: pattern, made };
    const here = { name: facts.name, doc: pattern, other: laidOver('first', linked, as) };
    const there = { name, doc: made, other: laidOver('made', linked, as) };
    return as === 'other-side' && side === 'left'
      ? { left: there, right: here }
      : { left: here, right: there };
  }, [pattern, made, as, name, side, facts.name]);
  const problems = fetcher.data?.problems ?? [];
  const noReason = as === 'again' && reason.trim() === '';
  const saved = patternEditor.status === 'saved';
  const make = () => {
    setWanting(noReason || name.trim() === '');
    if (noReason || name.trim() === '') return;
    key.current ??= crypto.randomUUID();
    const body = {
      as,
      name: name.trim(),
      side: as === 'again' ? facts.side : side,
      takeOff: off,
      why: as === 'again' ? reason.trim() : '',
      key: key.current,
    };
    void fetcher.submit(body, {
      method: 'post',
      encType: 'application/json',
      action: `/pieces/${id}/card/another`,
    });
  };
  if (pattern.sides.length === 0) return <NoCardYet id={id} />;
  return (
    <StopLayout
      tally={[]}
      drawing={<SideBySide {...sides} />}
      drawer={
        <Stack spacing={2}>
          <Typography variant="h2">Another one of it</Typography>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={as}
            aria-label="What is made"
            onChange={(_, next) => next && setAs(next as CameAs)}
          >
            <ToggleButton value="other-side">For the other side</ToggleButton>
            <ToggleButton value="again">Once more</ToggleButton>
          </ToggleButtonGroup>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            {as === 'other-side'
              ? 'The card is turned over, folds and joints with it. It remembers this one: when this one changes, it shows what, and can take it over without losing its own.'
              : 'The same card once more, for a second try. What was fitted and welded stays with the first.'}
          </Typography>
          <TextField
            label="What it is called"
            value={name}
            error={wanting && name.trim() === ''}
            onChange={(event) => setNamed(cut(event.target.value, 80))}
          />
          {as === 'other-side' ? (
            <>
              <Choice
                label="Side of the vehicle"
                value={side}
                onChange={setSide}
                options={SIDES_OF_VEHICLE.map((one) => [one, SIDE_WORDS[one]] as const)}
              />
              <TakeOffFields pattern={pattern} takeOff={takeOff} onChange={setTakeOff} />
            </>
          ) : (
            <TextField
              label="Why it is made again"
              multiline
              minRows={2}
              value={reason}
              error={wanting && noReason}
              helperText={
                wanting && noReason ? 'Say what went wrong, for who makes the next one.' : undefined
              }
              placeholder="Folded the wrong way, shrunk too far at the rear corner"
              onChange={(event) => setReason(cut(event.target.value, 400))}
            />
          )}
          {failed.map((edge) => (
            <Told key={edge}>
              {problemSentence(
                {
                  code: 'take-off-too-far',
                  severity: 'stop',
                  about: [edge],
                  numbers: { mm: off.find((one) => one.edge === edge)!.mm },
                },
                pattern,
                show,
              )}
            </Told>
          ))}
          {problems.map((problem, i) => (
            <Told key={i}>{problemSentence(problem, pattern, show)}</Told>
          ))}
          {fetcher.data?.message && <Told>{fetcher.data.message}</Told>}
          <Stack direction="row" spacing={1}>
            <Button
              variant="contained"
              size="large"
              disabled={fetcher.state !== 'idle' || failed.length > 0 || !saved}
              onClick={make}
            >
              Make it
            </Button>
            <Button color="inherit" component={Link} to={`/pieces/${id}/card`}>
              Not now
            </Button>
          </Stack>
        </Stack>
      }
    />
  );
}

const NoCardYet = ({ id }: { id: string }) => (
  <Box sx={{ p: 3 }}>
    <Typography variant="h1">First the card</Typography>
    <Typography sx={{ my: 2 }}>There is nothing to turn over yet.</Typography>
    <Button variant="contained" component={Link} to={`/pieces/${id}/card`}>
      Put the card in
    </Button>
  </Box>
);
