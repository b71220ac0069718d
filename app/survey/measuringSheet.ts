import { inDegrees } from '#core/survey/kinds';
import { inHand } from '#core/survey/inHand';
import { PAPERS } from '#core/sheet/tiles';
import type { Paper } from '#core/sheet/tiles';
import { data } from 'react-router';
import { z } from 'zod';
import { formatDay } from '../frame/dates';
import { preferencesFrom } from '../frame/preferences';
import { picturePath } from '../pictures/pictureFiles.server';
import { jobById } from '../records/jobs.server';
import { idOr404 } from '../records/parse.server';
import { picturesOf } from '../records/pictures.server';
import { shopSettings } from '../records/shop.server';
import { surveyOf } from '../records/survey.server';
import { viewerIn } from '../records/viewer.server';
import { drawnFor } from '../workers/papers.server';
import type { Route } from './+types/measuringSheet';
import { MAX_PRINTED, drawMeasuringSheet } from './measuringSheetFile';

/**
 * The measuring sheet of a job: every measure with a box to write in, and the pictures of its
 * points.
 */
export async function loader({ params, request, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const job = await jobById(viewer, idOr404(params.jobId));
  if (!job) throw data(null, { status: 404 });
  const shop = await shopSettings(viewer);
  const { unit, dates } = preferencesFrom(request.headers.get('cookie') ?? '', shop);
  const asked = new URL(request.url).searchParams.get('paper') ?? (unit === 'mm' ? 'a4' : 'letter');
  const paper = z.enum(Object.keys(PAPERS) as [Paper, ...Paper[]]).safeParse(asked);
  if (!paper.success) throw data(null, { status: 404 });
  const [survey, pictures] = [
    await surveyOf(viewer, job.id),
    await picturesOf(viewer, { job: job.id, piece: null }),
  ];
  const points = inHand(survey, 'point');
  const nameOf = (id: string | null) => points.find((point) => point.id === id)?.name ?? '';
  const ofPoints = pictures.filter(
    ({ owner, of, putAway }) => owner === 'survey' && !putAway && nameOf(of) !== '',
  );
  const body = await drawnFor(request, drawMeasuringSheet, {
    job: job.name,
    shop: shop.name,
    date: formatDay(new Date().toISOString(), dates),
    unit,
    paper: paper.data,
    rows: inHand(survey, 'measure').map(({ name, from, to, where, of }) => ({
      name,
      from: nameOf(from),
      to: nameOf(to),
      where,
      degrees: inDegrees(of),
    })),
    pictures: ofPoints
      .slice(0, MAX_PRINTED)
      .map(({ digest, type, width, height, of, caption, marks }) => ({
        path: picturePath(digest, type, 'large'),
        width,
        height,
        of: nameOf(of),
        caption,
        marks,
      })),
    more: Math.max(0, ofPoints.length - MAX_PRINTED),
  });
  return new Response(body as BodyInit, {
    headers: {
      'Content-Type': 'application/pdf',
      'Content-Disposition': 'attachment; filename="measuring-sheet.pdf"',
      'Cache-Control': 'no-store',
    },
  });
}
