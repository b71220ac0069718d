import { sql } from 'drizzle-orm';
import {
  bigint,
  bigserial,
  boolean,
  check,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import type { Folding } from '#core/blank/fold/folding';
import { unfolded } from '#core/blank/fold/folding';
import type { Shop } from '#core/blank/shopSchema';
import type { CutDown } from '#core/cutdown/cutDown';
import { uncut } from '#core/cutdown/uncut';
import type { DocumentKind } from '#core/format/documents';
import { CAME_AS } from '#core/format/job';
import type { CameAs, PieceFacts, Withdrawn } from '#core/format/job';
import { PICTURE_OWNERS, PIECE_KINDS, RECORD_KINDS, SIDES_OF_VEHICLE } from '#core/format/lists';
import type { PictureOwner, RecordKind } from '#core/format/lists';
import type { StructureBody } from '#core/joint/structure';
import type { PictureMark } from '#core/picture/marks';
import type { PictureType } from '#core/picture/privacy';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import { unsurveyed } from '#core/survey/pieceSurvey';
import type { Shaping } from '#core/shape/shaping';
import { unshaped } from '#core/shape/shaping';
import type { SurveyBody } from '#core/survey/references';

export const moment = (name: string) =>
  timestamp(name, { withTimezone: true, precision: 3, mode: 'date' });
/** Order of entry: what was written first comes first, whatever its date says. */
export const order = () => bigserial('seq', { mode: 'number' }).notNull();

const DOCUMENT_KINDS: readonly DocumentKind[] = ['card', 'plan'];

/** A column that holds one of a few words, as the database sees to; null where it may be. */
const oneOf = (name: string, column: AnyPgColumn, words: readonly string[]) =>
  check(name, sql`${column} in (${sql.raw(words.map((word) => `'${word}'`).join(', '))})`);

export const jobs = pgTable('jobs', {
  id: uuid('id').primaryKey().defaultRandom(),
  seq: order(),
  name: text('name').notNull(),
  vehicle: text('vehicle').notNull(),
  owner: text('owner').notNull(),
  notes: text('notes').notNull(),
  created: moment('created').notNull().defaultNow(),
  archived: moment('archived'),
  /**
   * When and from which file the job came in; null for one begun here. It does not go out with the
   * job again.
   */
  imported: jsonb('imported').$type<{ at: string; from: string }>(),
});

export const pieces = pgTable(
  'pieces',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    seq: order(),
    job: uuid('job')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    /** Where it comes from: made here, or not. */
    kind: text('kind').$type<PieceFacts['kind']>().notNull().default('made'),
    part: text('part').notNull(),
    side: text('side').$type<PieceFacts['side']>().notNull(),
    metal: text('metal').$type<PieceFacts['metal']>().notNull(),
    thicknessMm: doublePrecision('thickness_mm').notNull(),
    thickness: jsonb('thickness').$type<PieceFacts['thickness']>().notNull(),
    structural: boolean('structural').notNull(),
    notes: text('notes').notNull(),
    /** What is surveyed of it: it names what is surveyed of its job. */
    survey: jsonb('survey').$type<PieceSurvey>().notNull().default(unsurveyed()),
    /** How it is folded, and how far it is. */
    folding: jsonb('folding').$type<Folding>().notNull().default(unfolded()),
    /** How it is shaped, and how far that is. */
    shaping: jsonb('shaping').$type<Shaping>().notNull().default(unshaped()),
    /** How it was brought to size, where it was not made here. */
    cutDown: jsonb('cut_down').$type<CutDown>().notNull().default(uncut()),
    /** The piece it was made from, if from any, how, and why; a piece that is gone is forgotten. */
    cameFrom: uuid('came_from').references((): AnyPgColumn => pieces.id, { onDelete: 'set null' }),
    cameAs: text('came_as').$type<CameAs>(),
    cameWhy: text('came_why').notNull().default(''),
    created: moment('created').notNull().defaultNow(),
    archived: moment('archived'),
    /**
     * How often anything of the piece has changed. The database counts (triggers in the
     * migrations), nobody else.
     */
    touched: bigint('touched', { mode: 'number' }).notNull().default(0),
  },
  (t) => [
    oneOf('pieces_kind', t.kind, PIECE_KINDS),
    oneOf('pieces_side', t.side, SIDES_OF_VEHICLE),
    oneOf('pieces_came_as', t.cameAs, CAME_AS),
    index('pieces_job').on(t.job, t.seq),
    index('pieces_seq').on(t.seq),
    index('pieces_came').on(t.cameFrom),
    // Pieces that were not made here are few.
    index('pieces_brought')
      .on(t.seq)
      .where(sql`kind <> 'made'`),
    index('pieces_hours')
      .on(t.seq)
      .where(sql`survey->'choice'->>'hoursTaken' is not null`),
  ],
);

