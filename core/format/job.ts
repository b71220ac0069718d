import { z } from 'zod';
import { FoldingFileSchema } from '../blank/fold/folding';
import { ShapingSchema } from '../shape/shapingSchema';
import { PROCESSES } from '../card/kinds';
import { CutDownSchema } from '../cutdown/cutDown';
import { moment } from '../card/moment';
import { PatternSchema } from '../card/pattern';
import { text } from '../card/text';
import { METAL_IDS } from '../metal/metals';
import { PictureSaidSchema } from '../picture/marks';
import { PieceSurveySchema } from '../survey/pieceSurvey';
import { MAX_STRUCTURE, StructureFileSchema } from '../joint/structure';
import { MAX_SURVEYED, SurveyedSchema } from '../survey/references';
import { PlanSchema } from '../weld/plan';
import { written } from './written';
import {
  HELD,
  INSPECTIONS,
  MAX_STATIONS,
  PIECE_KINDS,
  RECORD_KINDS,
  SIDES_OF_VEHICLE,
  WELD_WORK,
} from './lists';

const edge = text(24);
/** A number of a version of a document; what PostgreSQL calls an integer. */
const version = z.number().int().min(0).max(2_147_483_647);

/** A record taken back: it stays in the record, with when and why. */
export const WithdrawnSchema = z.object({ at: moment, why: text(400).min(1) });
export type Withdrawn = z.infer<typeof WithdrawnSchema>;
const withdrawn = WithdrawnSchema.nullable();

/**
 * How the thickness was chosen: by gauge number, typed in millimetres, or read with a micrometer.
 */
const ThicknessSchema = z.discriminatedUnion('by', [
  z.object({
    by: z.literal('gauge'),
    system: z.enum(['msg', 'gsg', 'swg', 'bs']),
    gauge: z.number().int().min(-20).max(100),
  }),
  z.object({ by: z.literal('mm') }),
  z.object({ by: z.literal('micrometer') }),
]);

export const PieceFactsSchema = z.object({
  name: text(80).min(1),
  kind: z.enum(PIECE_KINDS),
  part: text(120),
  side: z.enum(SIDES_OF_VEHICLE),
  metal: z.enum(METAL_IDS),
  thicknessMm: z.number().min(0.1).max(12),
  thickness: ThicknessSchema,
  structural: z.boolean(),
  notes: text(8000),
});
export type PieceFacts = z.infer<typeof PieceFactsSchema>;

export const JobFactsSchema = z.object({
  name: text(80).min(1),
  vehicle: text(120),
  owner: text(80),
  notes: text(8000),
});
export type JobFacts = z.infer<typeof JobFactsSchema>;

const station = z.object({
  atMm: z.number().min(-1000).max(100_000),
  gapMm: z.number().min(-50).max(500).nullable(),
  flushMm: z.number().min(-100).max(100).nullable(),
});

/** One trial fit: how the piece was held, and what was read along each edge. */
export const FitSchema = z.object({
  at: moment,
  who: text(60),
  held: z.enum(HELD),
  notes: text(4000),
  /** The revision of the card that was cut and tried. */
  revision: version,
  /** What that card was cut from, as a print of it is known by; left out by older ones. */
  digest: text(40).nullable().optional(),
  withdrawn,
  edges: z
    .array(
      z.object({
        edge,
        /**
         * Whether the card had been turned over by then: places run from the start the edge had at
         * the time.
         */
        turned: z.boolean(),
        /** Whether target and tolerance were set by hand; else they followed the joint. */
        own: z.boolean(),
        targetMm: z.number().min(-10).max(100),
        toleranceMm: z.number().min(0).max(50),
        flushMm: z.number().min(0).max(50),
        stations: z.array(station).max(MAX_STATIONS),
      }),
    )
    .max(1000),
});
export type FitRecord = z.infer<typeof FitSchema>;

