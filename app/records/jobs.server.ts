import { and, desc, eq, getTableColumns, ilike, isNull, isNotNull, or } from 'drizzle-orm';
import type { JobFacts } from '#core/format/job';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf } from './database.server';
import type { Tx } from './database.server';
import type { Window } from './pieces.server';
import { jobs, pieces } from './schema.server';
import type { Viewer } from './viewer.server';

export type Job = typeof jobs.$inferSelect;
export type JobRow = Job & { pieces: number };

/** A page of the jobs, newest first, those whose name, vehicle, owner or notes hold `search`; archived ones apart. */
export async function listJobs(
  viewer: Viewer,
  search: string,
  archived: boolean,
  { skip, most }: Window,
): Promise<{ jobs: JobRow[]; all: number }> {
  const like = `%${search.replace(/[\\%_]/g, '\\$&')}%`;
  const found = search
    ? or(ilike(jobs.name, like), ilike(jobs.vehicle, like), ilike(jobs.owner, like), ilike(jobs.notes, like))
    : undefined;
  const wanted = and(archived ? isNotNull(jobs.archived) : isNull(jobs.archived), found);
  const inHand = dbOf(viewer).$count(pieces, and(eq(pieces.job, jobs.id), isNull(pieces.archived)));
  const [rows, all] = await Promise.all([
    dbOf(viewer)
      .select({ ...getTableColumns(jobs), pieces: inHand })
      .from(jobs)
      .where(wanted)
      .orderBy(desc(jobs.created), desc(jobs.seq))
      .offset(skip)
      .limit(most),
    dbOf(viewer).$count(jobs, wanted),
  ]);
  return { jobs: rows, all };
}

export async function jobById(viewer: Viewer, id: string): Promise<Job | null> {
  return (await dbOf(viewer).select().from(jobs).where(eq(jobs.id, id)))[0] ?? null;
}

export async function createJob(viewer: Viewer, facts: JobFacts, tx: Tx = dbOf(viewer)): Promise<string> {
  const [row] = await tx.insert(jobs).values(facts).returning({ id: jobs.id });
  return row!.id;
}

/** Changes what is said of a job since `since`; null when there is no such job. */
export const changeJob = (
  viewer: Viewer,
  id: string,
  since: JobFacts,
  mine: JobFacts,
): Promise<Changed<JobFacts> | null> =>
  dbOf(viewer).transaction(async (tx) => {
    const [row] = await tx.select().from(jobs).where(eq(jobs.id, id)).for('update');
    if (!row) return null;
    const { name, vehicle, owner, notes } = row;
    const now = { name, vehicle, owner, notes };
    return putMerged(mergedRecord(since, mine, now), now, (facts) =>
      tx.update(jobs).set(facts).where(eq(jobs.id, id)),
    );
  });

export const archiveJob = (viewer: Viewer, id: string, archived: boolean) =>
  dbOf(viewer)
    .update(jobs)
    .set({ archived: archived ? new Date() : null })
    .where(eq(jobs.id, id));
