import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { eq, lt, sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { asking, dbOf, pool } from '#app/records/database.server';
import { exportJob, importWhole } from '#app/records/jobFile.server';
import { people } from '#app/records/peopleTables.server';
import { documents, jobs, pieces, requests, shop } from '#app/records/schema.server';
import { Viewer } from '#app/records/viewer.server';
import { jobFileEnd, jobFileHead, jobFilePiece } from '#core/format/job';
import { readJob } from '#core/format/readJob';
import { demoJob } from '../demo/job';
import { backupsToDrop } from './backups';
import { checkData } from './checkData';
import { putDemoPictures } from './demoPictures';

const viewer = Viewer.shop;
const db = dbOf(viewer);
const MIGRATIONS = resolve(process.cwd(), 'app/records/migrations');

/**
 * The changes of the database's form that this program knows, and the newest that has been made; 0
 * before any.
 */
async function migrations(): Promise<{ known: number[]; made: number }> {
  const journal = JSON.parse(readFileSync(resolve(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  const known = journal.entries.map((entry) => entry.when);
  const { rows } = await db.execute<{ there: boolean }>(
    sql`select to_regclass('drizzle.__drizzle_migrations') is not null as there`,
  );
  if (!rows[0]?.there) return { known, made: 0 };
  const { rows: last } = await db.execute<{ when: string | null }>(
    sql`select max(created_at) as "when" from drizzle.__drizzle_migrations`,
  );
  return { known, made: Number(last[0]?.when ?? 0) };
}

/**
 * Refuses a database that a newer program has written: this one would not understand what is in it.
 */
async function notNewer(): Promise<void> {
  const { known, made } = await migrations();
  if (made > Math.max(...known))
    throw new Error(
      'It was written by a newer Patrone than this one: bring this one up to date first.',
    );
}

/** The number under which migrations are made one at a time, whoever starts: any number of ours. */
const MIGRATION_LOCK = 417_019;

/**
 * Brings the database up to date on a connection of its own: a grown table takes longer to rewrite
 * than any page may wait, but nobody is waited for longer than usual.
 */
async function migrated(): Promise<void> {
  const client = new pg.Client({
    connectionString: process.env.DATABASE_URL,
    lock_timeout: 30_000,
  });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await migrate(drizzle(client), { migrationsFolder: MIGRATIONS });
  } finally {
    await client.end();
  }
}

/**
 * Chores of the database, called by ./patrone: `pending`, `migrate`, `check`, `backups-to-drop
 * TODAY`, `demo`, `demo --reset`, `export ID`, `import FILE`.
 */
async function main([chore, argument]: string[]): Promise<void> {
  switch (chore) {
    case 'pending': {
      const { known, made } = await migrations();
      // Plain, whatever colours a terminal asks for.
      process.stdout.write(`${known.filter((when) => when > made).length}\n`);
      return;
    }
    case 'check': {
      const wrong = await checkData(viewer);
      for (const line of wrong) console.log(line);
      const count = async (of: typeof jobs | typeof pieces | typeof documents) => db.$count(of);
      const all = `${await count(jobs)} jobs, ${await count(pieces)} pieces, ${await count(documents)} versions of documents`;
      console.log(
        wrong.length === 0
          ? `All hangs together: ${all}.`
          : `${wrong.length} things do not hang together.`,
      );
      if (wrong.length > 0) process.exitCode = 1;
      return;
    }
    case 'backups-to-drop':
      for (const file of backupsToDrop(readFileSync(0, 'utf8').split('\n'), argument ?? ''))
        console.log(file);
      return;
    case 'migrate':
      await notNewer();
      await migrated();
      await db.delete(requests).where(lt(requests.at, sql`now() - interval '7 days'`));
      return;
    case 'demo': {
      const demo = demoJob();
      // Known by when it was begun: its name can be changed, and a job of one's own may have the
      // same.
      const demos = eq(jobs.created, new Date(demo.job.created));
      if (argument === '--reset') await db.delete(jobs).where(demos);
      // Loaded once only: a user who archived or renamed the demo job does not get it back at every
      // start.
      const [{ any } = { any: false }] = (
        await db.execute<{ any: boolean }>(
          sql`select exists(select 1 from ${jobs}) or exists(select 1 from ${shop}) as any`,
        )
      ).rows;
      if (argument === '--reset' || !any)
        await putDemoPictures(viewer, await importWhole(viewer, demo));
      // The demo's people: whoever opens it on this machine is the first of them, without a pass
      // phrase.
      if (!any && (await db.$count(people)) === 0)
        await db.insert(people).values([
          { name: 'Wenna', role: 'runs' },
          { name: 'Joss', role: 'works' },
        ]);
      return;
    }
    case 'export': {
      let any = false;
      const found = await exportJob(viewer, argument ?? '', false, {
        head: async (head, pieces) => {
          any = pieces > 0;
          process.stdout.write(jobFileHead(head, any));
        },
        piece: async (piece, place) => void process.stdout.write(jobFilePiece(piece, place)),
      });
      if (!found) throw new Error(`No job ${argument}`);
      process.stdout.write(jobFileEnd(any));
      return;
    }
    case 'import': {
      const read = readJob(JSON.parse(readFileSync(argument ?? '', 'utf8')));
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      console.log(await importWhole(viewer, read.job));
      return;
    }
    default:
      throw new Error(`Unknown chore: ${chore}`);
  }
}

main(process.argv.slice(2))
  .catch((error: unknown) => {
    console.error(
      error instanceof Error
        ? error.cause instanceof Error
          ? error.cause.message
          : error.message
        : error,
    );
    process.exitCode = 1;
  })
  .finally(() => Promise.all([pool.end(), asking.end()]));
