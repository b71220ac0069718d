import { z } from 'zod';
import { readPattern } from '../card/read';
import type { Result } from '../measure/result';
import { failure, stop } from '../measure/result';
import { planOfVersion1, readPlan } from '../weld/readPlan';
import type { JobFile } from './job';
import { JOB_VERSION, JobFileSchema } from './job';

const HeadSchema = z.looseObject({ format: z.literal('patrone-job'), version: z.number() });

/** A job file of version 1 as far as it differs: cards as a list of revisions, plans on the edges of the cards. */
const V1Schema = z.looseObject({
  version: z.literal(1),
  pieces: z.array(
    z.looseObject({
      revision: z.number(),
      revisions: z.array(
        z.looseObject({ number: z.number(), parent: z.number(), at: z.string(), pattern: z.unknown() }),
      ),
      prints: z.array(z.looseObject({})),
      fits: z.array(z.looseObject({ edges: z.array(z.looseObject({})) })),
      welds: z.array(z.looseObject({})),
      inspections: z.array(z.looseObject({})),
    }),
  ),
});

function fromVersion1(given: z.output<typeof V1Schema>): unknown {
  return {
    ...given,
    version: 2,
    pieces: given.pieces.map(({ revision, revisions, ...piece }) => {
      const inUse = revisions.find((r) => r.number === revision);
      const plan = inUse && planOfVersion1(inUse.pattern);
      return {
        ...piece,
        card: {
          current: revision,
          versions: revisions.map(({ number, parent, at, pattern }) => ({ number, parent, at, doc: pattern })),
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
    }),
  };
}

const HistorySchema = z.looseObject({ versions: z.array(z.looseObject({ doc: z.unknown() })) });
const PiecesSchema = z.looseObject({
  pieces: z.array(z.looseObject({ card: HistorySchema, plan: HistorySchema })),
});

/**
 * The one door for job files: brought up from any older version, every document in it through its own door.
 *
 * Problems (stop): `job-not-one` for anything that is no job file, `job-too-new`, `job-unreadable` (about: the place in
 * it, in words of the file), those of `readPattern` and `readPlan` (about: the place, then theirs).
 */
export function readJob(given: unknown): Result<{ job: JobFile }> {
  const head = HeadSchema.safeParse(given);
  if (!head.success) return failure(stop('job-not-one', []));
  if (head.data.version > JOB_VERSION) {
    return failure(stop('job-too-new', [], { version: head.data.version, knownVersion: JOB_VERSION }));
  }
  const old = V1Schema.safeParse(given);
  const brought = old.success ? fromVersion1(old.data) : given;
  const parts = PiecesSchema.safeParse(brought);
  if (parts.success) {
    // Each document by its own reader, so that one of an older version comes up to date wherever it stands.
    for (const [i, piece] of parts.data.pieces.entries()) {
      for (const [kind, read] of [
        ['card', readPattern],
        ['plan', readPlan],
      ] as const) {
        for (const [k, version] of piece[kind].versions.entries()) {
          const found = read(version.doc);
          if (!found.ok) return failure(...found.problems.map((p) => ({ ...p, about: [`piece ${i + 1}, ${kind} ${k + 1}`, ...(p.about ?? [])] }))); // prettier-ignore
          version.doc = found.doc;
        }
      }
    }
  }
  const read = JobFileSchema.safeParse(parts.success ? parts.data : brought);
  if (read.success) return { ok: true, job: read.data };
  return failure(stop('job-unreadable', [read.error.issues[0]?.path.join(' ') || 'file']));
}
