import { z } from 'zod';
import { unfolded } from '../blank/fold/folding';
import { uncut } from '../cutdown/uncut';
import { unshaped } from '../shape/shaping';
import { readPattern } from '../card/read';
import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import { unsurveyed } from '../survey/pieceSurvey';
import type { StructureFile } from '../joint/structure';
import type { EdgeWord } from '../joint/fromWords';
import { structureOfWords } from '../joint/fromWords';
import { planOfVersion1, readPlan, wordsOfPlan } from '../weld/readPlan';
import type { JobFile, JobHead, PieceFile } from './job';
import { withOwnIds } from '../card/eachOnce';
import { HELD } from './lists';
import { JOB_VERSION, JobHeadSchema, MAX_PIECES, PieceFileSchema } from './job';

const AnyHeadSchema = z.looseObject({
  format: z.literal('patrone-job'),
  version: z.number().int().min(1),
});

/**
 * A piece in a job file of version 1 as far as it differs: cards as a list of revisions, the plan
 * on the edges of the card.
 */
const V1PieceSchema = z.looseObject({
  revision: z.number(),
  revisions: z.array(
    z.looseObject({ number: z.number(), parent: z.number(), at: z.string(), pattern: z.unknown() }),
  ),
  prints: z.array(z.looseObject({})),
  fits: z.array(z.looseObject({ edges: z.array(z.looseObject({})) })),
  welds: z.array(z.looseObject({})),
  inspections: z.array(z.looseObject({})),
});

function fromVersion1({ revision, revisions, ...piece }: z.output<typeof V1PieceSchema>): unknown {
  const inUse = revisions.find((r) => r.number === revision);
  const plan = inUse && planOfVersion1(inUse.pattern);
  return {
    ...piece,
    card: {
      current: revision,
      versions: revisions.map(({ number, parent, at, pattern }) => ({
        number,
        parent,
        at,
        doc: pattern,
      })),
    },
    plan: plan
      ? { current: 1, versions: [{ number: 1, parent: 0, at: inUse.at, doc: plan }] }
      : { current: 0, versions: [] },
    prints: piece.prints.map((print) => ({ ...print, digest: null })),
    fits: piece.fits.map((fit) => ({
      ...fit,
      withdrawn: null,
      edges: fit.edges.map((edge) => ({ ...edge, turned: false, own: true })),
    })),
    welds: piece.welds.map((weld) => ({ ...weld, made: null, withdrawn: null })),
    inspections: piece.inspections.map((inspection) => ({ ...inspection, withdrawn: null })),
  };
}

const V3SurveyedSchema = z.looseObject({ body: z.looseObject({ kind: z.string() }) });
const V3RoundSchema = z.looseObject({ readings: z.record(z.string(), z.looseObject({})) });

/**
 * What is surveyed of a job in a file of version 3: measures had no partner, and readings were not
 * kept as written.
 */
function surveyFromVersion3(given: unknown): unknown {
  const one = V3SurveyedSchema.safeParse(given);
  if (!one.success) return given;
  const { body, ...rest } = one.data;
  if (body.kind === 'measure') return { ...rest, body: { ...body, partner: null } };
  const round = body.kind === 'round' ? V3RoundSchema.safeParse(body) : null;
  if (!round?.success) return given;
  const readings = Object.entries(round.data.readings).map(([id, reading]) => [
    id,
    { ...reading, as: '' },
  ]);
  return { ...rest, body: { ...round.data, readings: Object.fromEntries(readings) as unknown } };
}

const V7FitsSchema = z.looseObject({ fits: z.array(z.looseObject({})) });

/** A piece of version 7: a trial did not say who made it. */
function fromVersion7(given: unknown): unknown {
  const read = V7FitsSchema.safeParse(given);
  return read.success
    ? { ...read.data, fits: read.data.fits.map((fit) => ({ ...fit, who: '' })) }
    : given;
}

/** A piece of version 9: sheet pins went by another word, the only one that is none of today's. */
function fromVersion9(given: unknown): unknown {
  const read = V7FitsSchema.safeParse(given);
  return read.success
    ? {
        ...read.data,
        fits: read.data.fits.map((fit) =>
          (HELD as readonly unknown[]).includes(fit.held) ? fit : { ...fit, held: 'sheet-pins' },
        ),
      }
    : given;
}

const ListsSchema = z.looseObject({
  pictures: z.array(z.looseObject({})).optional(),
  survey: z.union([z.looseObject({}), z.array(z.unknown())]).optional(),
  shaping: z.looseObject({}).optional(),
});

