import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { eq, sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { asking, db, pool } from '#app/records/database.server';
import { exportJob, importJob } from '#app/records/jobFile.server';
import { jobs, shop } from '#app/records/schema.server';
import { writeJob } from '#core/format/job';
import { readJob } from '#core/format/readJob';
import { demoJob } from '../demo/job';

/** Chores of the database, called by ./patrone: `migrate`, `demo`, `demo --reset`, `export ID`, `import FILE`. */
async function main([chore, argument]: string[]): Promise<void> {
  switch (chore) {
    case 'migrate':
      await migrate(db, { migrationsFolder: resolve(process.cwd(), 'app/records/migrations') });
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
      if (argument === '--reset' || !any) await importJob(demo);
      return;
    }
    case 'export': {
      const job = await exportJob(argument ?? '');
      if (!job) throw new Error(`No job ${argument}`);
      process.stdout.write(writeJob(job));
      return;
    }
    case 'import': {
      const read = readJob(JSON.parse(readFileSync(argument ?? '', 'utf8')));
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      console.log(await importJob(read.job));
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
