import { z } from 'zod';
import { formatLength, formatThin } from '#core/measure/length';
import { metalById } from '#core/metal/metals';
import type { Paper } from '#core/sheet/tiles';
import { PAPERS } from '#core/sheet/tiles';
import { formatDay } from '../frame/dates';
import { preferencesFrom } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { SIDE_WORDS } from '../piece/sideWords';
import { loadPiece } from '../piece/loaded/loaded.server';
import { idOr404 } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import { drawnFor } from '../workers/papers.server';
import type { Route } from './+types/checkingStripFile';
import { drawStrip } from './stripFile';

const AskedSchema = z.object({
  lie: z.enum(['hollow', 'full']).default('hollow'),
  as: z.enum(['pdf', 'svg', 'dxf']).default('pdf'),
  paper: z.enum(Object.keys(PAPERS) as [Paper, ...Paper[]]).default('a4'),
});
const TYPES = { pdf: 'application/pdf', svg: 'image/svg+xml', dxf: 'image/vnd.dxf' };

/** A profile of the card in use as a checking strip, full size. */
export async function loader({ params, request, context }: Route.LoaderArgs) {
  const asked = AskedSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  const piece = await loadPiece(context.get(viewerIn), idOr404(params.pieceId));
  const profile = piece?.card.doc.profiles.find(({ id }) => id === params.profileId);
  if (!asked.success || !piece || !profile) throw new Response(null, { status: 404 });
  const { lie, as, paper } = asked.data;
  const { facts, shop, job, card } = piece;
  const { unit, dates } = preferencesFrom(request.headers.get('cookie') ?? '', shop);
  const head = {
    title: facts.name,
    lies: SIDE_WORDS[facts.side].toUpperCase(),
    what: `strip ${profile.name}`,
    revision: card.number,
    shop: shop.name,
    job: job.name,
    sheet: `${metalById(facts.metal).name} ${formatThin(facts.thicknessMm, unit)}`,
    date: formatDay(new Date().toISOString(), dates),
    lengths: unit === 'mm' ? 'millimetres' : 'inches',
    paper,
  };
  const drawn = await drawnFor(request, drawStrip, { profile, lie, as, head });
  if (!drawn.ok)
    throw new Response(
      problemSentence(drawn.problems[0]!, null, (mm) => formatLength(mm, unit)),
      { status: 422 },
    );
  return new Response(drawn.body as BodyInit, {
    headers: {
      'Content-Type': TYPES[as],
      'Content-Disposition': `attachment; filename="strip-${lie}.${as}"`,
      'Cache-Control': 'no-store',
    },
  });
}