/** A head or a piece in whose lists each id stands once: older programs did not see to it. */
function withEachOnce(given: unknown): unknown {
  const read = ListsSchema.safeParse(given);
  if (!read.success) return given;
  const { pictures, survey, shaping } = read.data;
  return {
    ...read.data,
    ...(pictures && {
      pictures: pictures.map((one) => ({ ...one, marks: withOwnIds(one.marks) })),
    }),
    ...(survey &&
      !Array.isArray(survey) && {
        survey: { ...survey, options: withOwnIds(survey.options) },
      }),
    ...(shaping && { shaping: { ...shaping, own: withOwnIds(shaping.own, 'key') } }),
  };
}

const HistorySchema = z.looseObject({
  current: z.number(),
  versions: z.array(z.looseObject({ number: z.number(), doc: z.unknown() })),
});
const DocumentsSchema = z.looseObject({ card: HistorySchema, plan: HistorySchema });

const unreadable = (error: z.ZodError, ...before: (string | number)[]) =>
  failure(
    stop('job-unreadable', [[...before, ...(error.issues[0]?.path ?? [])].join(' ') || 'file']),
  );

/**
 * What a job file says of the job, and the version its pieces are written in.
 *
 * Problems (stop): `job-not-one` for anything that is no job file, `job-too-new`, `job-unreadable`
 * (about: the place in it, in words of the file).
 */
export function readJobHead(given: unknown): Result<{ head: JobHead; version: number }> {
  const any = AnyHeadSchema.safeParse(given);
  if (!any.success) return failure(stop('job-not-one', []));
  const { version } = any.data;
  if (version > JOB_VERSION)
    return failure(stop('job-too-new', [], { version, knownVersion: JOB_VERSION }));
  const { survey } = any.data;
  // Before version 3 there were neither surveys nor pictures.
  const inThree = version < 3 ? { ...any.data, survey: [], pictures: [] } : any.data;
  const inFour =
    version === 3 && Array.isArray(survey)
      ? { ...inThree, survey: survey.map(surveyFromVersion3) }
      : inThree;
  // Before version 12 what edges meet stood in the plans of the pieces.
  const inTwelve = version < 12 ? { ...inFour, structure: [] } : inFour;
  const brought = { ...inTwelve, version: JOB_VERSION };
  const read = JobHeadSchema.safeParse(withEachOnce(brought));
  return read.success ? { ok: true, head: read.data, version } : unreadable(read.error);
}

/**
 * A piece of a job file of a version, by its place in it from 0: brought up to date, every document
 * through its own door.
 *
 * Problems (stop): `job-unreadable` (about: the place in the file), those of `readPattern` and
 * `readPlan` (about: the place, then theirs). From version 3 on records are about edges that the
 * card has or had: older programs did not see to it. `words`: what its edges were said to meet,
 * before version 12.
 */
export function readJobPiece(
  given: unknown,
  version: number,
  place: number,
): Result<{ piece: PieceFile; words: EdgeWord[] }> {
  if (place >= MAX_PIECES)
    return failure(stop('job-unreadable', [`more than ${MAX_PIECES} pieces`]));
  const old = version === 1 ? V1PieceSchema.safeParse(given) : null;
  const inTwo = old?.success ? fromVersion1(old.data) : given;
  const inThree = version < 3 && typeof inTwo === 'object' ? { ...inTwo, pictures: [] } : inTwo;
  const inFour =
    version < 4 && typeof inThree === 'object' ? { ...inThree, survey: unsurveyed() } : inThree;
  const inFive = version < 5 && typeof inFour === 'object' ? { ...inFour, came: null } : inFour;
  const inSix =
    version < 6 && typeof inFive === 'object' ? { ...inFive, folding: unfolded() } : inFive;
  const inSeven =
    version < 7 && typeof inSix === 'object' ? { ...inSix, shaping: unshaped() } : inSix;
  const inEight = version < 8 ? fromVersion7(inSeven) : inSeven;
  const inTen = version < 10 ? fromVersion9(inEight) : inEight;
  // Before version 11 every piece was made from a card.
  const inEleven =
    version < 11 && typeof inTen === 'object'
      ? { ...inTen, kind: 'made', cutDown: uncut() }
      : inTen;
  const brought = withEachOnce(inEleven);
  const parts = DocumentsSchema.safeParse(brought);
  const words: EdgeWord[] = [];
  if (parts.success) {
    const { current, versions } = parts.data.plan;
    words.push(...wordsOfPlan(versions.find(({ number }) => number === current)?.doc));
    // Each document by its own reader, so that one of an older version comes up to date wherever it
    // stands.
    for (const [kind, read] of [
      ['card', readPattern],
      ['plan', readPlan],
    ] as const) {
      for (const [k, version] of parts.data[kind].versions.entries()) {
        const found = read(version.doc);
        if (!found.ok) {
          const where = `piece ${place + 1}, ${kind} ${k + 1}`;
          return failure(
            ...found.problems.map((p) => ({ ...p, about: [where, ...(p.about ?? [])] })),
          );
        }
        version.doc = found.doc;
      }
    }
  }
  const read = PieceFileSchema.safeParse(parts.success ? parts.data : brought);
  if (!read.success) return unreadable(read.error, 'pieces', place);
  const piece = read.data;
  const lists = { fit: piece.fits, weld: piece.welds, inspection: piece.inspections };
  const lost = piece.pictures.findIndex(
    ({ on }) => 'record' in on && on.record >= lists[on.owner].length,
  );
  if (lost >= 0) return failure(stop('job-unreadable', [`pieces ${place} pictures ${lost} on`]));
  if (piece.came && piece.came.piece >= place)
    return failure(stop('job-unreadable', [`pieces ${place} came piece`]));
  const stray = version < 3 ? null : strayRecord(piece);
  if (stray) return failure(stop('job-unreadable', [`pieces ${place} ${stray} edge`]));
  return { ok: true, piece, words };
}

