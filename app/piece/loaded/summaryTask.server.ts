import { emptyPattern } from '#core/card/emptyPattern';
import { meetsWords } from '#core/joint/meetings';
import { metalById } from '#core/metal/metals';
import type { SurveyWarning } from '#core/survey/verdict';
import { emptyPlan } from '#core/weld/emptyPlan';
import { plugHoles } from '#core/weld/plugs';
import { silhouetteOf } from '../../drawing/silhouette';
import { keepSummary } from '../../records/summaries.server';
import { Viewer } from '../../records/viewer.server';
import { doing } from '../../workers/task';
import { hasSurvey } from './surveyVerdict.server';
import type { Loaded } from './loaded.server';
import { loadPiece } from './loaded.server';
import { joinedOf, withAcross } from '../road/joined';
import { printDigest } from './printDigest';
import { reckoned } from './reckoned';
import { stepsOf } from './shapeSteps';
import { roadOf } from '../road/road';
import type { Summary } from './summary';
import { NOTHING_KNOWN, materialOf } from './summary';
import { gaveUp, summaryTask } from './reckonTasks';

/** What of a piece is shown in lists. */
function summaryOf(
  { id, facts, card, plan, shop, records, printed, from }: Loaded,
  surveyWarnings: SurveyWarning[] | null,
): Summary {
  const pattern = card.broken ? emptyPattern() : card.doc;
  const planned = plan.broken ? emptyPlan() : plan.doc;
  const metal = metalById(facts.metal);
  const { problems, development } = reckoned(pattern, metal, facts.thicknessMm, shop);
  const standing = records.fits.filter((fit) => !fit.withdrawn);
  const { folding, shaping } = records;
  const { structure, beyond } = records;
  const joined = joinedOf({ id, facts, pattern, plan: planned, structure, beyond });
  const steps = stepsOf({
    pattern,
    meets: (edge) => meetsWords(joined.meetings.get(edge)) !== '',
    development,
    metal,
    thicknessMm: facts.thicknessMm,
    shop,
    folding,
  });
  const digest = development.ok
    ? printDigest(
        development.development,
        plugHoles(joined.plugsOn(development.development)),
        metal,
        facts.thicknessMm,
        shop,
      )
    : null;
  const road = roadOf({
    kind: facts.kind,
    cutDown: records.cutDown,
    steps,
    shaping,
    folding,
    structural: facts.structural,
    survey: records.survey,
    surveyWarnings,
    pattern,
    changedThere: from?.changed ?? 0,
    joined,
    thicknessMm: facts.thicknessMm,
    problems: [...(card.broken ?? []), ...problems],
    development,
    revision: card.number,
    printed,
    digest,
    ...withAcross(joined, {
      fit: standing[standing.length - 1] ?? null,
      welds: records.welds,
      inspections: records.inspections,
      revision: card.number,
      digest,
    }),
  });
  return { silhouette: silhouetteOf(pattern), road, material: materialOf(road, facts.kind) };
}

export const summariesNow = doing(summaryTask, async ({ pieces, madeBy, judged }) => {
  const found: [string, Summary][] = [];
  for (const id of pieces) {
    const loaded = await loadPiece(Viewer.shop, id);
    if (!loaded) continue;
    const said = judged.get(id);
    let summary = NOTHING_KNOWN;
    try {
      summary = summaryOf(loaded, said ? said.warnings : []);
    } catch (error) {
      console.error('A piece could not be summed up', error);
    }
    // Touched since it was judged, it is good for this once.
    const good = said ? said.touched === loaded.touched : !hasSurvey(loaded.records.survey);
    if (good)
      await keepSummary(
        Viewer.shop,
        id,
        loaded.touched,
        said?.warnings === null ? gaveUp(madeBy) : madeBy,
        summary,
      );
    found.push([id, summary]);
  }
  return found;
});