const pieceKey = () =>
  uuid('piece')
    .notNull()
    .references(() => pieces.id, { onDelete: 'cascade' });

/**
 * Documents of every kind, each version a row that knows the one it was made from (parent; 0 for
 * the first). A document belongs to a piece or to a job, and is one of a kind there.
 */
export const documents = pgTable(
  'documents',
  {
    seq: order().primaryKey(),
    piece: uuid('piece').references(() => pieces.id, { onDelete: 'cascade' }),
    job: uuid('job').references(() => jobs.id, { onDelete: 'cascade' }),
    kind: text('kind').$type<DocumentKind>().notNull(),
    number: integer('number').notNull(),
    parent: integer('parent').notNull(),
    /** The form it is written in; readers bring older ones up to date. */
    version: integer('version').notNull(),
    at: moment('at').notNull().defaultNow(),
    /**
     * What the change was about: several in a row about one thing within a minute are thinned to
     * the last.
     */
    about: text('about').notNull().default(''),
    /**
     * The open page that wrote it: it goes on from its own version though the answer to it was
     * lost.
     */
    by: text('by').notNull().default(''),
    body: jsonb('body').notNull(),
    /** The ids of a card's edges, so that they are looked up without unpacking it. */
    edges: jsonb('edges').generatedAlwaysAs(
      sql`case when kind = 'card' then jsonb_path_query_array(body, '$.edges[*].id') end`,
    ),
    /** The ids of the heavy parts that a card names. */
    surfaces: jsonb('surfaces').generatedAlwaysAs(
      sql`case when kind = 'card' then jsonb_path_query_array(body, '$.**.crown.*.surface') end`,
    ),
  },
  (t) => [
    oneOf('documents_kind', t.kind, DOCUMENT_KINDS),
    index('documents_made_from').on(t.piece, t.kind, t.parent, t.number),
    uniqueIndex('documents_piece')
      .on(t.piece, t.kind, t.number)
      .where(sql`piece is not null`),
    uniqueIndex('documents_job')
      .on(t.job, t.kind, t.number)
      .where(sql`job is not null`),
    check('documents_owner', sql`(piece is null) <> (job is null)`),
  ],
);

/**
 * Heavy parts of the cards of a piece, the surface of a panel and the map of the work on it, each kept
 * once under the digest of what is in it, however many versions name it.
 */
export const surfaces = pgTable(
  'surfaces',
  { piece: pieceKey(), id: text('id').notNull(), body: jsonb('body').notNull() },
  (t) => [primaryKey({ columns: [t.piece, t.id] })],
);

/**
 * The version in use of each document. Undo and redo move it, saving adds one; no row before there
 * is any.
 */
export const heads = pgTable(
  'heads',
  {
    seq: order().primaryKey(),
    piece: uuid('piece').references(() => pieces.id, { onDelete: 'cascade' }),
    job: uuid('job').references(() => jobs.id, { onDelete: 'cascade' }),
    kind: text('kind').$type<DocumentKind>().notNull(),
    number: integer('number').notNull(),
  },
  (t) => [
    oneOf('heads_kind', t.kind, DOCUMENT_KINDS),
    uniqueIndex('heads_piece')
      .on(t.piece, t.kind)
      .where(sql`piece is not null`),
    uniqueIndex('heads_job')
      .on(t.job, t.kind)
      .where(sql`job is not null`),
    check('heads_owner', sql`(piece is null) <> (job is null)`),
  ],
);

/** Each time a pattern left the house, on paper or as a file: which revision it was. */
export const prints = pgTable(
  'prints',
  {
    seq: order().primaryKey(),
    piece: pieceKey(),
    at: moment('at').notNull().defaultNow(),
    what: text('what').notNull(),
    revision: integer('revision').notNull(),
    /** What it was made from, in a word; null for those from before this was written down. */
    digest: text('digest'),
  },
  (t) => [index('prints_piece').on(t.piece)],
);

/**
 * What was done and read of a piece, each kind by its schema (`core/format/records.ts`): trials,
 * welds, inspections.
 */