/**
 * The first record that is about an edge no version of the card has had, by its list and place;
 * null where none is.
 */
function strayRecord(piece: PieceFile): string | null {
  const { fits, welds, inspections, pictures } = piece;
  const edges = edgesEver(piece);
  const lists: [string, readonly string[]][] = [
    ...fits.map(({ edges: read }, i): [string, string[]] => [
      `fits ${i}`,
      read.map(({ edge }) => edge),
    ]),
    ...welds.map(({ edge }, i): [string, string[]] => [`welds ${i}`, [edge]]),
    ...inspections.map(({ edge }, i): [string, string[]] => [`inspections ${i}`, [edge]]),
    ...pictures.map(({ on }, i): [string, string[]] => [
      `pictures ${i}`,
      on.owner === 'edge' ? [on.edge] : [],
    ]),
  ];
  return lists.find(([, about]) => about.some((edge) => !edges.has(edge)))?.[0] ?? null;
}

/** The ids of the edges that a piece has or had. */
export const edgesEver = ({ card }: PieceFile): Set<string> =>
  new Set(card.versions.flatMap(({ doc }) => doc.edges.map((edge) => edge.id)));

/**
 * The first part of a job's structure that names what is not there, by its id: a piece or an edge by
 * `edges` (of each piece, by its place), another part of the structure; null where all hangs together.
 */
export function strayStructure(
  structure: readonly StructureFile[],
  edges: readonly ReadonlySet<string>[],
): string | null {
  const kinds = new Map(structure.map(({ id, body }) => [id, body.kind]));
  if (kinds.size < structure.length)
    return structure.find(({ id }, i) => structure.findIndex((one) => one.id === id) < i)!.id;
  const isThere = (one: { piece: number; edge?: string } | { part: string } | { joint: string }) =>
    'part' in one
      ? kinds.get(one.part) === 'part'
      : 'joint' in one
        ? kinds.get(one.joint) === 'joint'
        : one.piece < edges.length && (one.edge === undefined || edges[one.piece]!.has(one.edge));
  const stray = structure.find(({ body }) => {
    if (body.kind === 'joint') return !isThere(body.first) || !isThere(body.second);
    return body.kind === 'hollow' && !body.bounds.every(isThere);
  });
  return stray?.id ?? null;
}

/** A whole job file: its head, then every piece, each by its own door. Problems: theirs. */
export function readJob(given: unknown): Result<{ job: JobFile }> {
  const read = readJobHead(given);
  if (!read.ok) return read;
  const list = z.object({ pieces: z.array(z.unknown()) }).safeParse(given);
  if (!list.success) return unreadable(list.error);
  const pieces: PieceFile[] = [];
  const words: EdgeWord[][] = [];
  for (const [place, given] of list.data.pieces.entries()) {
    const found = readJobPiece(given, read.version, place);
    if (!found.ok) return found;
    pieces.push(found.piece);
    words.push(found.words);
  }
  const structure = [...read.head.structure, ...structureOfWords(words, read.head.job.created)];
  const stray = strayStructure(structure, pieces.map(edgesEver));
  if (stray !== null) return failure(stop('job-unreadable', [`structure ${stray}`]));
  return { ok: true, job: { ...read.head, structure, pieces } };
}
