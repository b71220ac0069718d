import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Suspense, lazy, useEffect, useMemo, useRef, useState } from 'react';
import { movedSoFar, sinceFirstRead } from '#core/survey/moved';
import type { Round } from '#core/survey/references';
import type { NetKey, Nets } from '#core/survey/roundNetwork';
import { netKeys } from '#core/survey/roundNetwork';
import { JobLine } from '../frame/JobLine';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { useNewer } from '../frame/useNewer';
import { listed } from '../frame/words';
import { Pictures } from '../pictures/Pictures';
import type { Picture } from '../records/pictures.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/references';
import type { View } from './NetworkPicture';
import { NetworkPicture, PictureFrame, networkSentence, usualView } from './NetworkPicture';
import { LeftRight } from './LeftRight';
import { Openings } from './Openings';
import { RoundReader, RoundSender } from './RoundReader';
import { RoundTable } from './RoundTable';
import {
  MeasureForm,
  NEW_MEASURE,
  NEW_POINT,
  PointForm,
  RoundForm,
  SIDE_WORDS,
} from './SurveyForms';
import { movedSentence } from '../frame/measuredWords';
import { STAGE_WORDS } from './surveyWords';
import { useNetView } from './useNetView';
import { useNets } from './useNets';
import { surveyLoaded } from './surveyLoaded.server';
import { SurveyContext, useSurvey, useSurveyOf } from './useSurvey';

// The chart's library is large.
const MovedChart = lazy(() => import('./MovedChart'));

export async function loader({ params, context }: Route.LoaderArgs) {
  const { pieces, ...loaded } = await surveyLoaded(context.get(viewerIn), params.jobId);
  // Which pieces take a point away when they are cut out, by the point's id.
  const takenBy = new Map<string, string[]>();
  for (const { name, survey: of } of pieces)
    for (const id of of.takes) takenBy.set(id, [...(takenBy.get(id) ?? []), name]);
  return { ...loaded, takenBy };
}

export const meta = ({ loaderData }: Route.MetaArgs) => [
  { title: `References · ${loaderData?.job.name ?? 'Job'} · Patrone` },
];

/**
 * The references of a whole vehicle: where its points are, what was measured round after round, and
 * what moved.
 */
export default function ReferencesPage({ loaderData }: Route.ComponentProps) {
  const survey = useSurveyOf(loaderData.job.id, loaderData.survey);
  return (
    <SurveyContext.Provider value={survey}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        {loaderData.job.name}
      </Typography>
      <JobLine job={loaderData.job.id} />
      <References pictures={loaderData.pictures} takenBy={loaderData.takenBy} />
    </SurveyContext.Provider>
  );
}

const NO_NETS: ReadonlyMap<string, Nets> = new Map();

/** What is open in the drawer: something by its kind and id, null for a new one. */
type Open = { kind: 'point' | 'measure' | 'round'; id: string | null } | null;

