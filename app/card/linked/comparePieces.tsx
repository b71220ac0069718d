import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link, data } from 'react-router';
import { z } from 'zod';
import type { Part } from '#core/card/link/differences';
import { PARTS } from '#core/card/link/differences';
import { laidOver, seenFrom } from '#core/card/link/linked';
import type { PatternDoc, EdgeOffset } from '#core/card/pattern';
import { EdgeOffsetSchema } from '#core/card/pattern';
import { useAnswers } from '../../forms/useAnswers';
import { FoldAway } from '../../frame/FoldAway';
import { orSay } from '../../forms/orSay';
import { StopLayout } from '../../frame/StopLayout';
import { Told } from '../../frame/Told';
import { unlessAway, useLast } from '../../frame/whileAway';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';
import type { Other } from '../../records/linked.server';
import { changeLinked, otherOf } from '../../records/linked.server';
import { idOr404, sentence } from '../../records/parse.server';
import { viewerIn } from '../../records/viewer.server';
import type { Route } from './+types/comparePieces';
import type { Doing } from './Differences';
import { Differences, Measured } from './Differences';
import { SideBySide } from './SideBySide';
import { TakeOffFields } from './TakeOffFields';

export async function loader({ params, context }: Route.LoaderArgs) {
  const found = await otherOf(
    context.get(viewerIn),
    idOr404(params.pieceId),
    idOr404(params.otherId),
  );
  if (!found) throw data(null, { status: 404 });
  return found;
}

export const clientLoader = ({ serverLoader }: Route.ClientLoaderArgs) => unlessAway(serverLoader);

const parts = z
  .array(z.object({ of: z.enum(PARTS), id: z.string().max(24) }))
  .max(10_000) as z.ZodType<Part[]>;
const number = z.number().int().min(0);
const Body = z.object({
  here: number,
  there: number,
  change: z.discriminatedUnion('what', [
    z.object({ what: z.literal('take'), parts, over: z.boolean() }),
    z.object({ what: z.literal('leave'), parts }),
    z.object({ what: z.literal('take-off'), takeOff: z.array(EdgeOffsetSchema).max(100) }),
    z.object({ what: z.literal('anew') }),
  ]),
});

export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const [here, there] = [idOr404(params.pieceId), idOr404(params.otherId)];
  const parsed = Body.safeParse(await request.json().catch(() => null));
  if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
  const found = await otherOf(viewer, here, there);
  if (!found) throw data(null, { status: 404 });
  const { change, ...seen } = parsed.data;
  const done = await changeLinked(viewer, { here, there }, seen, found.at, found.as, change);
  if (done === 'stale')
    // An answer like any other, so that both are read anew.
    return data({
      message: 'One of the two was changed meanwhile: look again, it is drawn as it is now.',
    });
  if (done && !done.ok) return data({ problems: done.problems }, { status: 422 });
  return null;
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

/**
 * Two pieces of which one was made from the other: side by side, measured, and what one can take
 * over from the other.
 */
export default function BesidePage({ loaderData, params }: Route.ComponentProps) {
  const loaded = useLast(loaderData);
  if (loaded?.other.id !== params.otherId.toLowerCase())
    throw new TypeError('No answer from the server');
  return <Beside loaded={loaded} />;
}

