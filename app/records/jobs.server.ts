import type { Placeholder, SQL } from 'drizzle-orm';
import { and, desc, eq, ilike, inArray, isNotNull, isNull, or, sql } from 'drizzle-orm';
import type { JobFacts } from '#core/format/job';
import { mergedRecord } from '#core/format/merge';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import { dbOf, standing } from './database.server';
import type { Db, Tx } from './database.server';
import type { Remembered, Window } from './pieces.server';
import { jobs, pieces, summaries } from './schema.server';
import type { Viewer } from './viewer.server';

export type Job = typeof jobs.$inferSelect;
export type JobRow = Job & {
  /** How many pieces are in hand. */
  pieces: number;
  /**
   * The first of them, in the order they were begun, with what is remembered of each and is still
   * good.
   */
  first: { id: string; remembered: Remembered }[];
};

type Bound = number | Placeholder;

/** A page of those jobs, newest first, with what is given along of their first pieces. */
function pageOf(db: Db, wanted: SQL | undefined, skip: Bound, most: Bound, first: Bound) {
  const inHand = db.$count(pieces, and(eq(pieces.job, jobs.id), isNull(pieces.archived)));
  // The table is named with its column here: a column alone would be taken for one of the pieces.
  // As one value of each job: rows of their own would take longer to unpack than to find.
  const firstOf = sql<JobRow['first'] | null>`(
    select json_agg(json_build_object('id', id, 'remembered', remembered) order by seq) from (
      select p.id, p.seq, case when s.piece is not null
        then json_build_object('madeBy', s.made_by, 'summary', json_build_object('silhouette', s.summary -> 'silhouette'))
        end as remembered
      from ${pieces} p left join ${summaries} s on s.piece = p.id and s.of = p.touched
      where p.job = ${jobs}.id and p.archived is null order by p.seq limit ${first}
    ) as firsts)`;
  return db
    .select({ job: jobs, pieces: inHand, first: firstOf, all: sql<string>`count(*) over ()` })
    .from(jobs)
    .where(wanted)
    .orderBy(desc(jobs.created), desc(jobs.seq))
    .offset(skip)
    .limit(most);
}
const { placeholder } = sql;
const all = (archived: boolean) => (archived ? isNotNull(jobs.archived) : isNull(jobs.archived));
const standingPage = (archived: boolean) =>
  standing((db) =>
    pageOf(
      db,
      all(archived),
      placeholder('skip'),
      placeholder('most'),
      placeholder('first'),
    ).prepare(archived ? 'jobs_archived' : 'jobs_in_hand'),
  );
const [inHand, putAway] = [standingPage(false), standingPage(true)];

/** A page of the jobs, newest first, those whose name, vehicle, owner or notes hold `search`; archived ones apart; `first`: of
 * as many of its pieces at most what is remembered for lists is given along. */
export async function listJobs(
  viewer: Viewer,
  search: string,
  archived: boolean,
  { skip, most, first }: Window & { first: number },
): Promise<{ jobs: JobRow[]; all: number }> {
  const like = `%${search.replace(/[\\%_]/g, '\\$&')}%`;
  const found = search
    ? or(
        ilike(jobs.name, like),
        ilike(jobs.vehicle, like),
        ilike(jobs.owner, like),
        ilike(jobs.notes, like),
      )
    : undefined;
  const seen = viewer.known?.jobs ? inArray(jobs.id, [...viewer.known.jobs]) : undefined;
  const wanted = and(all(archived), found, seen);
  const rows =
    found || seen
      ? await pageOf(dbOf(viewer), wanted, skip, most, first)
      : await (archived ? putAway : inHand)(viewer).execute({ skip, most, first });
  const count = rows[0]
    ? Number(rows[0].all)
    : skip > 0
      ? await dbOf(viewer).$count(jobs, wanted)
      : 0;
  return {
    jobs: rows.map((row) => ({ ...row.job, pieces: row.pieces, first: row.first ?? [] })),
    all: count,
  };
}

const asked = standing((db) =>
  db
    .select()
    .from(jobs)
    .where(eq(jobs.id, sql.placeholder('id')))
    .prepare('job'),
);

export async function jobById(viewer: Viewer, id: string): Promise<Job | null> {
  if (!viewer.sees(id)) return null;
  return (await asked(viewer).execute({ id }))[0] ?? null;
}

export async function createJob(
  viewer: Viewer,
  facts: JobFacts,
  tx: Tx = dbOf(viewer),
): Promise<string> {
  const [row] = await tx.insert(jobs).values(facts).returning({ id: jobs.id });
  return row!.id;
}

/** All jobs by name, for choosing among them. */
export const jobNames = (viewer: Viewer): Promise<{ id: string; name: string }[]> =>
  dbOf(viewer)
    .select({ id: jobs.id, name: jobs.name })
    .from(jobs)
    .orderBy(desc(jobs.seq))
    .limit(500);

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
