import { relations } from 'drizzle-orm';
import { documents, heads, jobs, pictures, pieces, prints, records } from './schema.server';

/** How rows belong together, so that all of a piece comes in one answer of the database. */
export const pieceRelations = relations(pieces, ({ one, many }) => ({
  job: one(jobs, { fields: [pieces.job], references: [jobs.id] }),
  heads: many(heads),
  records: many(records),
  prints: many(prints),
  pictures: many(pictures),
  from: one(pieces, { fields: [pieces.cameFrom], references: [pieces.id], relationName: 'came' }),
  made: many(pieces, { relationName: 'came' }),
}));
export const headRelations = relations(heads, ({ one }) => ({
  of: one(pieces, { fields: [heads.piece], references: [pieces.id] }),
  document: one(documents, {
    fields: [heads.piece, heads.kind, heads.number],
    references: [documents.piece, documents.kind, documents.number],
  }),
}));
export const recordRelations = relations(records, ({ one }) => ({
  of: one(pieces, { fields: [records.piece], references: [pieces.id] }),
}));
export const pictureRelations = relations(pictures, ({ one }) => ({
  on: one(pieces, { fields: [pictures.piece], references: [pieces.id] }),
}));
export const printRelations = relations(prints, ({ one }) => ({
  of: one(pieces, { fields: [prints.piece], references: [pieces.id] }),
}));
