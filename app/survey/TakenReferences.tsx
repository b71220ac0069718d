import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { cut } from '#core/card/cut';
import type { RemovedPoint } from '#core/survey/removedPoints';
import { movedSoFar } from '#core/survey/moved';
import { USUAL_U } from '#core/survey/kinds';
import { LengthField } from '../forms/LengthField';
import { movedSentence } from '../frame/measuredWords';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { surveyWarningSaid } from '../piece/road/surveyWords';
import { NetworkPicture, PictureFrame } from './NetworkPicture';
import { useNetView } from './useNetView';
import { usePieceSurvey } from './usePieceSurvey';
import { useSurvey } from './useSurvey';

/**
 * Which references are gone when this piece is cut out, and how well each could be put back from
 * what stays.
 */
export function TakenReferences() {
  const { pattern } = usePiece();
  const { job, points } = useSurvey();
  const { draft, set, verdict } = usePieceSurvey();
  const { show } = usePreferences();
  const first = points.find(({ id }) => draft.takes.includes(id));
  const { view } = useNetView(draft.space ? 'space' : (first?.side ?? 'right'));
  const gone = new Set(draft.takes);
  const toggle = (id: string) =>
    set({
      takes: gone.has(id) ? draft.takes.filter((other) => other !== id) : [...draft.takes, id],
    });
  const letterOf = (id: string) => pattern.edges.find((edge) => edge.id === id)?.letter ?? '?';
  const taken = new Map((verdict?.points ?? []).map((one) => [one.point.id, one] as const));
  const warnings = (verdict?.warnings ?? []).filter(
    ({ code }) => code === 'put-back-poor' || code === 'not-a-plane' || code === 'both-sides-out',
  );
  if (points.length === 0)
    return (
      <Box sx={{ maxWidth: 620, py: 3 }}>
        <Typography variant="h2" gutterBottom>
          Nothing to measure from yet
        </Typography>
        <Typography sx={{ mb: 2 }}>
          Before anything is cut, name the places that will tell where this piece belongs: bolt
          centres, holes, joints. Then tape them to each other.
        </Typography>
        <Button component={Link} to={`/jobs/${job}/references`} variant="contained">
          Go to the references
        </Button>
      </Box>
    );
  const wanted = [...taken.values()].flatMap(({ point, bestNext, good }) =>
    bestNext && !good ? [{ from: point.id, to: bestNext.to }] : [],
  );
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { lg: '1fr 330px' }, gap: 2.5 }}>
      <Box sx={{ minWidth: 0 }}>
        {warnings.map((warning, i) => (
          <Box key={i} sx={{ mb: 1.5 }}>
            <Told>{surveyWarningSaid(warning, show, letterOf)}</Told>
          </Box>
        ))}
        {verdict === null && (
          <Box sx={{ mb: 1.5 }}>
            <Told>
              How well these could be put back took too long to reckon. Look at the tapes: one of
              them may be far out.
            </Told>
          </Box>
        )}
        <PictureFrame low>
          {verdict?.network ? (
            <NetworkPicture
              found={verdict.network}
              view={view}
              picked={null}
              onPick={(id) => id && toggle(id)}
              taken={taken}
              wanted={wanted}
            />
          ) : (
            <Box
              sx={{
                height: '100%',
                display: 'grid',
                placeItems: 'center',
                p: 3,
                textAlign: 'center',
                color: 'var(--ink)',
              }}
            >
              {draft.takes.length === 0
                ? 'Touch the references that are gone once this piece is cut out. Those that stay have to tell where they were.'
                : 'No tapes have been read between these points: read a round first.'}
            </Box>
          )}
        </PictureFrame>
        <Moved taken={gone} />
        <Box sx={{ display: 'flex', gap: 1.5, mt: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={draft.space ? 3 : 2}
            onChange={(_, next: number | null) => next && set({ space: next === 3 })}
            aria-label="In the plane or in space"
          >
            <ToggleButton value={2}>Plane</ToggleButton>
            <ToggleButton value={3}>Space</ToggleButton>
          </ToggleButtonGroup>
          <Box sx={{ flex: 1, minWidth: 200, color: 'var(--pencil)', fontSize: '0.92rem' }}>
            {verdict?.network &&
              'Rings with a cut are taken away; their ellipses are drawn 20 times as large as they are. '}
            {draft.cutOut
              ? 'Only what was read before it was cut out counts.'
              : 'What is read until it is cut out counts.'}
          </Box>
          <Button
            component={Link}
            to={`/jobs/${job}/references`}
            color="inherit"
            variant="outlined"
          >
            Read a round
          </Button>
        </Box>
      </Box>
      <Box
        component="section"
        aria-label="References"
        sx={{ display: 'grid', gap: 1, alignContent: 'start' }}
      >
        <LengthField
          label="Each has to be put back to ±"
          mm={draft.toleranceMm}
          min={0.05}
          max={100}
          onChange={(mm) => mm !== null && set({ toleranceMm: mm })}
        />
        <Typography variant="h3" sx={{ mt: 0.5 }}>
          Gone when it is cut out
        </Typography>
        {points
          .filter(({ id }) => gone.has(id))
          .map((point) => (
            <Gone
              key={point.id}
              name={point.name}
              one={taken.get(point.id) ?? null}
              space={draft.space}
              onStay={() => toggle(point.id)}
            />
          ))}
        {draft.takes.length === 0 && (
          <Typography sx={{ color: 'var(--pencil)' }}>None of them.</Typography>
        )}
        <Typography variant="h3" sx={{ mt: 1 }}>
          Staying
        </Typography>
        <Box sx={{ display: 'grid', gap: 0.5 }}>
          {points
            .filter(({ id }) => !gone.has(id))
            .map(({ id, name }) => (
              <Box
                key={id}
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  borderBottom: '1px solid var(--rule)',
                }}
              >
                <Box sx={{ flex: 1 }}>{name}</Box>
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => toggle(id)}
                  aria-label={`${name} is gone when it is cut out`}
                >
                  Goes
                </Button>
              </Box>
            ))}
        </Box>
      </Box>
    </Box>
  );
}