function References({
  pictures: loaded,
  takenBy,
}: {
  pictures: Picture[];
  takenBy: ReadonlyMap<string, string[]>;
}) {
  const [pictures, tookPictures] = useNewer(loaded);
  const { job, points, measures, rounds, post } = useSurvey();
  const { show } = usePreferences();
  const [open, setOpen] = useState<Open>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [space, setSpace] = useState(false);
  const [side, setSide] = useState<NetKey | null>(null);
  const [reading, setReading] = useState<{ round: string; measure: string | null } | null>(null);
  const round = rounds.find(({ id }) => id === chosen) ?? rounds[rounds.length - 1];
  const reckoned = useNets(space, round?.id);
  // Those that stand on the page were reckoned for what is shown, or there are none.
  const nets = reckoned.inSpace === space ? reckoned.nets : NO_NETS;
  const keys = netKeys(points, space);
  const key = keys.find((one) => one === side) ?? keys[0] ?? 'right';
  const network = round && nets.get(round.id)?.[key];
  const { view, setView } = useNetView(key);
  const moved = useMemo(() => movedSoFar(measures, rounds), [measures, rounds]);
  const most = useMemo(() => [...moved].sort((a, b) => Math.abs(b.by) - Math.abs(a.by)), [moved]);
  // What moved most is drawn, and whatever is picked, moved or not.
  const picked = open?.kind === 'measure' ? measures.find(({ id }) => id === open.id) : undefined;
  const whole = picked && sinceFirstRead(picked, rounds);
  const charted = whole ? [whole, ...most.filter(({ measure }) => measure.id !== picked.id)] : most;
  const nameOf = (id: string) => points.find((point) => point.id === id)?.name ?? id;
  const readNow = rounds.find(({ id }) => id === reading?.round);
  const turn = (by: View) => {
    const now = view ?? usualView(network!.found!);
    setView({ turns: (now.turns + by.turns) % 4, mirrored: now.mirrored !== by.mirrored });
  };
  // Of each round the tape that is most likely misread: what is said to have moved may be only
  // that.
  const misread = useMemo(
    () =>
      new Map(
        rounds.map((one) => {
          const suspects = Object.values(nets.get(one.id) ?? {}).flatMap(
            ({ found }) => found?.suspect ?? [],
          );
          const of = measures.filter(
            (m) =>
              m.of === 'distance' &&
              suspects.some(({ from, to }) => m.from === from && m.to === to),
          );
          return [one.id, of.map(({ id }) => id)] as const;
        }),
      ),
    [measures, rounds, nets],
  );
  // What is opened from far down the page is to be seen.
  const drawer = useRef<HTMLElement>(null);
  useEffect(() => {
    if (open) drawer.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  const distances = measures.filter(({ of }) => of === 'distance').length;
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 340px' }, gap: 2.5, mb: 3 }}>
        <Box sx={{ minWidth: 0 }}>
          <PictureFrame>
            {network?.found ? (
              <NetworkPicture
                view={view}
                found={network.found}
                picked={open?.kind === 'point' ? open.id : null}
                onPick={(id) => setOpen(id ? { kind: 'point', id } : null)}
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
                {round && !nets.has(round.id)
                  ? 'Reckoning …'
                  : nextStep(points.length, distances, rounds.length)}
              </Box>
            )}
          </PictureFrame>
          <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mt: 1 }}>
            <ToggleButtonGroup
              exclusive
              size="small"
              value={space ? 3 : 2}
              onChange={(_, next: number | null) => next && setSpace(next === 3)}
              aria-label="In the plane or in space"
            >
              <ToggleButton value={2}>Plane</ToggleButton>
              <ToggleButton value={3}>Space</ToggleButton>
            </ToggleButtonGroup>
            {keys.length > 1 && (
              <ToggleButtonGroup
                exclusive
                size="small"
                value={key}
                onChange={(_, next: NetKey | null) => next && setSide(next)}
                aria-label="Side of the vehicle"
              >
                {keys.map((one) => (
                  <ToggleButton key={one} value={one}>
                    {one === 'space' ? 'All' : SIDE_WORDS[one]}
                  </ToggleButton>
                ))}
              </ToggleButtonGroup>
            )}
            {network?.found && (
              <>
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => turn({ turns: 1, mirrored: false })}
                >
                  Turn
                </Button>
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => turn({ turns: 0, mirrored: true })}
                >
                  From behind
                </Button>
              </>
            )}
            <Box role="status" aria-label="What the tapes say" sx={{ flex: 1, minWidth: 220 }}>
              {reckoned.failed &&
                'What reckons the tapes stopped. Nothing is lost: load the page again. '}
              {network?.found && networkSentence(network.found, nameOf)}
              {network &&
                network.loose.length > 0 &&
                ` Not placed: ${network.loose.map(nameOf).join(', ')}. Measure from there to one or two more points.`}
              {network?.found?.points.some((point) => point.elsewhere) &&
                ' Those with a question mark could as well lie on the other side: one more tape settles it.'}
              {network?.found && (
                <span style={{ color: 'var(--pencil)' }}>
                  {' '}
                  Ellipses are drawn 20 times as large as they are.
                </span>
              )}
            </Box>
          </Box>
        </Box>
        <Box
          component="aside"
          ref={drawer}
          aria-label="Drawer"
          sx={{
            bgcolor: 'var(--panel)',
            border: '1.5px solid var(--rule)',
            p: 2,
            alignSelf: 'start',
            display: 'grid',
            gap: 2,
          }}
        >
          {post.problem && <Told>{post.problem}</Told>}
          <Drawer
            open={open}
            setOpen={setOpen}
            all={pictures}
            took={tookPictures}
            takenBy={takenBy}
          />
        </Box>
      </Box>
      {rounds
        .filter(({ id }) => id !== reading?.round)
        .map((one) => (
          <RoundSender key={one.id} round={one} />
        ))}
      {moved.length > 0 && (
        <Box component="section" aria-label="What moved" sx={{ mb: 2.5 }}>
          <Typography variant="h2" gutterBottom>
            What moved
          </Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {moved.slice(0, 8).map((change) => (
              <li key={change.measure.id}>{movedSentence(change, show, misread)}</li>
            ))}
            {moved.length > 8 && <li>and {moved.length - 8} more</li>}
          </Box>
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap', mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Measures and rounds
        </Typography>
        {measures.length > 0 && (
          <Button color="inherit" href={`/jobs/${job}/measuring-sheet.pdf`} download>
            Print a measuring sheet
          </Button>
        )}
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => setOpen({ kind: 'measure', id: null })}
        >
          New measure
        </Button>
        <Button
          variant={measures.length > 0 ? 'contained' : 'outlined'}
          color={measures.length > 0 ? 'primary' : 'inherit'}
          disabled={measures.length === 0}
          onClick={() => setOpen({ kind: 'round', id: null })}
        >
          New round
        </Button>
      </Box>
      {rounds.length > 1 && charted.length > 0 && (
        <Suspense fallback={<Box sx={{ height: 260 }} />}>
          <MovedChart changes={charted} />
        </Suspense>
      )}
      {measures.length > 0 && (
        <RoundTable
          shown={round?.id ?? null}
          onShow={setChosen}
          onRead={(id, measure) => setReading({ round: id, measure: measure ?? null })}
          onPick={(id) => setOpen({ kind: 'measure', id })}
        />
      )}
      {readNow && (
        <RoundReader
          key={readNow.id}
          round={readNow}
          start={reading!.measure}
          onClose={() => setReading(null)}
          pictures={pictures}
          tookPictures={tookPictures}
        />
      )}
      <LeftRight />
      <Openings />
    </>
  );
}