function Beside({ loaded: { at, as, other } }: { loaded: Other }) {
  const { id, facts, pattern, patternEditor } = usePiece();
  const { show } = usePreferences();
  const fetcher = useAnswers<Route.ComponentProps['actionData']>();
  const there = other.card.doc;
  const linked = useMemo(
    () => (at === 'made' ? { first: there, made: pattern } : { first: pattern, made: there }),
    [at, pattern, there],
  );
  const { over, sides } = useMemo(() => {
    const over = laidOver(at, linked, as);
    const here = { name: facts.name, doc: pattern, other: over };
    const beside = {
      name: other.name,
      doc: there,
      other: laidOver(at === 'made' ? 'first' : 'made', linked, as),
    };
    const hereLeft =
      as === 'again' ? at === 'first' : facts.side === 'left' || other.side === 'right';
    return {
      over,
      sides: hereLeft ? { left: here, right: beside } : { left: beside, right: here },
    };
  }, [at, as, linked, facts, pattern, other, there]);
  const seen = useMemo(() => seenFrom(at, linked), [at, linked]);
  const busy = fetcher.state !== 'idle' || patternEditor.status !== 'saved';
  const send: Doing['send'] = (change) =>
    void fetcher.submit(
      { here: patternEditor.number, there: other.card.number, change },
      {
        method: 'post',
        encType: 'application/json',
        action: `/pieces/${id}/card/beside/${other.id}`,
      },
    );
  if (pattern.sides.length === 0 || there.sides.length === 0)
    return (
      <Box sx={{ p: 3, display: 'grid', gap: 2, justifyItems: 'start' }}>
        <Typography variant="h1">There is no card to lay beside it</Typography>
        <Typography>
          {pattern.sides.length === 0 ? facts.name : other.name} has no outline yet.
        </Typography>
        {at === 'made' && there.sides.length > 0 && (
          <Anew other={other.name} busy={busy} send={send} />
        )}
      </Box>
    );
  return (
    <StopLayout
      drawerWidth={400}
      tally={[]}
      drawing={<SideBySide {...sides} />}
      drawer={
        <Stack spacing={2}>
          <Box>
            <Typography variant="h2">Beside {other.name}</Typography>
            <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
              {facts.name} was made {at === 'made' ? 'from it' : 'first'}. Red: where it lies;
              dotted: where the other one lies, turned over onto it. + is farther out.
            </Typography>
          </Box>
          {fetcher.data?.message && <Told>{fetcher.data.message}</Told>}
          {fetcher.data?.problems?.map((problem, i) => (
            <Told key={i}>
              {problemSentence(
                problem,
                problem.code === 'taken-needs-outline' && seen.ok ? seen.there : pattern,
                show,
              )}
            </Told>
          ))}
          {seen.ok ? (
            <>
              {seen.failed.length > 0 && <TakeOffFailed edges={seen.failed} pattern={pattern} />}
              <Differences
                at={at}
                other={other.name}
                differences={seen.differences}
                pair={{ here: pattern, there: seen.there }}
                busy={busy}
                send={send}
              />
            </>
          ) : (
            <>
              <Typography>{problemSentence(seen.problems[0]!, pattern, show)}</Typography>
              {at === 'made' && <Anew other={other.name} busy={busy} send={send} />}
            </>
          )}
          <Measured here={pattern} over={over} />
          {at === 'made' && as === 'other-side' && pattern.linkedFrom && (
            <FoldAway
              title="What is taken off along edges"
              open={pattern.linkedFrom.edgeOffsets.length > 0}
            >
              <EdgeOffset
                key={JSON.stringify(pattern.linkedFrom.edgeOffsets)}
                pattern={pattern}
                busy={busy}
                send={send}
              />
            </FoldAway>
          )}
          <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
            <Button variant="outlined" component={Link} to={`/pieces/${id}/card`}>
              Back to the card
            </Button>
            <Button color="inherit" component={Link} to={`/pieces/${other.id}/card/beside/${id}`}>
              Look from {other.name}
            </Button>
          </Stack>
        </Stack>
      }
    />
  );
}

const Anew = ({ other, busy, send }: Doing & { other: string }) => (
  <Button variant="contained" disabled={busy} onClick={() => send({ what: 'anew' })}>
    Make the card anew from {other}
  </Button>
);

const TakeOffFailed = ({ edges, pattern }: { edges: readonly string[]; pattern: PatternDoc }) => (
  <Told>
    What is to be taken off along{' '}
    {edges
      .map((id) => pattern.edges.find((edge) => edge.id === id)?.letter ?? 'an edge that is gone')
      .join(', ')}{' '}
    cannot be, as the first one is now. Change it below, or take off there by hand.
  </Told>
);

function EdgeOffset({ pattern, busy, send }: Doing & { pattern: PatternDoc }) {
  const now = pattern.linkedFrom!.edgeOffsets;
  const [takeOff, setTakeOff] = useState<EdgeOffset[]>(now);
  const changed = JSON.stringify(takeOff) !== JSON.stringify(now);
  return (
    <Stack spacing={1}>
      <TakeOffFields pattern={pattern} takeOff={takeOff} onChange={setTakeOff} />
      {changed && (
        <Button
          variant="contained"
          disabled={busy}
          onClick={() => send({ what: 'take-off', takeOff })}
        >
          Move the edges so
        </Button>
      )}
    </Stack>
  );
}
