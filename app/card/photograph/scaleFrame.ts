import { data } from 'react-router';
import { z } from 'zod';
import type { Paper } from '#core/picture/scaleFrame';
import { PAPERS } from '#core/picture/scaleFrame';
import { preferencesFrom } from '../../frame/preferences';
import { shopSettings } from '../../records/shop.server';
import { viewerIn } from '../../records/viewer.server';
import { drawnFor } from '../../workers/papers.server';
import type { Route } from './+types/scaleFrame';
import { drawScaleFrame } from './scaleFrameFile';

const AskedSchema = z.object({
  paper: z.enum(Object.keys(PAPERS) as [Paper, ...Paper[]]).default('a4'),
  middle: z.enum(['white', 'dark']).default('white'),
  cards: z.enum(['0', '1']).default('0'),
});

/** The scale frame, or the four corner cards, to be printed. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const asked = AskedSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!asked.success) throw data(null, { status: 404 });
  const { paper, middle, cards } = asked.data;
  const shop = await shopSettings(context.get(viewerIn));
  const { unit } = preferencesFrom(request.headers.get('cookie') ?? '', shop);
  const given =
    cards === '1'
      ? ({ kind: 'cards', paper: unit === 'mm' ? 'a4' : 'letter' } as const)
      : ({ kind: 'frame', paper, middle } as const);
  const body = await drawnFor(request, drawScaleFrame, given);
  return new Response(body as BodyInit, {
    headers: {
      'Content-Type': 'application/pdf',
      'Content-Disposition': `attachment; filename="${cards === '1' ? 'corner-cards' : `scale-frame-${paper}`}.pdf"`,
      'Cache-Control': 'no-store',
    },
  });
}
