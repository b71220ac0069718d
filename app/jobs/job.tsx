import { randomUUID } from 'node:crypto';
import Add from '@mui/icons-material/Add';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Form, Link, data, redirect } from 'react-router';
import type { JobFacts } from '#core/format/job';
import { JobFactsSchema } from '#core/format/job';
import { movedSoFar } from '#core/survey/moved';
import { inHand, roundsOf } from '#core/survey/inHand';
import { metalById } from '#core/metal/metals';
import { useWho } from '../frame/recordedBy';
import { QuarrelsElsewhere } from '../piece/Quarrels';
import { JobLine } from '../frame/JobLine';
import { Moment } from '../frame/Moment';
import { Pages, pageAsked } from '../frame/Pages';
import { Pictures } from '../pictures/Pictures';
import { useNewer } from '../frame/useNewer';
import { NOTHING_KNOWN } from '../piece/loaded/summary';
import { pieceSummaries } from '../piece/loaded/pieceSummary.server';
import { answerOf, changedOf } from '../records/changed.server';
import { archiveJob, changeJob, jobById } from '../records/jobs.server';
import { once } from '../records/once.server';
import { formOf, idOr404, keyOf, sentence } from '../records/parse.server';
import { archivePiece, duplicatePiece, piecesOfJob } from '../records/pieces.server';
import type { Picture } from '../records/pictures.server';
import { picturesOf } from '../records/pictures.server';
import { surveyOf } from '../records/survey.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/job';
import { JobMoved } from './JobMoved';
import { JobForm } from './JobForm';
import { PieceItem } from './PieceItem';

/** As many pieces as one page of the list shows. */
const MAX_SHOWN = 40;

export async function loader({ params, request, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const wanted = idOr404(params.jobId);
  const query = new URL(request.url).searchParams;
  const archived = query.has('archived');
  const asked = pageAsked(query, MAX_SHOWN);
  const [job, { pieces, all }, survey, pictures] = await Promise.all([
    jobById(viewer, wanted),
    piecesOfJob(viewer, wanted, archived, asked),
    surveyOf(viewer, wanted),
    picturesOf(viewer, { job: wanted, piece: null }),
  ]);
  if (!job) throw data(null, { status: 404 });
  const summaries = await pieceSummaries(viewer, pieces);
  const rows = pieces.map(
    ({ id, name, kind, part, metal, thicknessMm, structural, cameAs, fromName }) => ({
      kind,
      id,
      name,
      part,
      metal: metalById(metal).name,
      thicknessMm,
      structural,
      from: fromName === null ? null : { name: fromName, as: cameAs },
      ...(summaries.get(id) ?? NOTHING_KNOWN),
    }),
  );
  const { id, name, vehicle, owner, notes } = job;
  const { imported } = job;
  // What moved most first.
  const moved = movedSoFar(inHand(survey, 'measure'), roundsOf(survey)).sort(
    (a, b) => Math.abs(b.by) / b.measure.u - Math.abs(a.by) / a.measure.u,
  );
  return {
    job: { id, name, vehicle, owner, notes, imported, archived: job.archived !== null },
    archived,
    rows,
    all,
    page: asked.page,
    key: randomUUID(),
    pictures,
    moved: { all: moved.length, first: moved.slice(0, MAX_MOVED) },
  };
}

/** As much of what moved as is told on the job itself. */
const MAX_MOVED = 2;

/** What the facts of a job are called, where two pages differ about one. */
const JOB_WORDS = { name: 'Name', vehicle: 'Vehicle', owner: 'Owner', notes: 'Notes' };

/** The job as it stood when the form was opened. */
function parsedSince(form: FormData): unknown {
  try {
    return JSON.parse(String(form.get('since')));
  } catch {
    return null;
  }
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.jobId);
  const form = await formOf(request);
  const piece = () => idOr404(String(form.get('piece')));
  switch (form.get('intent')) {
    case 'change': {
      const parsed = changedOf(JobFactsSchema).safeParse({
        mine: Object.fromEntries(form),
        since: parsedSince(form),
      });
      if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
      const { since, mine } = parsed.data;
      const changed = await changeJob(viewer, id, since, mine);
      if (!changed) throw data(null, { status: 404 });
      if (changed.kind === 'saved') return redirect(`/jobs/${id}`);
      return answerOf(changed, JOB_WORDS, (_, value) => String(value));
    }
    case 'archive':
      await archiveJob(viewer, id, true);
      return redirect('/');
    case 'restore':
      await archiveJob(viewer, id, false);
      return redirect(`/jobs/${id}`);
    case 'duplicate':
      await once(viewer, keyOf(form), (tx) => duplicatePiece(viewer, piece(), tx));
      return null;
    case 'archive-piece':
      await archivePiece(viewer, piece(), true);
      return null;
    case 'restore-piece':
      await archivePiece(viewer, piece(), false);
      return null;
    default:
      throw data(null, { status: 400 });
  }
}

