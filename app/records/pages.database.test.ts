import { sql } from 'drizzle-orm';
import { dbOf, pool } from './database.server';
import { FACTS, newPiece, onEmptyDatabase } from './emptyDatabase';
import { listJobs } from './jobs.server';
import { piecesOfJob } from './pieces.server';
import { Viewer } from './viewer.server';
import { wholePiece } from './wholePiece.server';

onEmptyDatabase();

const { shop } = Viewer;

/** What was asked of the database while something ran: text and values. */
async function asked(does: () => Promise<unknown>): Promise<[string, unknown[]][]> {
  const found: [string, unknown[]][] = [];
  const { query } = pool;
  pool.query = ((...given: unknown[]) => {
    const [what, values] = given as [string | { text: string; values?: unknown[] }, unknown[]?];
    found.push(
      typeof what === 'string' ? [what, values ?? []] : [what.text, values ?? what.values ?? []],
    );
    return (query as (...all: unknown[]) => unknown).apply(pool, given);
  }) as typeof query;
  try {
    await does();
    return found;
  } finally {
    pool.query = query;
  }
}

type Plan = { 'Shared Hit Blocks': number; 'Shared Read Blocks': number };
/** How many blocks of 8 kB a statement looks at. */
async function blocks([text, values]: [string, unknown[]]): Promise<number> {
  const { rows } = await pool.query<{ 'QUERY PLAN': { Plan: Plan }[] }>(
    `explain (analyze, buffers, format json) ${text}`,
    values,
  );
  const { Plan: plan } = rows[0]!['QUERY PLAN'][0]!;
  return plan['Shared Hit Blocks'] + plan['Shared Read Blocks'];
}

test('a page asks no more of a grown database than of a small one', async () => {
  const { piece } = await newPiece();
  const { name, thickness } = FACTS;
  // Twenty jobs of fifty pieces, each with ten versions of its card and twenty welds.
  await dbOf(shop).execute(sql`
    with job as (
      insert into jobs (name, vehicle, owner, notes)
        select 'Job ' || n, '', '', '' from generate_series(1, 20) n returning id
    ), piece as (
      insert into pieces (job, name, part, side, metal, thickness_mm, thickness, structural, notes)
        select job.id, ${name}::text, '', 'left', 'dc04', 1, ${JSON.stringify(thickness)}::jsonb,
          false, '' from job, generate_series(1, 50) returning id
    ), version as (
      insert into documents (piece, kind, number, parent, version, body)
        select piece.id, 'card', n, n - 1, 13, '{}'::jsonb from piece, generate_series(1, 10) n
    ), head as (
      insert into heads (piece, kind, number) select id, 'card', 10 from piece
    )
    insert into records (piece, kind, at, body)
      select piece.id, 'weld', now(), '{"edge": "a"}'::jsonb from piece, generate_series(1, 20)`);
  await dbOf(shop).execute(sql`analyze`);
  const jobs = await pool.query<{ id: string }>(`select id from jobs where name = 'Job 7'`);
  const job = jobs.rows[0]!.id;

  const pages: [string, () => Promise<unknown>, statements: number, blocks: number][] = [
    ['a piece', () => wholePiece(shop, piece), 1, 60],
    ['pieces of a job', () => piecesOfJob(shop, job, false, { skip: 0, most: 50 }), 1, 150],
    ['jobs', () => listJobs(shop, '', false, { skip: 0, most: 30, first: 4 }), 1, 4000],
  ];
  for (const [page, load, statements, most] of pages) {
    const found = await asked(load);
    expect([page, found.length]).toEqual([page, statements]);
    for (const statement of found) expect(await blocks(statement)).toBeLessThan(most);
  }
});
