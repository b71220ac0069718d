import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { Link, data } from 'react-router';
import { byLetter, edgeLength, outlineOf } from '#core/card/outline';
import type { Edge } from '#core/card/pattern';
import { isOfEdge } from '#core/card/recordPlace';
import { box } from '#core/measure/path';
import { seamsOf } from '#core/weld/seams';
import { isJoined } from '#core/weld/start';
import { Drawing } from '../drawing/Drawing';
import { Tally } from '../frame/Tally';
import type { TallyFigure } from '../frame/Tally';
import { formatDay } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { WORK_WORDS } from '../frame/recordWords';
import { JOINT_WORDS, PROCESS_WORDS, listed } from '../frame/words';
import { EdgeStory } from '../piece/EdgeStory';
import { WeldPicture } from '../piece/WeldPicture';
import { usePick, usePiece } from '../piece/pieceContext';
import { useAllRecords } from '../piece/useAllRecords';
import { unlessAway } from '../frame/whileAway';
import { jobById } from '../records/jobs.server';
import { idOr404 } from '../records/parse.server';
import { pieceSurveyOf } from '../records/pieceSurvey.server';
import { pieceById } from '../records/pieces.server';
import { surveyOf } from '../records/survey.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/record';
import { EventLine } from './EventLine';
import { byDay, durationSaid, secondsWorked, storyOf } from './story';

/** What stands over it on paper: whose it is, and what it mends. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const piece = await pieceById(viewer, idOr404(params.pieceId));
  if (!piece) throw data(null, { status: 404 });
  const [job, survey] = await Promise.all([
    jobById(viewer, piece.job),
    surveyOf(viewer, piece.job),
  ]);
  const { mends } = pieceSurveyOf(piece);
  return {
    job: job && { name: job.name, vehicle: job.vehicle, owner: job.owner },
    findings: survey.flatMap((one) =>
      one.kind === 'finding' && mends.includes(one.id)
        ? [one.where === '' ? one.name : `${one.name}, ${one.where}`]
        : [],
    ),
  };
}

/** Null while the server does not answer: the record itself is the piece's and stands. */
export async function clientLoader({ serverLoader }: Route.ClientLoaderArgs) {
  return unlessAway(serverLoader);
}

/**
 * What was done to a piece, day by day: the owner's proof and the shop's memory. Nothing here is to
 * be filled in.
 */
