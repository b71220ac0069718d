import { z } from 'zod';
import { moment } from '../card/moment';
import { text } from '../card/text';
import { METAL_IDS } from '../metal/metals';
import { CONDITIONS, ENDS, FASTENED, REACHES, SIGHTS } from './kinds';

/**
 * What a job is put together of beside its pieces: named parts of the vehicle, joints, hollows. Each
 * has a short id of its own, given when it is made, by which others name it.
 */
const id = text(24).min(1);
const thicknessMm = z.number().min(0.1).max(12);

/** A part of the vehicle that pieces are joined to, and that is not remade. */
export const PartSchema = z.strictObject({
  kind: z.literal('part'),
  name: text(120).min(1),
  metal: z.enum(METAL_IDS).nullable(),
  /** Thickness of its sheet, mm; null where nobody knows, or the readings say it. */
  thicknessMm: thicknessMm.nullable(),
  /** As read with a micrometer, mm: where there are any, their smallest counts. */
  readingsMm: z.array(thicknessMm).max(50),
  condition: z.enum(CONDITIONS),
  notes: text(2000),
  putAway: z.boolean(),
});
export type Part = z.infer<typeof PartSchema>;

/** Where along an edge a joint runs, mm from its start. */
export const StretchSchema = z
  .strictObject({
    fromMm: z.number().finite().min(0).max(100_000),
    toMm: z.number().finite().min(0).max(100_000),
  })
  .refine(({ fromMm, toMm }) => fromMm < toMm, 'it ends before it begins');
export type Stretch = z.infer<typeof StretchSchema>;

/**
 * An edge of a piece; the whole of it where no stretch is said. `turned`: whether its card had been
 * turned over when this was said: its start is that which the edge had then.
 */
const pieceEnd = <P extends z.ZodType>(piece: P) =>
  z.strictObject({ piece, edge: id, turned: z.boolean(), stretch: StretchSchema.nullable() });
const PartEndSchema = z.strictObject({ part: id });

const end = z.enum(ENDS).nullable();

/**
 * Two ends that meet: an edge of a piece, and an edge of another (or of the same) or a named part.
 * `sameWay`: the second edge runs the way the first does; edges of two panels laid side by side run
 * against each other. `over`: which end lies on top where they overlap; `stepped`: which is set
 * down by the thickness of the other; `waterFrom`: from which water comes.
 */
const jointOf = <P extends z.ZodType>(piece: P) =>
  z.strictObject({
    kind: z.literal('joint'),
    first: pieceEnd(piece),
    second: z.union([pieceEnd(piece), PartEndSchema]),
    sameWay: z.boolean(),
    fastened: z.enum(FASTENED).nullable(),
    over: end,
    stepped: end,
    waterFrom: end,
    reach: z.enum(REACHES).nullable(),
    structural: z.boolean(),
    sight: z.enum(SIGHTS).nullable(),
    notes: text(2000),
    putAway: z.boolean(),
  });

/** What bounds a hollow: a piece, a part, a joint. */
const boundOf = <P extends z.ZodType>(piece: P) =>
  z.union([z.strictObject({ piece }), z.strictObject({ part: id }), z.strictObject({ joint: id })]);

/** A space that is closed once all that bounds it is joined: what is behind is reached before. */
const hollowOf = <P extends z.ZodType>(piece: P) =>
  z.strictObject({
    kind: z.literal('hollow'),
    name: text(120).min(1),
    bounds: z.array(boundOf(piece)).max(100),
    notes: text(2000),
    putAway: z.boolean(),
  });

const structureOf = <P extends z.ZodType>(piece: P) =>
  z.discriminatedUnion('kind', [PartSchema, jointOf(piece), hollowOf(piece)]);

/** The forms of what names pieces, by how it names them. */
export type PieceEndOf<P> = { piece: P; edge: string; turned: boolean; stretch: Stretch | null };
export type EndOf<P> = PieceEndOf<P> | { part: string };
type SaidOfJoint = Omit<z.infer<ReturnType<typeof jointOf>>, 'first' | 'second'>;
export type JointOf<P> = SaidOfJoint & { first: PieceEndOf<P>; second: EndOf<P> };
export type HollowOf<P> = {
  kind: 'hollow';
  name: string;
  bounds: ({ piece: P } | { part: string } | { joint: string })[];
  notes: string;
  putAway: boolean;
};
export type BodyOf<P> = Part | JointOf<P> | HollowOf<P>;

/** Pieces by their ids. */
export const StructureSchema = structureOf(z.uuid());
export type Joint = JointOf<string>;
export type Hollow = HollowOf<string>;
export type StructureBody = BodyOf<string>;
export type Structured<Body extends StructureBody = StructureBody> = { id: string } & Body;

/** The same in a job file: pieces by their place there, from 0. */
export const StructureFileSchema = z.strictObject({
  id,
  at: moment,
  body: structureOf(z.number().int().min(0).max(100_000)),
});
export type StructureFile = { id: string; at: string; body: BodyOf<number> };

/** As many as are put down of one job. */
export const MAX_STRUCTURE = 5000;
