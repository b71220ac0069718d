import { sheetMetal } from '#core/blank/fold/practice';
import { formatLength, formatThin } from '#core/measure/length';
import { metalById } from '#core/metal/metals';
import type { Paper } from '#core/sheet/tiles';
import { PAPERS } from '#core/sheet/tiles';
import { z } from 'zod';
import { formatDay } from '../frame/dates';
import { preferencesFrom } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { gapEdges } from '../piece/loaded/shapeSteps';
import { joinedOf } from '../piece/road/joined';
import { loadPiece } from '../piece/loaded/loaded.server';
import { idOr404 } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import { drawnFor } from '../workers/papers.server';
import type { Route } from './+types/benchCard';
import { drawBenchCard } from './benchCardFile';
import { brakeFor } from '../folding/foldRows';

/** The order of folding a piece on paper, for the bench. */
export async function loader({ params, request, context }: Route.LoaderArgs) {
  const piece = await loadPiece(context.get(viewerIn), idOr404(params.pieceId));
  if (!piece) throw new Response(null, { status: 404 });
  const { facts, shop, job, card, plan, records } = piece;
  const { unit, dates } = preferencesFrom(request.headers.get('cookie') ?? '', shop);
  const asked = new URL(request.url).searchParams.get('paper') ?? (unit === 'mm' ? 'a4' : 'letter');
  const paper = z.enum(Object.keys(PAPERS) as [Paper, ...Paper[]]).safeParse(asked);
  const brake = brakeFor(shop, records.folding);
  if (!paper.success) throw new Response(null, { status: 404 });
  if (!brake)
    throw new Response('The shop has no machine to fold on: put one in its settings.', {
      status: 422,
    });
  const { structure, beyond } = records;
  const { id } = piece;
  const joined = joinedOf({ id, facts, pattern: card.doc, plan: plan.doc, structure, beyond });
  const { brakeLine, relief, shortestFlangeMm, springs } = shop;
  const metal = metalById(facts.metal);
  const drawn = await drawnFor(request, drawBenchCard, {
    pattern: { ...card.doc, taken: null },
    metal: facts.metal,
    sheet: sheetMetal(metal, facts.thicknessMm, shop),
    practice: { brakeLine, relief, shortestFlangeMm },
    brake,
    springs,
    longFirst: shop.longFolds === 'early',
    folding: records.folding,
    gaps: gapEdges(card.doc, (edge) => joined.meetings.has(edge)),
    head: {
      title: facts.name,
      job: job.name,
      shop: shop.name,
      sheet: `${metal.name} ${formatThin(facts.thicknessMm, unit)}`,
      revision: card.number,
      date: formatDay(new Date().toISOString(), dates),
    },
    unit,
    paper: paper.data,
  });
  if (!drawn.ok)
    throw new Response(
      problemSentence(drawn.problems[0]!, card.doc, (mm) => formatLength(mm, unit)),
      { status: 422 },
    );
  return new Response(drawn.body as BodyInit, {
    headers: {
      'Content-Type': 'application/pdf',
      'Content-Disposition': 'attachment; filename="bench-card.pdf"',
      'Cache-Control': 'no-store',
    },
  });
}
