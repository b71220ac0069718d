import { asc, eq, sql } from 'drizzle-orm';
import type {
  JobFile,
  JobHead,
  JobPictureFile,
  PictureFile,
  PieceFile,
  PiecePictureFile,
} from '#core/format/job';
import { JOB_VERSION } from '#core/format/job';
import { RECORD_KINDS } from '#core/format/lists';
import type { RecordKind } from '#core/format/lists';
import { PROGRAM } from '#core/format/program';
import { RECORDS } from '#core/format/records';
import type { StructureFile } from '#core/joint/structure';
import { dbOf, inLots } from './database.server';
import type { Tx } from './database.server';
import { cutDownOf } from './cutDown.server';
import { foldingOf } from './folding.server';
import { shapingOf } from './shaping.server';
import { historyOf, putHistory } from './documents.server';
import type { HangsOn, Picture } from './pictures.server';
import { picturesOf } from './pictures.server';
import { pieceSurveyOf } from './pieceSurvey.server';
import type { Piece } from './pieces.server';
import { factsOf } from './pieces.server';
import type { PieceRecords } from './records.server';
import { addRecords, recordsOf } from './records.server';
import { jobs, pictures, pieces, prints } from './schema.server';
import { putStructure, structureFile } from './structure.server';
import { putSurvey, surveyFile } from './survey.server';
import type { Viewer } from './viewer.server';

/**
 * Takes a job apart: its head first, then its pieces one by one, so that no more than one is held.
 */
export type JobTaker = {
  head: (head: JobHead, pieces: number) => Promise<void>;
  piece: (piece: PieceFile, place: number) => Promise<void>;
};

/**
 * A whole job as it stands at one moment, archived pieces and the history of every card included,
 * given to `take` part by part; what is said of pictures only `withPictures`. False when there is
 * no such job.
 */
