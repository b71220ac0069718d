import { asc, eq } from 'drizzle-orm';
import type { JobFile, PieceFile } from '#core/format/job';
import { JOB_VERSION, JobFileSchema } from '#core/format/job';
import { dbOf } from './database.server';
import { historyOf, putHistory } from './documents.server';
import { createFit, fitsOf } from './fits.server';
import { factsOf } from './pieces.server';
import { jobs, pieces, prints } from './schema.server';
import { addInspection, addWeld, inspectionsOf, weldsOf } from './welds.server';
import type { Viewer } from './viewer.server';

/** A whole job as a file, archived pieces and the history of every card included. Null when there is no such job. */
export async function exportJob(viewer: Viewer, id: string): Promise<JobFile | null> {
  const [job] = await dbOf(viewer).select().from(jobs).where(eq(jobs.id, id));
  if (!job) return null;
  const rows = await dbOf(viewer).select().from(pieces).where(eq(pieces.job, id)).orderBy(asc(pieces.seq));
  const files: PieceFile[] = [];
  for (const piece of rows) {
    files.push({
      ...factsOf(piece),
      created: piece.created.toISOString(),
      archived: piece.archived?.toISOString() ?? null,
      card: await historyOf(viewer, piece.id, 'card'),
      plan: await historyOf(viewer, piece.id, 'plan'),
      prints: (
        await dbOf(viewer).select().from(prints).where(eq(prints.piece, piece.id)).orderBy(asc(prints.seq))
      ).map(({ at, what, revision, digest }) => ({ at: at.toISOString(), what, revision, digest })),
      fits: await fitsOf(viewer, piece.id),
      welds: await weldsOf(viewer, piece.id),
      inspections: await inspectionsOf(viewer, piece.id),
    });
  }
  const { name, vehicle, owner, notes } = job;
  return JobFileSchema.parse({
    format: 'patrone-job',
    version: JOB_VERSION,
    job: {
      name,
      vehicle,
      owner,
      notes,
      created: job.created.toISOString(),
      archived: job.archived?.toISOString() ?? null,
    },
    pieces: files,
  });
}

/** Takes a job file in as a new job, all of it or nothing; `from` is the file's name, null where it is not somebody's file. */
export function importJob(viewer: Viewer, file: JobFile, from: string | null = null): Promise<string> {
  return dbOf(viewer).transaction(async (tx) => {
    const date = (moment: string | null) => (moment === null ? null : new Date(moment));
    const { created, archived, ...facts } = file.job;
    const [job] = await tx
      .insert(jobs)
      .values({
        ...facts,
        created: new Date(created),
        archived: date(archived),
        imported: from === null ? null : { at: new Date().toISOString(), from },
      })
      .returning({ id: jobs.id });
    for (const piece of file.pieces) {
      const [row] = await tx
        .insert(pieces)
        .values({
          ...factsOf(piece),
          job: job!.id,
          created: new Date(piece.created),
          archived: date(piece.archived),
        })
        .returning({ id: pieces.id });
      const id = row!.id;
      await putHistory(tx, id, 'card', piece.card);
      await putHistory(tx, id, 'plan', piece.plan);
      for (const print of piece.prints)
        await tx.insert(prints).values({ ...print, piece: id, at: new Date(print.at) });
      for (const fit of piece.fits) await createFit(viewer, id, fit, tx);
      for (const weld of piece.welds) await addWeld(viewer, id, weld, tx);
      for (const inspection of piece.inspections) await addInspection(viewer, id, inspection, tx);
    }
    return job!.id;
  });
}
