import { relations } from 'drizzle-orm';
import {
  documents,
  fitEdges,
  fits,
  heads,
  inspections,
  jobs,
  pictures,
  pieces,
  prints,
  welds,
} from './schema.server';

/** How rows belong together, so that all of a piece comes in one answer of the database. */
export const pieceRelations = relations(pieces, ({ one, many }) => ({
  job: one(jobs, { fields: [pieces.job], references: [jobs.id] }),
  heads: many(heads),
  fits: many(fits),
  welds: many(welds),
  inspections: many(inspections),
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
export const fitRelations = relations(fits, ({ one, many }) => ({
  of: one(pieces, { fields: [fits.piece], references: [pieces.id] }),
  edges: many(fitEdges),
}));
export const fitEdgeRelations = relations(fitEdges, ({ one }) => ({
  of: one(fits, { fields: [fitEdges.fit], references: [fits.id] }),
}));
export const weldRelations = relations(welds, ({ one }) => ({
  of: one(pieces, { fields: [welds.piece], references: [pieces.id] }),
}));
export const inspectionRelations = relations(inspections, ({ one }) => ({
  of: one(pieces, { fields: [inspections.piece], references: [pieces.id] }),
}));
export const pictureRelations = relations(pictures, ({ one }) => ({
  on: one(pieces, { fields: [pictures.piece], references: [pieces.id] }),
}));
export const printRelations = relations(prints, ({ one }) => ({
  of: one(pieces, { fields: [prints.piece], references: [pieces.id] }),
}));
