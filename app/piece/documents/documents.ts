import { z } from 'zod';
import { namedParts, namingParts, withParts } from '#core/card/crownParts';
import { readPattern } from '#core/card/read';
import type { DocumentKind, Documents } from '#core/format/documents';
import { DOCUMENTS } from '#core/format/documents';
import { metalById } from '#core/metal/metals';
import { lengthsFor } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import type { Saved, Step } from '../../records/documents.server';
import { keptParts, saveDocument, stepDocument } from '../../records/documents.server';
import { pieceById } from '../../records/pieces.server';
import { shopSettings } from '../../records/shop.server';
import type { Viewer } from '../../records/viewer.server';
import { viewerIn } from '../../records/viewer.server';
import type { Route } from './+types/documents';
import { reckoned } from '../loaded/reckoned';

const base = z.number().int().min(0).max(2_147_483_647);
/** The ids of the heavy parts that the page holds: they are named in the answer, and not sent. */
const known = z.array(z.string().max(60)).max(8).default([]);
const Body = z.discriminatedUnion('intent', [
  z.object({
    intent: z.literal('save'),
    base,
    known,
    doc: z.unknown(),
    about: z.string().max(80).default(''),
    by: z.string().max(40).default(''),
  }),
  z.object({ intent: z.enum(['undo', 'redo', 'last-good']), base, known }),
]);

const refused = (message: string, problems: unknown[] = [], status = 422) =>
  Response.json({ kind: 'refused', message, problems }, { status });

/** A document as it stands, without the heavy parts that the page holds. */
function answered<Doc>({ kind, state }: Saved<Doc>, held: readonly string[]): Response {
  const parts = Object.entries(state.parts).filter(([, id]) => held.includes(id));
  const doc = namingParts(state.doc, Object.fromEntries(parts));
  return Response.json(
    { ...state, doc, asOf: Date.now() },
    { status: kind === 'stale' ? 409 : 200 },
  );
}

/**
 * Saves a version of a document of a piece, or goes one back or forward. 409 with the document as
 * it stands when the base is no longer in use; 422 with why when what was sent can't be kept; 428
 * when a heavy part that it names is not there, and is to be sent.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = z.uuid().safeParse(params.pieceId);
  const kind = z.enum(['card', 'plan']).safeParse(params.kind);
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!id.success || !kind.success) return refused('There is no such piece.', [], 404);
  if (!body.success) return refused('What was sent could not be read.', [], 400);
  const given = body.data;
  return given.intent === 'save'
    ? save(viewer, id.data, kind.data, given, lengthsFor(request))
    : step(viewer, id.data, kind.data, given);
}

async function save<K extends DocumentKind>(
  viewer: Viewer,
  piece: string,
  kind: K,
  {
    base: from,
    doc: sent,
    about,
    by,
    known: held,
  }: Extract<z.infer<typeof Body>, { intent: 'save' }>,
  show: (mm: number) => string,
) {
  const doc = withParts(sent, await keptParts(viewer, piece, sent));
  if (Object.keys(namedParts(doc)).length > 0)
    return refused('The panel of this card is to be sent whole.', [], 428);
  const read = DOCUMENTS[kind].read(doc);
  if (!read.ok) {
    const card = readPattern(doc);
    return refused(
      read.problems.map((p) => problemSentence(p, card.ok ? card.doc : null, show)).join(' '),
      read.problems,
    );
  }
  const found = await saveDocument(viewer, piece, kind, from, read.doc, about, by);
  return found ? answered(found, held) : refused('There is no such piece.', [], 404);
}

async function step<K extends DocumentKind>(
  viewer: Viewer,
  piece: string,
  kind: K,
  { base: from, intent, known: held }: { base: number; intent: Step; known: string[] },
) {
  const row = await pieceById(viewer, piece);
  if (!row) return refused('There is no such piece.', [], 404);
  const shop = await shopSettings(viewer);
  const isGood = (doc: Documents[K]): boolean =>
    kind !== 'card' ||
    reckoned(doc as Documents['card'], metalById(row.metal), row.thicknessMm, shop).development.ok;
  const found = await stepDocument(viewer, piece, kind, from, intent, isGood);
  return found ? answered(found, held) : refused('There is no such piece.', [], 404);
}