const WeldSettingsSchema = z.object({
  amps: z.number().min(0).max(1000).nullable(),
  volts: z.number().min(0).max(100).nullable(),
  wireMm: z.number().min(0).max(10).nullable(),
  feed: text(40),
  gas: text(60),
});
export const WeldSchema = z.object({
  at: moment,
  who: text(60),
  edge,
  process: z.enum(PROCESSES),
  work: z.enum(WELD_WORK),
  /** First and last number of the tacks or plugs done; null for a seam or stitch. */
  from: z.number().int().min(1).max(10_000).nullable(),
  to: z.number().int().min(1).max(10_000).nullable(),
  /**
   * What it was made at: the revision of the card, where the tacks or plugs were put (mm along the
   * edge), and whether the card had been turned over by then. Null in records from before this was
   * written down.
   */
  made: z
    .object({
      revision: version,
      placesMm: z.array(z.number().min(-1000).max(100_000)).max(2000),
      turned: z.boolean(),
    })
    .nullable(),
  settings: WeldSettingsSchema,
  note: text(4000),
  withdrawn,
});
export type WeldRecord = z.infer<typeof WeldSchema>;

export const InspectionSchema = z.object({
  at: moment,
  who: text(60),
  edge,
  kind: z.enum(INSPECTIONS),
  sound: z.boolean(),
  /** Thickness left or step found, mm, where the kind measures one. */
  readingMm: z.number().min(-50).max(50).nullable(),
  finding: text(2000),
  remedy: text(2000),
  withdrawn,
});
export type InspectionRecord = z.infer<typeof InspectionSchema>;

/**
 * A picture in a job file: its file lies in `pictures/`, named by its digest; what hangs on it is
 * said here.
 */
const picture = PictureSaidSchema.extend({
  digest: z.string().regex(/^[0-9a-f]{64}$/),
  type: z.enum(['jpeg', 'png', 'webp']),
  width: z.number().int().min(1).max(100_000),
  height: z.number().int().min(1).max(100_000),
  bytes: z.number().int().min(1).max(100_000_000),
  name: text(120),
  taken: moment.nullable(),
  at: moment,
  putAway: moment.nullable(),
});
const record = z.number().int().min(0).max(100_000);
/**
 * What a picture of a piece hangs on: the piece, an edge by its id, or a record by its place in its
 * list from 0.
 */
const onPiece = z.discriminatedUnion('owner', [
  z.object({ owner: z.literal('piece') }),
  z.object({ owner: z.literal('edge'), edge }),
  z.object({ owner: z.enum(RECORD_KINDS), record }),
]);
const PiecePictureSchema = picture.extend({ on: onPiece });
/** What a picture of the job hangs on: the job itself, or something surveyed of it, by its id. */
const onJob = z.discriminatedUnion('owner', [
  z.object({ owner: z.literal('job') }),
  z.object({ owner: z.literal('survey'), id: text(50) }),
]);
const JobPictureSchema = picture.extend({ on: onJob });
export type PictureFile = z.infer<typeof picture>;
export type JobPictureFile = z.infer<typeof JobPictureSchema>;
export type PiecePictureFile = z.infer<typeof PiecePictureSchema>;
const MAX_PICTURES = 20_000;

/** The versions of a document, and the one in use (0 before there is one). */
export type History<Doc> = {
  current: number;
  versions: { number: number; parent: number; at: string; doc: Doc }[];
};

/**
 * A history hangs together: numbers once each, every parent an earlier one or none, the one in use
 * among them.
 */
const hangsTogether = ({ current, versions }: History<unknown>): boolean => {
  const numbers = new Set(versions.map((v) => v.number));
  return (
    numbers.size === versions.length &&
    versions.every((v) => v.parent < v.number && (v.parent === 0 || numbers.has(v.parent))) &&
    (current === 0 || numbers.has(current))
  );
};

const historyOf = <S extends z.ZodType>(doc: S) =>
  z
    .object({
      current: version,
      versions: z
        .array(z.object({ number: version.min(1), parent: version, at: moment, doc }))
        .max(100_000),
    })
    .refine((history) => hangsTogether(history as History<unknown>), {
      error: 'the history does not hang together',
    });