/** What to do next where there is nothing to draw yet. */
function nextStep(points: number, distances: number, rounds: number): string {
  if (points < 3)
    return 'Name the points that will still be there after the cutting: bolt centres, holes, joints. Three at the least, more than seems needed.';
  if (distances < 3) return 'Say which distances are taped between them. Diagonals tell most.';
  if (rounds === 0) return 'Begin the first round, “As found”, and read them one after the other.';
  return 'Read this round: three distances between three points at the least.';
}

function Drawer(given: {
  open: Open;
  setOpen: (open: Open) => void;
  all: Picture[];
  took: (pictures: Picture[]) => void;
  takenBy: ReadonlyMap<string, string[]>;
}) {
  const { open, setOpen, all, took, takenBy } = given;
  const { job, points, measures, rounds } = useSurvey();
  const on = useMemo(
    () => ({ job, piece: null, owner: 'survey' as const, of: open?.id ?? '' }),
    [job, open?.id],
  );
  const close = () => setOpen(null);
  if (open?.kind === 'measure') {
    const measure = measures.find(({ id }) => id === open.id);
    return (
      <MeasureForm
        key={open.id}
        id={measure ? open.id : null}
        initial={measure ?? NEW_MEASURE}
        onDone={close}
      />
    );
  }
  if (open?.kind === 'round') {
    const next = (['found', 'braced', 'cut', 'tacked', 'welded', 'other'] as const)[
      Math.min(rounds.length, 5)
    ]!;
    const fresh: Round = {
      kind: 'round',
      stage: next,
      name: STAGE_WORDS[next],
      at: new Date().toISOString(),
      readings: {},
      putAway: false,
    };
    const round = rounds.find(({ id }) => id === open.id);
    return (
      <RoundForm
        key={open.id}
        id={round ? open.id : null}
        initial={round ?? fresh}
        onDone={close}
      />
    );
  }
  if (open) {
    const point = points.find(({ id }) => id === open.id);
    return (
      <>
        <PointForm
          key={open.id}
          id={point ? open.id : null}
          initial={point ?? NEW_POINT}
          onDone={close}
        />
        {point && (
          <Pictures on={on} all={all} took={took} title={`Pictures of ${point.name}`} small />
        )}
      </>
    );
  }
  return (
    <Box component="section" aria-label="Points">
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Points
        </Typography>
        <Button
          variant={points.length < 3 ? 'contained' : 'outlined'}
          color={points.length < 3 ? 'primary' : 'inherit'}
          onClick={() => setOpen({ kind: 'point', id: null })}
        >
          New point
        </Button>
      </Box>
      {points.length === 0 && (
        <Typography sx={{ color: 'var(--pencil)' }}>None named yet.</Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {points.map((point) => (
          <li key={point.id}>
            <Button
              color="inherit"
              fullWidth
              onClick={() => setOpen({ kind: 'point', id: point.id })}
              sx={{ justifyContent: 'flex-start', textAlign: 'left', display: 'block', py: 0.8 }}
            >
              {point.name}
              <Box
                component="span"
                sx={{
                  display: 'block',
                  color: 'var(--pencil)',
                  fontSize: '0.88rem',
                  fontFamily: 'Barlow, sans-serif',
                  fontWeight: 400,
                }}
              >
                {point.where}
                {takenBy.has(point.id) && ` · goes with ${listed(takenBy.get(point.id)!)}`}
              </Box>
            </Button>
          </li>
        ))}
      </Box>
    </Box>
  );
}