/**
 * What moved of the measures to references that go: what they are put back by is no longer what it
 * was.
 */
function Moved({ taken }: { taken: ReadonlySet<string> }) {
  const { measures, rounds } = useSurvey();
  const { show } = usePreferences();
  const mine = measures.filter(({ from, to }) => taken.has(from ?? '') || taken.has(to ?? ''));
  const moved = movedSoFar(mine, rounds);
  if (moved.length === 0) return null;
  return (
    <Box component="ul" aria-label="What moved" sx={{ m: 0, mt: 1, pl: 2.5 }}>
      {moved.map((change) => (
        <li key={change.measure.id}>{movedSentence(change, show)}</li>
      ))}
    </Box>
  );
}

/** One reference that goes: how well it could be put back, and what would help. */
function Gone({
  name,
  one,
  space,
  onStay,
}: {
  name: string;
  one: RemovedPoint | null;
  space: boolean;
  onStay: () => void;
}) {
  const { points, measures, add, post } = useSurvey();
  const { show } = usePreferences();
  const nameOf = (id: string) => points.find((point) => point.id === id)?.name ?? id;
  const next = one?.bestNext ?? null;
  const known =
    next &&
    measures.find(
      ({ of, from, to }) =>
        of === 'distance' && [from, to].includes(one!.point.id) && [from, to].includes(next.to),
    );
  return (
    <Box
      sx={{
        p: 1.2,
        bgcolor: one && !one.good ? 'var(--torch-ground)' : 'var(--chalk)',
        borderLeft: `5px solid ${one && !one.good ? 'var(--torch)' : 'var(--good)'}`,
      }}
    >
      <Box sx={{ display: 'flex', gap: 1 }}>
        <b style={{ flex: 1 }}>{name}</b>
        <span className="figure" style={{ fontSize: '1.15rem' }}>
          {one === null ? '…' : one.uMm === null ? 'cannot be' : `± ${show(one.uMm)}`}
        </span>
      </Box>
      {one && !one.good && (
        <Box sx={{ fontSize: '0.95rem', mt: 0.5 }}>
          {next ? (
            <>
              Best next: tape it to <b>{nameOf(next.to)}</b>, then it is{' '}
              <span className="figure" style={{ whiteSpace: 'nowrap' }}>
                ± {show(next.uMm)}
              </span>
              .
            </>
          ) : one.uMm === null ? (
            `Tape it to ${space ? 'three' : 'two'} points that stay, as square to each other as can be.`
          ) : (
            'No one further tape helps: read those there are again, with something better than a tape.'
          )}
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {one && !one.good && next && !known && (
          <Button
            size="small"
            variant="contained"
            disabled={post.state === 'busy'}
            onClick={() =>
              void add({
                kind: 'measure',
                of: 'distance',
                name: cut(`${name} to ${nameOf(next.to)}`, 60),
                from: one.point.id,
                to: next.to,
                where: '',
                u: USUAL_U.distance,
                tolerance: null,
                partner: null,
                putAway: false,
              })
            }
          >
            Put it on the list
          </Button>
        )}
        {one && !one.good && next && known && (
          <Box sx={{ fontSize: '0.92rem', alignSelf: 'center' }}>
            It is on the list: read it in a round.
          </Box>
        )}
        <Button size="small" color="inherit" onClick={onStay} sx={{ ml: -1 }}>
          It stays after all
        </Button>
      </Box>
    </Box>
  );
}