/** How a piece can have come from another: as its mirror, or as a second try. */
export const CAME_AS = ['other-side', 'again'] as const;
export type CameAs = (typeof CAME_AS)[number];
/** Why a second try was made, as it was put. */
export const why = text(400);

export const PieceFileSchema = PieceFactsSchema.extend({
  created: moment,
  archived: moment.nullable(),
  /** The piece it was made from, by its place in the file (before this one), how, and why. */
  came: z.object({ piece: record, as: z.enum(CAME_AS), why }).nullable(),
  /** What is surveyed of it: points, findings and braces of the job by their ids. */
  survey: PieceSurveySchema,
  /** How it is folded, and how far it is. */
  folding: FoldingFileSchema,
  shaping: ShapingSchema,
  /** How it was brought to size, where it was not made here. */
  cutDown: CutDownSchema,
  card: historyOf(PatternSchema),
  plan: historyOf(PlanSchema),
  /**
   * Each time the pattern left the house, on paper or as a file; `digest` says what it was made
   * from.
   */
  prints: z
    .array(z.object({ at: moment, what: text(40), revision: version, digest: text(40).nullable() }))
    .max(10_000),
  fits: z.array(FitSchema).max(10_000),
  welds: z.array(WeldSchema).max(100_000),
  inspections: z.array(InspectionSchema).max(100_000),
  pictures: z.array(PiecePictureSchema).max(MAX_PICTURES),
});
export type PieceFile = z.infer<typeof PieceFileSchema>;

export const JOB_VERSION = 12;

/** As many pieces as a job file may hold. */
export const MAX_PIECES = 2000;

/** What a job file says of the job itself; its pieces come after. */
export const JobHeadSchema = z.object({
  format: z.literal('patrone-job'),
  version: z.literal(JOB_VERSION),
  /** The version of the program that wrote it; left out by older ones. */
  program: text(20).optional(),
  job: JobFactsSchema.extend({ created: moment, archived: moment.nullable() }),
  /** Reference points, measures, rounds, openings, braces and findings of the whole vehicle. */
  survey: z.array(SurveyedSchema).max(MAX_SURVEYED),
  /** Named parts of the vehicle, joints, hollows: pieces by their place in the file. */
  structure: z.array(StructureFileSchema).max(MAX_STRUCTURE),
  /** Pictures of the job itself; those of its pieces are with them. */
  pictures: z.array(JobPictureSchema).max(MAX_PICTURES),
});
export type JobHead = z.infer<typeof JobHeadSchema>;

/**
 * A whole job in one file. No database ids: what hangs together does so by place in the file and by
 * edge id.
 */
export const JobFileSchema = JobHeadSchema.extend({
  pieces: z.array(PieceFileSchema).max(MAX_PIECES),
});
export type JobFile = z.infer<typeof JobFileSchema>;

/** A job file as text: JSON in schema order, so that writing what was read gives the same bytes. */
export const writeJob = ({ pieces, ...head }: JobFile): string =>
  [
    jobFileHead(head, pieces.length > 0),
    ...pieces.map(jobFilePiece),
    jobFileEnd(pieces.length > 0),
  ].join('');

/*
 * The same text in parts, for a job that is larger than one would hold in memory: the head, each piece by its place from
 * 0, the end.
 */
export const jobFileHead = (head: JobHead, anyPieces: boolean): string =>
  written(JobHeadSchema.parse(head)).replace(/\s*}$/, `,\n  "pieces": [${anyPieces ? '\n' : ''}`);
export const jobFilePiece = (piece: PieceFile, place: number): string =>
  `${place > 0 ? ',\n' : ''}    ${written(PieceFileSchema.parse(piece), '    ')}`;
export const jobFileEnd = (anyPieces: boolean): string => (anyPieces ? '\n  ]\n}\n' : ']\n}\n');
