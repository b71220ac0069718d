import {
  bigserial,
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import type { FitRecord, WeldRecord, InspectionRecord, PieceFacts } from '#core/format/job';
import type { PatternDoc } from '#core/card/pattern';
import type { Shop } from '#core/blank/shopSchema';

const moment = (name: string) => timestamp(name, { withTimezone: true, precision: 3, mode: 'date' });
/** Order of entry: what was written first comes first, whatever its date says. */
const order = () => bigserial('seq', { mode: 'number' }).notNull();

export const jobs = pgTable('jobs', {
  id: uuid('id').primaryKey().defaultRandom(),
  seq: order(),
  name: text('name').notNull(),
  vehicle: text('vehicle').notNull(),
  owner: text('owner').notNull(),
  notes: text('notes').notNull(),
  created: moment('created').notNull().defaultNow(),
  archived: moment('archived'),
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
    part: text('part').notNull(),
    side: text('side').$type<PieceFacts['side']>().notNull(),
    metal: text('metal').$type<PieceFacts['metal']>().notNull(),
    thicknessMm: doublePrecision('thickness_mm').notNull(),
    thickness: jsonb('thickness').$type<PieceFacts['thickness']>().notNull(),
    structural: boolean('structural').notNull(),
    notes: text('notes').notNull(),
    /** The revision in use; 0 before anything is drawn. Undo and redo move it, saving adds one. */
    revision: integer('revision').notNull().default(0),
    created: moment('created').notNull().defaultNow(),
    archived: moment('archived'),
  },
  (t) => [index('pieces_job').on(t.job)],
);

const pieceKey = () =>
  uuid('piece')
    .notNull()
    .references(() => pieces.id, { onDelete: 'cascade' });

export const revisions = pgTable(
  'revisions',
  {
    piece: pieceKey(),
    number: integer('number').notNull(),
    /** The revision it was made from; 0 for the first. */
    parent: integer('parent').notNull(),
    at: moment('at').notNull().defaultNow(),
    pattern: jsonb('pattern').$type<PatternDoc>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.piece, t.number] })],
);

/** Each time a pattern left the house, on paper or as a file: which revision it was. */
export const prints = pgTable('prints', {
  seq: order().primaryKey(),
  piece: pieceKey(),
  at: moment('at').notNull().defaultNow(),
  what: text('what').notNull(),
  revision: integer('revision').notNull(),
});

export const fits = pgTable(
  'fits',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    seq: order(),
    piece: pieceKey(),
    at: moment('at').notNull(),
    held: text('held').$type<FitRecord['held']>().notNull(),
    notes: text('notes').notNull(),
    revision: integer('revision').notNull(),
  },
  (t) => [index('fits_piece').on(t.piece)],
);

export const fitEdges = pgTable(
  'fit_edges',
  {
    seq: order(),
    fit: uuid('fit')
      .notNull()
      .references(() => fits.id, { onDelete: 'cascade' }),
    edge: text('edge').notNull(),
    targetMm: doublePrecision('target_mm').notNull(),
    toleranceMm: doublePrecision('tolerance_mm').notNull(),
    flushMm: doublePrecision('flush_mm').notNull(),
    stations: jsonb('stations').$type<FitRecord['edges'][number]['stations']>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.fit, t.edge] })],
);

export const welds = pgTable(
  'welds',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    seq: order(),
    piece: pieceKey(),
    at: moment('at').notNull(),
    who: text('who').notNull(),
    edge: text('edge').notNull(),
    process: text('process').$type<WeldRecord['process']>().notNull(),
    work: text('work').$type<WeldRecord['work']>().notNull(),
    from: integer('from_number'),
    to: integer('to_number'),
    settings: jsonb('settings').$type<WeldRecord['settings']>().notNull(),
    note: text('note').notNull(),
  },
  (t) => [index('welds_piece').on(t.piece)],
);

export const inspections = pgTable(
  'inspections',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    seq: order(),
    piece: pieceKey(),
    at: moment('at').notNull(),
    who: text('who').notNull(),
    edge: text('edge').notNull(),
    kind: text('kind').$type<InspectionRecord['kind']>().notNull(),
    sound: boolean('sound').notNull(),
    readingMm: doublePrecision('reading_mm'),
    finding: text('finding').notNull(),
    remedy: text('remedy').notNull(),
  },
  (t) => [index('inspections_piece').on(t.piece)],
);

/** One row: the shop's settings. */
export const shop = pgTable('shop', {
  id: integer('id').primaryKey(),
  settings: jsonb('settings').$type<Shop>().notNull(),
});