export const meta = ({ loaderData }: Route.MetaArgs) => [
  { title: `${loaderData?.job.name ?? 'Job'} · Patrone` },
];

export default function JobPage({ loaderData, actionData }: Route.ComponentProps) {
  const { job, rows, archived, all, page, key } = loaderData;
  const looks = useWho()?.role === 'looks';
  const [changing, setChanging] = useState(false);
  const told = actionData && 'message' in actionData ? actionData : null;
  return (
    <>
      <Stack
        direction={{ xs: 'column', sm: 'row' }}
        spacing={1.5}
        sx={{ alignItems: { sm: 'flex-start' }, mb: 2.5 }}
      >
        <Box sx={{ flex: 1 }}>
          <Typography variant="h1">{job.name}</Typography>
          <Typography sx={{ color: 'var(--pencil)' }}>
            {[job.vehicle, job.owner].filter(Boolean).join(' · ')}
          </Typography>
          {job.notes && <Typography sx={{ mt: 0.5, maxWidth: 720 }}>{job.notes}</Typography>}
          {job.imported && (
            <Typography variant="body2" sx={{ mt: 0.5, color: 'var(--pencil)' }}>
              Came in from {job.imported.from} on <Moment at={job.imported.at} />
            </Typography>
          )}
        </Box>
        {!looks && (
          <Button
            variant="contained"
            component={Link}
            to={`/jobs/${job.id}/new-piece`}
            startIcon={<Add />}
          >
            New piece
          </Button>
        )}
      </Stack>
      <QuarrelsElsewhere />
      <JobLine job={job.id} />
      <JobMoved job={job.id} changes={loaderData.moved.first} all={loaderData.moved.all} />
      {changing && (
        <Box
          component="section"
          aria-label="The job"
          sx={{ p: 2.5, mb: 2.5, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
        >
          <JobForm
            key={JSON.stringify(job)}
            initial={job}
            intent="change"
            button="Keep"
            message={told?.message}
            since={told && 'now' in told ? (told.now as JobFacts) : job}
          >
            <Button color="inherit" onClick={() => setChanging(false)}>
              Not now
            </Button>
          </JobForm>
        </Box>
      )}
      {rows.length === 0 && (
        <Typography sx={{ py: 5 }}>
          {archived
            ? 'No piece of this job is put away.'
            : looks
              ? 'No piece of this job has been begun.'
              : 'A piece is one bit of repair metal. Begin with “New piece”: its name and what it is made of, then its card.'}
        </Typography>
      )}
      <Box
        component="ul"
        aria-label="Pieces"
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gridTemplateColumns: { md: '1fr 1fr' },
          gap: 2,
        }}
      >
        {rows.map((row) => (
          <PieceItem key={row.id} row={row} archived={archived} sentAs={`${key} ${row.id}`} />
        ))}
      </Box>
      <JobPictures job={job.id} loaded={loaderData.pictures} />
      <Pages page={page} most={MAX_SHOWN} all={all} of="pieces" />
      <Stack direction="row" spacing={1} useFlexGap sx={{ mt: 3, flexWrap: 'wrap' }}>
        {!looks && (
          <Button color="inherit" onClick={() => setChanging(!changing)}>
            Rename or change the job
          </Button>
        )}
        <Button color="inherit" href={`/jobs/${job.id}/file`} download>
          Job as a file
        </Button>
        <Button color="inherit" href={`/jobs/${job.id}/file?plain`} download>
          Its text alone (JSON)
        </Button>
        <Button
          component={Link}
          color="inherit"
          to={archived ? `/jobs/${job.id}` : `/jobs/${job.id}?archived`}
        >
          {archived ? 'Pieces in hand' : 'Pieces put away'}
        </Button>
        {!looks && (
          <Form method="post">
            <input type="hidden" name="intent" value={job.archived ? 'restore' : 'archive'} />
            <Button type="submit" color="inherit">
              {job.archived ? 'Take the job out again' : 'Put the job away'}
            </Button>
          </Form>
        )}
      </Stack>
    </>
  );
}

function JobPictures({ job, loaded }: { job: string; loaded: Picture[] }) {
  const [pictures, took] = useNewer(loaded);
  const on = useMemo(() => ({ job, piece: null, owner: 'job' as const, of: '' }), [job]);
  return (
    <Box sx={{ mt: 4 }}>
      <Pictures on={on} all={pictures} took={took} title="Pictures of the job" />
    </Box>
  );
}