export default function RecordPage({ loaderData }: Route.ComponentProps) {
  const piece = usePiece();
  const { joined, meets, facts, metal, fits, shaping } = piece;
  const { pattern, plan } = joined;
  const { welds, inspections } = useAllRecords();
  const { pick, setPick } = usePick();
  const { show, showThin, dates } = usePreferences();
  const days = useMemo(() => byDay(storyOf(piece), (at) => formatDay(at, dates)), [piece, dates]);
  const seams = useMemo(
    () => seamsOf(pattern, plan, facts.thicknessMm, welds),
    [pattern, plan, facts.thicknessMm, welds],
  );
  const edge = pick?.kind === 'edge' ? pattern.edges.find(({ id }) => id === pick.id) : undefined;
  const seamed = byLetter(pattern.edges).filter(({ joint }) => isJoined(joint));
  const welded = seamed.filter((one) => doneOn(one) !== '');
  const standing = inspections.filter(({ withdrawn }) => !withdrawn);
  const open = standing.filter(({ sound, remedy }) => !sound && remedy.trim() === '');
  const worked = secondsWorked(shaping.work);
  const tally: TallyFigure[] = [
    { label: 'Trial fits', value: String(fits.length) },
    { label: 'Edges with welds', value: `${welded.length} of ${seamed.length}` },
    { label: 'Looked at', value: standing.length === 1 ? 'once' : `${standing.length} times` },
    { label: 'Still to put right', value: String(open.length), alert: open.length > 0 },
    ...(worked === null ? [] : [{ label: 'Shaping, by the watch', value: durationSaid(worked) }]),
  ];
  const findings = loaderData?.findings ?? [];
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <PaperHead job={loaderData?.job ?? null} shop={piece.shop.name} />
      <Box
        sx={{
          flex: 1,
          minHeight: 0,
          overflowY: { md: 'auto' },
          display: 'grid',
          gridTemplateColumns: { md: 'minmax(0, 5fr) minmax(0, 6fr)' },
          alignItems: 'start',
          '@media print': { display: 'block', overflow: 'visible' },
        }}
      >
        <Box
          sx={{
            position: { md: 'sticky' },
            top: 0,
            p: 2,
            display: 'grid',
            gap: 2,
            '@media print': { position: 'static' },
          }}
        >
          {pattern.sides.length > 0 ? (
            <Box
              sx={{
                height: { xs: 260, md: 330 },
                border: '1.5px solid var(--rule)',
                position: 'relative',
              }}
            >
              <Drawing
                bounds={box(outlineOf(pattern).path)}
                ground="fit"
                label="The piece and its welds"
                onGround={() => setPick(null)}
              >
                <WeldPicture seams={seams} pick={pick} onPick={setPick} />
              </Drawing>
            </Box>
          ) : (
            <Typography>There is no card yet, so nothing can be drawn.</Typography>
          )}
          <Box
            component="dl"
            aria-label="What it is"
            sx={{
              m: 0,
              display: 'grid',
              gridTemplateColumns: '92px 1fr',
              gap: 0.6,
              fontSize: '1.02rem',
            }}
          >
            <Fact name="Part" value={facts.part} />
            <Fact name="Mends" value={findings.join('; ')} />
            <Fact
              name="Metal"
              value={`${metal.name}, ${showThin(facts.thicknessMm)}${facts.structural ? '; structural' : ''}`}
            />
            <Fact
              name="Folds"
              value={pattern.folds.length > 0 ? String(pattern.folds.length) : ''}
            />
            <Fact name="Noted" value={facts.notes} />
          </Box>
          {edge ? (
            <Box>
              <Typography variant="h2" gutterBottom>
                Edge {edge.letter}
              </Typography>
              <EdgeStory edgeId={edge.id} still />
            </Box>
          ) : (
            seamed.length > 0 && (
              <Box
                component="ul"
                aria-label="Joined edges"
                sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.6 }}
              >
                {seamed.map((one) => (
                  <Box
                    key={one.id}
                    component="li"
                    sx={{
                      display: 'grid',
                      gridTemplateColumns: '34px 1fr auto',
                      gap: 1,
                      alignItems: 'baseline',
                      borderBottom: '1px solid var(--rule)',
                      pb: 0.4,
                    }}
                  >
                    <b className="condensed" style={{ fontSize: '1.15rem' }}>
                      {one.letter}
                    </b>
                    <span>
                      {JOINT_WORDS[one.joint.kind]}
                      {meets(one.id) && ` to ${meets(one.id)}`},{' '}
                      <span className="figure">{show(edgeLength(pattern, one))}</span>
                    </span>
                    <Box component="span" sx={{ color: doneOn(one) ? 'inherit' : 'var(--pencil)' }}>
                      {doneOn(one) || 'not welded'}
                    </Box>
                  </Box>
                ))}
              </Box>
            )
          )}
        </Box>
        <Box component="section" aria-label="What was done" sx={{ p: 2, pl: { md: 1 } }}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 1.5 }}>
            <Typography variant="h2" sx={{ flex: 1 }}>
              What was done
            </Typography>
            <Button
              color="inherit"
              onClick={() => window.print()}
              sx={{ '@media print': { display: 'none' } }}
            >
              Print it
            </Button>
            <Button
              component={Link}
              color="inherit"
              to={`/jobs/${piece.job}`}
              sx={{ '@media print': { display: 'none' } }}
            >
              To the job
            </Button>
          </Box>
          {days.length === 0 && (
            <Typography>
              Nothing is written down yet. Trials, welds, what was looked at and pictures come here
              by themselves.
            </Typography>
          )}
          {days.map(({ day, events }) => (
            <Box key={day} component="section" aria-label={day} sx={{ mb: 2.5 }}>
              <Box
                className="condensed"
                sx={{
                  fontSize: '1.2rem',
                  fontWeight: 600,
                  borderBottom: '2px solid var(--ink)',
                  mb: 0.8,
                }}
              >
                {day}
              </Box>
              <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1.1 }}>
                {events.map((event, i) => (
                  <EventLine key={i} event={event} />
                ))}
              </Box>
            </Box>
          ))}
        </Box>
      </Box>
      <Tally figures={tally} />
    </Box>
  );

  /** How an edge was welded, as its entries that stand say; empty where nothing was. */
  function doneOn(edge: Edge): string {
    const entries = welds.filter((weld) => !weld.withdrawn && isOfEdge(pattern, weld.edge, edge));
    const ways = new Set(entries.map((weld) => PROCESS_WORDS[weld.process]));
    return [...ways]
      .map(
        (way) =>
          `${way}: ${listed([...new Set(entries.filter((weld) => PROCESS_WORDS[weld.process] === way).map((weld) => WORK_WORDS[weld.work].toLowerCase()))])}`,
      )
      .join('; ');
  }
}

/** On paper only: the job, its vehicle and owner, and who did it. */
function PaperHead({
  job,
  shop,
}: {
  job: { name: string; vehicle: string; owner: string } | null;
  shop: string;
}) {
  const said = [job?.vehicle, job?.owner, shop].filter((text) => text?.trim());
  return (
    <Box sx={{ display: 'none', '@media print': { display: 'block' }, px: 2, pt: 1.5 }}>
      <Typography variant="h2">{job?.name}</Typography>
      <Typography>{said.join(' · ')}</Typography>
    </Box>
  );
}

function Fact({ name, value }: { name: string; value: string }) {
  if (value.trim() === '') return null;
  return (
    <>
      <Box component="dt" className="condensed" sx={{ color: 'var(--pencil)', fontWeight: 600 }}>
        {name}
      </Box>
      <Box component="dd" sx={{ m: 0 }}>
        {value}
      </Box>
    </>
  );
}
