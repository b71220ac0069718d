import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { RouterContextProvider } from 'react-router';
import type { PieceFacts } from '#core/format/job';
import { asking, pool } from './database.server';
import { createJob } from './jobs.server';
import { createPiece } from './pieces.server';
import { Viewer, viewerIn } from './viewer.server';

/** For tests: the database of this worker, brought up to date, empty before each and let go after all. */
export function onEmptyDatabase(): void {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  let tables = '';
  jest.setTimeout(60_000);
  beforeAll(async () => {
    await client.connect();
    await migrate(drizzle(client), { migrationsFolder: 'app/records/migrations' });
    const { rows } = await client.query<{ all: string }>(
      `select string_agg(format('%I', tablename), ', ') as all from pg_tables where schemaname = 'public'`,
    );
    tables = rows[0]!.all;
  });
  beforeEach(() => client.query(`truncate ${tables} cascade`));
  afterAll(() => Promise.all([client.end(), pool.end(), asking.end()]));
}

export const FACTS: PieceFacts = {
  ...{ name: 'Corner', kind: 'made', part: '', side: 'left', metal: 'dc04' },
  ...{ thicknessMm: 1, thickness: { by: 'mm' }, structural: false, notes: '' },
};

/** A job, and a piece in it. */
export async function newPiece(): Promise<{ job: string; piece: string }> {
  const facts = { name: 'Van', vehicle: '', owner: '', notes: '' };
  const job = await createJob(Viewer.shop, facts);
  return { job, piece: await createPiece(Viewer.shop, job, FACTS) };
}

/** Posts a body as JSON to an action of a route; its answer, a response that it throws as well. */
export async function posted<Answer>(
  action: (given: never) => Promise<unknown>,
  params: Record<string, string>,
  body: unknown,
  viewer = Viewer.shop,
): Promise<{ status: number; answer: Answer }> {
  const context = new RouterContextProvider();
  context.set(viewerIn, viewer);
  const request = new Request('http://127.0.0.1/', { method: 'POST', body: JSON.stringify(body) });
  const response = await action({ request, params, context } as never).catch((thrown: unknown) => {
    if (thrown instanceof Response) return thrown;
    if (typeof thrown === 'object' && thrown && 'init' in thrown) return thrown;
    throw thrown;
  });
  if (response instanceof Response)
    return { status: response.status, answer: (await response.json()) as Answer };
  const { data, init } = response as { data: Answer; init: { status?: number } | null };
  return { status: init?.status ?? 200, answer: data };
}
