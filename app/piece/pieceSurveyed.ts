import { data } from 'react-router';
import { z } from 'zod';
import { PieceSurveySchema } from '#core/survey/pieceSurvey';
import { inShort, toldOf } from '../records/changed.server';
import { once } from '../records/once.server';
import { Key, idOr404, parsedJson } from '../records/parse.server';
import { changePieceSurvey, pieceSurveyOf } from '../records/pieceSurvey.server';
import { pieceById } from '../records/pieces.server';
import { shopSettings } from '../records/shop.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/pieceSurveyed';
import { verdictOf } from './loaded/verdictKept.server';
import { SURVEY_WORDS } from './road/surveyWords';

const Some = PieceSurveySchema.partial();
const Body = z.object({ since: Some, mine: Some }).and(Key);

/**
 * Changes some of what is surveyed of a piece; answers the whole of it as it is now, and what is to
 * be said of it. 409 with what to say, and what is there (`now`), where another page has said
 * something else meanwhile.
 */
export async function action({ request, params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const id = idOr404(params.pieceId);
  const { key, since, mine } = await parsedJson(request, Body);
  const found = await once(viewer, key, (tx) => changePieceSurvey(id, since, mine, tx));
  const piece = await pieceById(viewer, id);
  if (!found || !piece) throw data(null, { status: 404 });
  const survey = pieceSurveyOf(piece);
  const { layersApartMm } = await shopSettings(viewer);
  const { job, structural, touched } = piece;
  const verdict = await verdictOf(viewer, { id, job, structural, survey, touched, layersApartMm });
  const answer = { survey, verdict };
  if (found.kind === 'saved') return Response.json(answer);
  return Response.json({ ...answer, ...toldOf(found, SURVEY_WORDS, inShort) }, { status: 409 });
}
