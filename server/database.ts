import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { eq, lt, sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { asking, dbOf, pool } from '#app/records/database.server';
import { exportJob, importWhole } from '#app/records/jobFile.server';
import { jobs, requests, shop } from '#app/records/schema.server';
import { Viewer } from '#app/records/viewer.server';
import { jobFileEnd, jobFileHead, jobFilePiece } from '#core/format/job';
import { readJob } from '#core/format/readJob';
import { demoJob } from '../demo/job';

const viewer = Viewer.shop;
const db = dbOf(viewer);
const MIGRATIONS = resolve(process.cwd(), 'app/records/migrations');

/** Refuses a database that a newer program has written: this one would not understand what is in it. */
async function notNewer(): Promise<void> {
  const journal = JSON.parse(readFileSync(resolve(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  const known = Math.max(...journal.entries.map((entry) => entry.when));
  const { rows } = await db.execute<{ there: boolean }>(
    sql`select to_regclass('drizzle.__drizzle_migrations') is not null as there`,
  );
  if (!rows[0]?.there) return;
  const { rows: last } = await db.execute<{ when: string | null }>(
    sql`select max(created_at) as "when" from drizzle.__drizzle_migrations`,
  );
  if (Number(last[0]?.when ?? 0) > known)
    throw new Error('It was written by a newer Patrone than this one: bring this one up to date first.');
}

/** Chores of the database, called by ./patrone: `migrate`, `demo`, `demo --reset`, `export ID`, `import FILE`. */
async function main([chore, argument]: string[]): Promise<void> {
  switch (chore) {
    case 'migrate':
      await notNewer();
      await migrate(db, { migrationsFolder: MIGRATIONS });
      await db.delete(requests).where(lt(requests.at, sql`now() - interval '7 days'`));
      return;
    case 'demo': {
      const demo = demoJob();
      // Known by when it was begun: its name can be changed, and a job of one's own may have the same.
      const demos = eq(jobs.created, new Date(demo.job.created));
      if (argument === '--reset') await db.delete(jobs).where(demos);
      // Loaded once only: a user who archived or renamed the demo job does not get it back at every start.
      const [{ any } = { any: false }] = (
        await db.execute<{ any: boolean }>(
          sql`select exists(select 1 from ${jobs}) or exists(select 1 from ${shop}) as any`,
        )
      ).rows;
      if (argument === '--reset' || !any) await importWhole(viewer, demo);
      return;
    }
    case 'export': {
      let any = false;
      const found = await exportJob(viewer, argument ?? '', {
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
      error instanceof Error ? (error.cause instanceof Error ? error.cause.message : error.message) : error,
    );
    process.exitCode = 1;
  })
  .finally(() => Promise.all([pool.end(), asking.end()]));
