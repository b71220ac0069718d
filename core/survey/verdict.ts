import type { Layer } from './kinds';
import { inOneLine, notCompared } from './layerCuts';
import type { PieceSurvey } from './pieceSurvey';
import type { Surveyed } from './references';
import { inHand } from './inHand';
import type { RemovedPoints } from './removedPoints';
import { roundsBefore, removedPoints } from './removedPoints';

/** Another piece of the job: what it takes away, and whether that is out. */
export type OtherPiece = { name: string; survey: PieceSurvey };

/** What of the survey of a piece wants attention. Lengths in mm; points by their names. */
export type SurveyWarning =
  | { code: 'put-back-poor'; points: string[]; cut: boolean }
  | { code: 'not-a-plane' }
  | { code: 'no-brace' }
  | { code: 'not-braced-round' }
  | { code: 'one-line'; layers: [Layer, Layer]; apartMm: number; edge: string }
  | { code: 'not-compared'; layers: [Layer, Layer] }
  | { code: 'both-sides-out'; point: string; partner: string; piece: string };

export type SurveyVerdict = RemovedPoints & { warnings: SurveyWarning[] };

/**
 * What is to be said of a piece before, and after, its old metal is cut out: which references
 * cannot be put back as well as asked; of a structural one whether a brace of its own was in and a
 * round read with it; cuts of neighbouring layers in one line; references whose partners on the
 * other side another piece has out at the same time.
 */
export function surveyVerdict(given: {
  survey: PieceSurvey;
  structural: boolean;
  all: readonly Surveyed[];
  others: readonly OtherPiece[];
  /** Minimum distance between cuts of neighbouring layers, mm. */
  layersApartMm: number;
}): SurveyVerdict {
  const { survey, structural, all, others, layersApartMm } = given;
  const { cutOut } = survey;
  const away = removedPoints(survey, all);
  const warnings: SurveyWarning[] = [];
  const poor = away.points.filter(({ good }) => !good);
  // Back in its place and measured again, nothing hangs on it any more.
  if (poor.length > 0 && !cutOut?.backAt)
    warnings.push({
      code: 'put-back-poor',
      points: poor.map(({ point }) => point.name),
      cut: cutOut !== null,
    });
  if (away.notPlane && !cutOut?.backAt) warnings.push({ code: 'not-a-plane' });
  if (structural && cutOut && !cutOut.backAt) {
    const own = new Set(survey.braces);
    const inThen = inHand(all, 'brace').filter(
      (brace) =>
        own.has(brace.id) &&
        brace.in !== null &&
        brace.in <= cutOut.at &&
        !(brace.out && brace.out <= cutOut.at),
    );
    if (inThen.length === 0) warnings.push({ code: 'no-brace' });
    const read = roundsBefore(all, survey).filter(
      ({ stage, readings }) =>
        stage === 'braced' && Object.values(readings).some(({ value }) => value !== null),
    );
    if (read.length === 0) warnings.push({ code: 'not-braced-round' });
  }
  for (const line of inOneLine(survey.layerCuts, layersApartMm))
    warnings.push({ code: 'one-line', ...line });
  for (const layers of notCompared(survey.layerCuts))
    warnings.push({ code: 'not-compared', layers });
  if (!cutOut?.backAt)
    for (const { point } of away.points) {
      const partner = inHand(all, 'point').find(
        ({ id, partner }) => id === point.partner || partner === point.id,
      );
      const piece =
        partner &&
        others.find((other) => other.survey.takes.includes(partner.id) && isOut(other.survey));
      if (piece)
        warnings.push({
          code: 'both-sides-out',
          point: point.name,
          partner: partner.name,
          piece: piece.name,
        });
    }
  return { ...away, warnings };
}

/** Whether what it took away is out: cut, and not back. */
const isOut = ({ cutOut }: Pick<PieceSurvey, 'cutOut'>): boolean =>
  cutOut !== null && cutOut.backAt === null;
