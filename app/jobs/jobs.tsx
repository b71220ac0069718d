import { randomUUID } from 'node:crypto';
import Add from '@mui/icons-material/Add';
import Search from '@mui/icons-material/Search';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Form, Link, data, redirect, useNavigation, useSubmit, useFetcher } from 'react-router';
import { storable } from '#core/card/text';
import { JobFactsSchema } from '#core/format/job';
import { useWho } from '../frame/recordedBy';
import { Pages, pageAsked } from '../frame/Pages';
import { Told } from '../frame/Told';
import { QuarrelsElsewhere } from '../piece/Quarrels';
import { pieceSummaries } from '../piece/loaded/pieceSummary.server';
import { lastBackup } from '../records/backups.server';
import { archiveJob, createJob, listJobs } from '../records/jobs.server';
import { once } from '../records/once.server';
import { formOf, idOr404, keyOf, sentence } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/jobs';
import { JobForm, NEW_JOB } from './JobForm';
import { JobRow } from './JobRow';
import { TakeIn } from './TakeIn';

/** As many jobs as one page of the list shows. */
const MAX_JOBS = 20;
/** As many pieces as lie side by side under a job's name. */
const MAX_PIECES = 8;

export async function loader({ request, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const query = new URL(request.url).searchParams;
  const sought = query.get('search')?.trim() ?? '';
  const search = storable(sought) ? sought.slice(0, 200) : '';
  const archived = query.has('archived');
  const asked = pageAsked(query, MAX_JOBS);
  const { jobs, all } = await listJobs(viewer, search, archived, { ...asked, first: MAX_PIECES });
  const summaries = await pieceSummaries(
    viewer,
    jobs.flatMap((job) => job.first),
  );
  return {
    search,
    archived,
    all,
    page: asked.page,
    key: randomUUID(),
    notBackedUp: (await lastBackup())?.late === true,
    jobs: jobs.map(({ id, name, vehicle, owner, created, pieces, first }) => ({
      id,
      name,
      vehicle,
      owner,
      created: created.toISOString(),
      pieces,
      silhouettes: first
        .map((piece) => summaries.get(piece.id)?.silhouette ?? null)
        .filter((silhouette) => silhouette !== null),
    })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const form = await formOf(request);
  const intent = form.get('intent');
  if (intent === 'restore') {
    await archiveJob(viewer, idOr404(String(form.get('id'))), false);
    return null;
  }
  const parsed = JobFactsSchema.safeParse(Object.fromEntries(form));
  if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
  const id = await once(viewer, keyOf(form), (tx) => createJob(viewer, parsed.data, tx));
  return redirect(`/jobs/${id}`);
}

export default function Jobs({ loaderData, actionData }: Route.ComponentProps) {
  const { jobs, search, archived, all, page } = loaderData;
  const looks = useWho()?.role === 'looks';
  const [adding, setAdding] = useState(false);
  const submit = useSubmit();
  const message = actionData && 'message' in actionData ? actionData.message : undefined;
  const busy = useNavigation().state !== 'idle';
  return (
    <>
      <Stack
        direction={{ xs: 'column', sm: 'row' }}
        spacing={1.5}
        sx={{ alignItems: { sm: 'center' }, mb: 2.5 }}
      >
        <Typography variant="h1" sx={{ flex: 1 }}>
          {archived ? 'Jobs put away' : 'Jobs on the floor'}
        </Typography>
        <Form
          role="search"
          onChange={(event) => void submit(event.currentTarget, { replace: true })}
        >
          {archived && <input type="hidden" name="archived" value="" />}
          <TextField
            name="search"
            placeholder="Search jobs, vehicles, owners"
            defaultValue={search}
            sx={{ minWidth: 270 }}
            slotProps={{
              input: { startAdornment: <Search sx={{ mr: 1, color: 'var(--pencil)' }} /> },
              htmlInput: { 'aria-label': 'Search the jobs' },
            }}
          />
        </Form>
        {!looks && (
          <Button
            variant="contained"
            startIcon={<Add />}
            onClick={() => setAdding(!adding)}
            sx={{ flexShrink: 0 }}
          >
            New job
          </Button>
        )}
      </Stack>
      {(adding || message) && (
        <Box
          component="section"
          aria-label="New job"
          sx={{ p: 2.5, mb: 2.5, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
        >
          <JobForm
            initial={NEW_JOB}
            intent="create"
            button="Begin the job"
            message={message}
            sentAs={loaderData.key}
          >
            <Button color="inherit" onClick={() => setAdding(false)}>
              Not now
            </Button>
          </JobForm>
        </Box>
      )}
      <QuarrelsElsewhere />
      {loaderData.notBackedUp && !looks && (
        <Box sx={{ mb: 2 }}>
          <Told>
            For more than two days nothing has been backed up.{' '}
            <Link to="/shop">See what the shop page says of it.</Link>
          </Told>
        </Box>
      )}
      {jobs.length === 0 && (
        <Typography sx={{ py: 5 }}>
          {search
            ? `Nothing has “${search}” in it.`
            : archived
              ? 'No job is put away.'
              : 'A job is one vehicle. Begin one with “New job”, then give it its first piece.'}
        </Typography>
      )}
      <ul className="job-list" data-busy={busy || undefined}>
        {jobs.map((job) => (
          <li key={job.id}>
            <JobRow job={job} />
            {archived && <TakeOut job={job.id} />}
          </li>
        ))}
      </ul>
      <Pages page={page} most={MAX_JOBS} all={all} of="jobs" />
      <Stack direction="row" spacing={1} useFlexGap sx={{ mt: 3, flexWrap: 'wrap' }}>
        <Button component={Link} to={archived ? '/' : '/?archived'} color="inherit">
          {archived ? 'Jobs on the floor' : 'Jobs put away'}
        </Button>
        {!looks && <TakeIn />}
      </Stack>
    </>
  );
}

/** Not a navigation: whoever touches a link next takes nothing of it back. */
function TakeOut({ job }: { job: string }) {
  const fetcher = useFetcher();
  return (
    <fetcher.Form method="post">
      <input type="hidden" name="intent" value="restore" />
      <input type="hidden" name="id" value={job} />
      <Button type="submit" variant="outlined">
        Take out again
      </Button>
    </fetcher.Form>
  );
}