export function exportJob(
  viewer: Viewer,
  id: string,
  withPictures: boolean,
  take: JobTaker,
): Promise<boolean> {
  return dbOf(viewer).transaction(
    async (tx) => {
      const [job] = await tx.select().from(jobs).where(eq(jobs.id, id));
      if (!job) return false;
      const rows = await tx
        .select()
        .from(pieces)
        .where(eq(pieces.job, id))
        .orderBy(asc(pieces.seq));
      const placeOf = new Map(rows.map((row, place) => [row.id, place]));
      const { name, vehicle, owner, notes } = job;
      const created = job.created.toISOString();
      const archived = job.archived?.toISOString() ?? null;
      await take.head(
        {
          format: 'patrone-job',
          version: JOB_VERSION,
          program: PROGRAM,
          job: { name, vehicle, owner, notes, created, archived },
          pictures: withPictures
            ? (await picturesOf(viewer, { job: id, piece: null }, tx)).map(jobPicture)
            : [],
          survey: await surveyFile(viewer, id, tx),
          structure: await structureFile(tx, id, placeOf),
        },
        rows.length,
      );
      for (const [place, piece] of rows.entries()) {
        const kept = await recordsOf(viewer, piece.id, tx);
        const mine = withPictures ? await picturesOf(viewer, { job: id, piece: piece.id }, tx) : [];
        await take.piece(
          {
            ...factsOf(piece),
            created: piece.created.toISOString(),
            archived: piece.archived?.toISOString() ?? null,
            came: cameFile(piece, placeOf),
            survey: pieceSurveyOf(piece),
            folding: foldingOf(piece),
            shaping: shapingOf(piece),
            cutDown: cutDownOf(piece),
            card: await historyOf(viewer, piece.id, 'card', tx),
            plan: await historyOf(viewer, piece.id, 'plan', tx),
            prints: await printsOf(tx, piece.id),
            ...kept,
            pictures: mine.flatMap((one) => piecePicture(one, kept)),
          },
          place,
        );
      }
      return true;
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  );
}

/** Where a piece came from, by its place in the file: nothing where that one is of another job. */
function cameFile(
  { id, cameFrom, cameAs, cameWhy }: Piece,
  placeOf: ReadonlyMap<string, number>,
): PieceFile['came'] {
  const piece = placeOf.get(cameFrom ?? '');
  return piece !== undefined && cameAs && piece < placeOf.get(id)!
    ? { piece, as: cameAs, why: cameWhy }
    : null;
}

const pictureFile = ({
  digest,
  type,
  width,
  height,
  bytes,
  name,
  taken,
  at,
  caption,
  marks,
  putAway,
}: Picture): PictureFile => ({
  digest,
  type,
  width,
  height,
  bytes,
  name,
  taken,
  at,
  caption,
  marks,
  putAway,
});

const jobPicture = (one: Picture): JobPictureFile => ({
  ...pictureFile(one),
  on: one.owner === 'survey' ? { owner: 'survey', id: one.of } : { owner: 'job' },
});

/**
 * A picture of a piece as it is said in a file: what it hangs on by its place there; nothing for
 * one whose record is gone.
 */
function piecePicture(one: Picture, kept: PieceRecords): PiecePictureFile[] {
  const { owner, of } = one;
  const said = pictureFile(one);
  if (owner === 'job' || owner === 'survey') return [];
  if (owner === 'piece') return [{ ...said, on: { owner } }];
  if (owner === 'edge') return [{ ...said, on: { owner, edge: of } }];
  const record = kept[RECORDS[owner].list].findIndex(({ id }) => id === of);
  return record < 0 ? [] : [{ ...said, on: { owner, record } }];
}

const putPictures = (tx: Tx, all: readonly (PictureFile & HangsOn)[]) =>
  inLots(all, (lot) =>
    tx.insert(pictures).values(
      lot.map((one) => ({
        ...one,
        at: new Date(one.at),
        taken: date(one.taken),
        putAway: date(one.putAway),
      })),
    ),
  );

const printsOf = async (tx: Tx, piece: string): Promise<PieceFile['prints']> =>
  (await tx.select().from(prints).where(eq(prints.piece, piece)).orderBy(asc(prints.seq))).map(
    ({ at, what, revision, digest }) => ({ at: at.toISOString(), what, revision, digest }),
  );

/**
 * Takes a job in as a new one, its pieces as they come, all of them or nothing: where `given`
 * throws, nothing was taken. `from` is the name of the file, null where it is not somebody's file.
 * `alsoJoined`, asked once all pieces are in: what they said of joints beside the head.
 */
export function importJob(
  viewer: Viewer,
  { job, survey, structure, pictures: ofJob }: JobHead,
  given: AsyncIterable<PieceFile> | Iterable<PieceFile>,
  from: string | null = null,
  alsoJoined: () => readonly StructureFile[] = () => [],
): Promise<string> {
  return dbOf(viewer).transaction(async (tx) => {
    // Many small rows: the disk is waited for once, at the end, and between two pieces as long as
    // it takes to read one.
    await tx.execute(sql`set local idle_in_transaction_session_timeout = '120s'`);
    const { created, archived, ...facts } = job;
    const [row] = await tx
      .insert(jobs)
      .values({
        ...facts,
        created: new Date(created),
        archived: date(archived),
        imported: from === null ? null : { at: new Date().toISOString(), from },
      })
      .returning({ id: jobs.id });
    await putSurvey(tx, row!.id, survey);
    const ofTheJob = ofJob.map(({ on, ...one }) => ({
      ...one,
      job: row!.id,
      piece: null,
      owner: on.owner,
      of: on.owner === 'survey' ? on.id : '',
    }));
    await putPictures(tx, ofTheJob);
    const ids: string[] = [];
    for await (const piece of given) ids.push(await putPiece(tx, row!.id, piece, ids));
    await putStructure(tx, row!.id, [...structure, ...alsoJoined()], ids);
    return row!.id;
  });
}

/** A job file that is held as a whole, as a new job. */
export const importWhole = (
  viewer: Viewer,
  { pieces: all, ...head }: JobFile,
  from: string | null = null,
) => importJob(viewer, head, all, from);

const date = (moment: string | null) => (moment === null ? null : new Date(moment));

/** Puts a piece in after those that were before it in the file; comes back with its id. */
async function putPiece(
  tx: Tx,
  job: string,
  piece: PieceFile,
  before: readonly string[],
): Promise<string> {
  const { came } = piece;
  const [row] = await tx
    .insert(pieces)
    .values({
      ...factsOf(piece),
      job,
      survey: piece.survey,
      folding: foldingOf({ folding: piece.folding }),
      shaping: piece.shaping,
      cutDown: piece.cutDown,
      ...(came && { cameFrom: before[came.piece]!, cameAs: came.as, cameWhy: came.why }),
      created: new Date(piece.created),
      archived: date(piece.archived),
    })
    .returning({ id: pieces.id });
  const id = row!.id;
  await putHistory(tx, id, 'card', piece.card);
  await putHistory(tx, id, 'plan', piece.plan);
  if (piece.prints.length > 0)
    await tx
      .insert(prints)
      .values(piece.prints.map((print) => ({ ...print, piece: id, at: new Date(print.at) })));
  const ids = new Map<RecordKind, string[]>();
  for (const kind of RECORD_KINDS)
    ids.set(kind, await addRecords(tx, id, kind, piece[RECORDS[kind].list]));
  const hung = piece.pictures.map(({ on, ...one }) => {
    const of =
      on.owner === 'piece' ? '' : on.owner === 'edge' ? on.edge : ids.get(on.owner)![on.record]!;
    return { ...one, job, piece: id, owner: on.owner, of };
  });
  await putPictures(tx, hung);
  return id;
}