export const records = pgTable(
  'records',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    seq: order(),
    piece: pieceKey(),
    kind: text('kind').$type<RecordKind>().notNull(),
    at: moment('at').notNull(),
    body: jsonb('body').$type<Record<string, unknown>>().notNull(),
    withdrawn: jsonb('withdrawn').$type<Withdrawn>(),
    /** Rises with each change of any record: the database counts (triggers in the migrations). */
    changed: bigint('changed', { mode: 'number' }).notNull().default(0),
    /** The revision of the card that it speaks of, if of one. */
    revision: integer('revision').generatedAlwaysAs(
      sql`coalesce((body ->> 'revision')::integer, (body -> 'made' ->> 'revision')::integer)`,
    ),
    /** The ids of the edges that it speaks of. */
    edges: jsonb('edges').generatedAlwaysAs(
      sql`jsonb_path_query_array(body, '$.edge') || jsonb_path_query_array(body, '$.edges[*].edge')`,
    ),
  },
  (t) => [
    oneOf('records_kind', t.kind, RECORD_KINDS),
    index('records_piece').on(t.piece, t.seq),
    index('records_changed').on(t.changed),
  ],
);

/**
 * Small bodies of a job, each under a short id of its own that was given by whoever made it, by which
 * others name it.
 */
const bodiesOfJob = <Body>(name: string) =>
  pgTable(
    name,
    {
      job: uuid('job')
        .notNull()
        .references(() => jobs.id, { onDelete: 'cascade' }),
      id: text('id').notNull(),
      seq: order(),
      at: moment('at').notNull().defaultNow(),
      body: jsonb('body').$type<Body>().notNull(),
      /** Rises with each change of any of them: the database counts (triggers in the migrations). */
      changed: bigint('changed', { mode: 'number' }).notNull().default(0),
    },
    (t) => [primaryKey({ columns: [t.job, t.id] }), index(`${name}_changed`).on(t.changed)],
  );
export type BodiesOfJob<Body> = ReturnType<typeof bodiesOfJob<Body>>;

/** What is surveyed of a job: points, measures, rounds, openings, braces, findings. */
export const surveyed = bodiesOfJob<SurveyBody>('surveyed');

/** What a job is put together of beside its pieces: named parts of the vehicle, joints, hollows. */
export const structure = bodiesOfJob<StructureBody>('structure');

/**
 * A picture that hangs on a job, or on a piece of it and something of that. The picture itself is a
 * file, named by what is in it (`digest`), and never changes; what is said of it does. Put away, it
 * stays.
 */
export const pictures = pgTable(
  'pictures',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    seq: order(),
    job: uuid('job')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    piece: uuid('piece').references(() => pieces.id, { onDelete: 'cascade' }),
    owner: text('owner').$type<PictureOwner>().notNull(),
    /** The id of the edge or record it hangs on; empty for a job and a piece. */
    of: text('of').notNull(),
    digest: text('digest').notNull(),
    type: text('type').$type<PictureType>().notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    bytes: integer('bytes').notNull(),
    name: text('name').notNull(),
    /** As the camera's clock stood; no zone is known. */
    taken: moment('taken'),
    at: moment('at').notNull().defaultNow(),
    caption: text('caption').notNull().default(''),
    marks: jsonb('marks').$type<PictureMark[]>().notNull().default([]),
    putAway: moment('put_away'),
  },
  (t) => [
    index('pictures_job').on(t.job, t.seq),
    index('pictures_piece').on(t.piece, t.seq),
    index('pictures_digest').on(t.digest),
    oneOf('pictures_owner_known', t.owner, PICTURE_OWNERS),
    oneOf('pictures_type', t.type, ['jpeg', 'png', 'webp']),
    check('pictures_owner', sql`(piece is null) = (owner in ('job', 'survey'))`),
  ],
);

/**
 * What lists show of a piece, remembered so that it is not reckoned at each view: no record of
 * anything, and good only for the piece as it was at its touch count `of`, by the program and the
 * shop's settings it was made by.
 */
export const summaries = pgTable('summaries', {
  piece: pieceKey().primaryKey(),
  of: bigint('of', { mode: 'number' }).notNull(),
  madeBy: text('made_by').notNull(),
  summary: jsonb('summary').notNull(),
});

/**
 * Keys of requests that were done, so that one sent again is not done again; forgotten after some
 * days.
 */
export const requests = pgTable('requests', {
  key: text('key').primaryKey(),
  at: moment('at').notNull().defaultNow(),
  /** What it was answered, where whoever sends it again must know: the id of what was made. */
  answer: jsonb('answer'),
});

/** One row: the shop's settings. */
export const shop = pgTable('shop', {
  id: integer('id').primaryKey(),
  settings: jsonb('settings').$type<Shop>().notNull(),
});
