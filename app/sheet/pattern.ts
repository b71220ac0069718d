import { z } from 'zod';
import { metalById } from '#core/metal/metals';
import { PAPERS } from '#core/sheet/tiles';
import type { Paper } from '#core/sheet/tiles';
import { meetsWords } from '#core/joint/meetings';
import { plugHoles } from '#core/weld/plugs';
import { formatLength } from '#core/measure/length';
import { preferencesFrom } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { joinedOf } from '../piece/road/joined';
import { loadPiece } from '../piece/loaded/loaded.server';
import { printDigest } from '../piece/loaded/printDigest';
import { reckoned } from '../piece/loaded/reckoned';
import { once } from '../records/once.server';
import { notePrint } from '../records/pieces.server';
import type { Viewer } from '../records/viewer.server';
import { viewerIn } from '../records/viewer.server';
import { drawnFor } from '../workers/papers.server';
import type { Route } from './+types/pattern';
import { FILES, drawPattern } from './patternFiles';

const TYPES: Record<string, string> = {
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  dxf: 'image/vnd.dxf',
  csv: 'text/csv; charset=utf-8',
};

/** What a file of a piece is made from: its facts, the documents in use, the shop's practice. */
async function asked(viewer: Viewer, params: Route.LoaderArgs['params']) {
  const id = z.uuid().safeParse(params.pieceId);
  const file = z.enum(FILES).safeParse(params.file);
  const piece = id.success ? await loadPiece(viewer, id.data) : null;
  if (!piece || !file.success) throw new Response(null, { status: 404 });
  const { facts, card, plan, records } = piece;
  const { structure, beyond } = records;
  const { id: own } = piece;
  const joined = joinedOf({ id: own, facts, pattern: card.doc, plan: plan.doc, structure, beyond });
  return { ...piece, joined, file: file.data };
}

/**
 * Notes that a pattern leaves the house, with what it is made from. Asked for by the page; reading
 * a file notes nothing.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const { id, facts, file, card, joined, shop } = await asked(viewer, params);
  const metal = metalById(facts.metal);
  const { development: found } = reckoned(card.doc, metal, facts.thicknessMm, shop);
  if (!found.ok) throw new Response('There is no blank yet: mend the card first.', { status: 422 });
  const plugs = plugHoles(joined.plugsOn(found.development));
  const digest = printDigest(found.development, plugs, metal, facts.thicknessMm, shop);
  const { data: key } = z.uuid().safeParse(new URL(request.url).searchParams.get('key'));
  await once(viewer, key, async (tx) => void (await notePrint(id, file, card.number, digest, tx)));
  return Response.json({ noted: true });
}

/** A pattern leaving the house: the card in use, drawn as asked. */
export async function loader({ params, request, context }: Route.LoaderArgs) {
  const paper = z
    .enum(Object.keys(PAPERS) as [Paper, ...Paper[]])
    .safeParse(new URL(request.url).searchParams.get('paper') ?? 'a4');
  if (!paper.success) throw new Response(null, { status: 404 });
  const { facts, file, job, card, joined, shop } = await asked(context.get(viewerIn), params);
  // On paper as on the screen it was asked from.
  const { unit, dates } = preferencesFrom(request.headers.get('cookie') ?? '', shop);
  const perEdge = <T>(of: (edge: string) => T) =>
    Object.fromEntries(card.doc.edges.map(({ id }) => [id, of(id)]));
  const given = {
    file,
    paper: paper.data,
    unit,
    dates,
    facts,
    job: job.name,
    card: card.doc,
    revision: card.number,
    joined: {
      pattern: joined.pattern,
      plan: joined.plan,
      holes: perEdge(joined.holesAt),
      meets: perEdge((edge) => meetsWords(joined.meetings.get(edge))),
    },
    shop,
    at: new Date().toISOString(),
  };
  const drawn = await drawnFor(request, drawPattern, given);
  if (!drawn.ok) {
    const [why] = drawn.problems;
    throw new Response(
      problemSentence(why!, card.doc, (mm) => formatLength(mm, given.unit)),
      { status: 422 },
    );
  }
  const [what, ending] = file.split('.') as [string, string];
  const name = `${facts.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-${what}-r${card.number}.${ending}`;
  return new Response(drawn.body as BodyInit, {
    headers: {
      'Content-Type': TYPES[ending]!,
      'Content-Disposition': `attachment; filename="${name.replace(/[^\x20-\x7e]/g, '')}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'Cache-Control': 'no-store',
    },
  });
}
