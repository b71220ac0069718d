import type { Development } from '#core/blank/fold/developed';
import { edgeLength } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { isOfEdge } from '#core/card/recordPlace';
import { edgeFit } from '#core/fit/gapRemedy';
import { evenStations } from '#core/fit/target';
import type { FitRecord, InspectionRecord, WeldRecord } from '#core/format/job';
import type { Problem, Result } from '#core/measure/result';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import type { SurveyWarning } from '#core/survey/verdict';
import type { Folding } from '#core/blank/fold/folding';
import { brokenIn } from '#core/shape/shapeOrder';
import type { Shaping } from '#core/shape/shaping';
import { inOwnOrder, madeToOther, uncounted } from '#core/shape/shaping';
import type { ShapeStep } from '#core/shape/shapeStep';
import type { PlanDoc } from '#core/weld/plan';
import { weldOf } from '#core/weld/planned';
import type { Seam, SeamProgress } from '#core/weld/seams';
import { seamProgress, seamsOf } from '#core/weld/seams';
import { isJoined } from '#core/weld/start';
import type { StopState } from '../frame/StopMark';
import { surveyWarningShort } from './surveyWords';

/**
 * The stops on the road of a piece. The number is the key that goes there and stays with the stop.
 */
export const STAGES = [
  { id: 'survey', key: 1, label: 'Survey' },
  { id: 'card', key: 2, label: 'Card' },
  { id: 'blank', key: 3, label: 'Blank' },
  { id: 'sheet', key: 4, label: 'Sheet' },
  { id: 'shape', key: 5, label: 'Shape' },
  { id: 'fit', key: 6, label: 'Fit' },
  { id: 'weld', key: 7, label: 'Weld' },
] as const;
export type StageId = (typeof STAGES)[number]['id'];

/** How a stop stands: its mark, a word beside it, and the reasons, told where one touches it. */
export type Stop = { state: StopState; note: string; why: string[] };
export type Road = Record<StageId, Stop>;

const SAID: Record<StopState, string> = {
  done: 'done',
  next: 'next',
  attention: 'needs attention',
  ahead: 'ahead',
  unseen: 'not looked at',
  overtaken: 'overtaken',
};

/** A stop and how it stands, for who does not see its mark. */
export const stopSaid = (label: string, { state, note }: Stop): string =>
  `${label}: ${SAID[state]}${note && note.toLowerCase() !== SAID[state] ? `, ${note}` : ''}`;

const stop = (state: StopState, note: string, ...why: string[]): Stop => ({ state, note, why });

export type RoadGiven = {
  survey: PieceSurvey;
  structural: boolean;
  /** The working order, and how far it is. */
  steps: readonly ShapeStep[];
  shaping: Shaping;
  folding: Pick<Folding, 'turnedAfter'>;
  /** What is to be said of its survey; null where that could not be told. */
  surveyWarnings: readonly SurveyWarning[] | null;
  pattern: PatternDoc;
  /** How much has changed on the card it was made from that it could take over. */
  changedThere?: number;
  plan: PlanDoc;
  thicknessMm: number;
  problems: readonly Problem[];
  development: Result<{ development: Development }>;
  revision: number;
  /** The last print: which revision, and what it was made from (null for old ones). */
  printed: { revision: number; digest: string | null } | null;
  /** What a print would be made from now; null while there is no blank. */
  digest: string | null;
  fit: FitRecord | null;
  welds: readonly WeldRecord[];
  inspections: readonly InspectionRecord[];
};

/**
 * How far a piece has come: computed from what exists, never ticked by hand. Done means that the
 * records bear what the plan asks, for the card as it is now. The first stop ahead is next, unless
 * something before it wants attention.
 */
export function roadOf(given: RoadGiven): Road {
  const road: Road = {
    survey: surveyStop(given),
    card: cardStop(given),
    blank: blankStop(given),
    sheet: sheetStop(given),
    shape: shapeStop(given),
    fit: fitStop(given),
    weld: weldStop(given),
  };
  const next = STAGES.find(({ id }) => road[id].state === 'ahead');
  const waiting = STAGES.find(({ id }) => road[id].state === 'attention');
  if (
    next &&
    !(waiting && waiting.key < next.key && waiting.id !== 'blank' && waiting.id !== 'survey')
  )
    road[next.id] = { ...road[next.id], state: 'next' };
  return road;
}

/** Whether anything was looked at before the metal was cut. */
const isLookedAt = (survey: PieceSurvey): boolean =>
  survey.cutOut !== null ||
  survey.choice !== null ||
  [
    survey.takes,
    survey.mends,
    survey.braces,
    survey.layerCuts,
    survey.oldMetal,
    survey.options,
  ].some((list) => list.length > 0);

function surveyStop({ survey, surveyWarnings, structural }: RoadGiven): Stop {
  if (surveyWarnings === null) return stop('attention', 'References not told');
  const wanted = surveyWarnings.flatMap((warning) => surveyWarningShort(warning) ?? []);
  if (wanted.length > 0) return stop('attention', wanted[0]!, ...wanted);
  if (!isLookedAt(survey))
    return structural
      ? stop(
          'unseen',
          'Structural: look first',
          'It holds the vehicle up. Say what it takes away, what braces it and where each layer is cut before anything is cut.',
        )
      : stop('unseen', 'Not looked at', 'Nothing was measured, found or decided for it.');
  const { cutOut, takes } = survey;
  if (cutOut)
    return stop(
      'done',
      cutOut.backAt ? 'Back in' : 'Cut out',
      'Cut out with its references measured.',
    );
  return takes.length > 0
    ? stop('done', 'Can be put back', 'Every reference it takes away can be put back.')
    : stop('done', 'Looked at', 'It takes no reference away.');
}

function cardStop({ pattern, problems, changedThere = 0 }: RoadGiven): Stop {
  if (pattern.sides.length === 0) return stop('ahead', 'No outline yet');
  const stops = problems.filter((p) => p.severity === 'stop').length;
  if (stops > 0)
    return stop(
      'attention',
      `${stops} to mend`,
      'A fault of the card stands in the way of a blank.',
    );
  if (changedThere > 0)
    return stop(
      'attention',
      'The first has changed',
      'The card it was made from has changed since.',
    );
  const folds = pattern.folds.length;
  const flat = pattern.crown ? 'Curved two ways' : 'Flat';
  return stop('done', folds === 0 ? flat : folds === 1 ? '1 fold' : `${folds} folds`);
}

function blankStop({ pattern, development }: RoadGiven): Stop {
  if (pattern.sides.length === 0) return stop('ahead', '');
  if (!development.ok) return stop('attention', 'No blank yet');
  const { warnings } = development.development;
  return warnings.length > 0
    ? stop(
        'attention',
        warnings.length === 1 ? '1 warning' : `${warnings.length} warnings`,
        'It can be cut; what wants care stands beside it.',
      )
    : stop('done', 'Reckoned');
}

function sheetStop({ printed, revision, digest, fit }: RoadGiven): Stop {
  if (printed === null)
    return fit
      ? stop(
          'overtaken',
          'Marked out by hand',
          'It was tried in place, and never printed or sent to a cutter from here.',
        )
      : stop('ahead', 'Not printed');
  const same = printed.digest === null ? printed.revision === revision : printed.digest === digest;
  if (same) return stop('done', 'Printed', 'The last print is of the blank as it is now.');
  return fit
    ? stop(
        'overtaken',
        'Made by an older card',
        'It was cut and tried; the card has changed since that print.',
      )
    : stop('attention', 'Changed since print', 'The blank has changed since the last print.');
}

function shapeStop({ steps, shaping, folding, fit }: RoadGiven): Stop {
  const all = inOwnOrder(
    [...steps.map(({ key }) => ({ key })), ...shaping.own.map(({ key }) => ({ key }))],
    shaping.order,
  );
  const work = (key: string) => shaping.work[key];
  const done = all.filter(({ key }) => work(key)?.done).length;
  if (all.length === 0) return stop('ahead', '');
  const made = steps.filter(({ key }) => work(key)?.done);
  const other = made.filter(({ key, figures }) => madeToOther(work(key)!, figures)).length;
  const open = made.filter(({ key, counts }) => uncounted(work(key)!, counts?.wanted ?? null) > 0);
  if (other > 0)
    return stop(
      'overtaken',
      'Made by an older card',
      `${other === 1 ? 'One step was' : `${other} steps were`} done to other figures than the card has now.`,
    );
  if (done === all.length)
    return open.length === 0
      ? stop('done', 'Shaped', 'Every step is done, and counted where there is something to count.')
      : stop(
          'ahead',
          open.length === 1 ? '1 step not counted' : `${open.length} steps not counted`,
          'Done, but with fewer bites, passes or cuts than planned: count them, or say why in its note.',
        );
  if (done === 0 && fit)
    return stop(
      'overtaken',
      'Tried in place',
      'It was made and tried; nobody counted how it was shaped.',
    );
  const broken = shaping.order
    ? brokenIn(inOwnOrder(steps, shaping.order), folding.turnedAfter).length
    : 0;
  if (broken > 0)
    return stop('attention', 'Order to look at', 'The order of your own breaks a rule.');
  return stop(
    'ahead',
    done > 0 ? `${done} of ${all.length}` : all.length === 1 ? '1 step' : `${all.length} steps`,
  );
}

/**
 * Whether a trial was of the card as it is now: the same revision, or one from which the same blank
 * is cut.
 */
export const triedAsItIs = (
  fit: Pick<FitRecord, 'revision' | 'digest'>,
  now: Pick<RoadGiven, 'revision' | 'digest'>,
): boolean => fit.revision === now.revision || (fit.digest != null && fit.digest === now.digest);

function fitStop(given: RoadGiven): Stop {
  const { fit, pattern, plan, thicknessMm } = given;
  // What is joined must be read; a free edge only where somebody reads it, or nothing is joined.
  const joined = pattern.edges.some(({ joint }) => isJoined(joint));
  const lies = pattern.edges.flatMap((edge) => {
    const record = fit?.edges.find((e) => e.edge === edge.id);
    const matters = isJoined(edge.joint) || !joined;
    if (!record)
      return matters
        ? [{ read: 0, stations: evenStations(edgeLength(pattern, edge)).length, good: true }]
        : [];
    const process = weldOf(plan, edge, thicknessMm)?.process ?? null;
    const lie = edgeFit(record, edge.joint, process, thicknessMm);
    return matters || lie.read > 0 ? [lie] : [];
  });
  const read = lies.reduce((sum, lie) => sum + lie.read, 0);
  const stations = lies.reduce((sum, lie) => sum + lie.stations, 0);
  if (!fit || read === 0) return stop('ahead', fit ? 'Nothing read' : 'Not tried');
  const off = lies.filter((lie) => lie.read > 0 && !lie.good).length;
  if (off > 0)
    return stop(
      'attention',
      off === 1 ? '1 edge off' : `${off} edges off`,
      'A gap or flush that was read lies outside what is wanted there.',
    );
  const edges = lies.filter((lie) => lie.read > 0).length;
  if (read < stations)
    return stop(
      'ahead',
      edges < lies.length ? `${edges} of ${lies.length} edges read` : `${read} of ${stations} read`,
      joined
        ? 'Every edge that is joined is read before it counts as fitted.'
        : 'No edge is joined to anything: all of them are read before it counts as fitted.',
    );
  return triedAsItIs(fit, given)
    ? stop('done', 'Fits', 'Every station that matters was read, and lies as wanted.')
    : stop(
        'overtaken',
        'Tried by an older card',
        'It fitted; the card has changed since that trial.',
      );
}

function weldStop(given: RoadGiven): Stop {
  const { pattern, plan, thicknessMm, welds, inspections, structural } = given;
  const seams = seamsOf(pattern, plan, thicknessMm, welds);
  const standing = welds.filter((weld) => !weld.withdrawn);
  if (standing.length === 0)
    return stop('ahead', seams.length > 0 ? 'Not welded' : 'Nothing joined');
  const seen = inspections.filter((i) => !i.withdrawn);
  const open = seen.filter((i) => !i.sound && i.remedy.trim() === '').length;
  if (open > 0)
    return stop(
      'attention',
      open === 1 ? '1 finding open' : `${open} findings open`,
      'What was found not sound waits to be put right.',
    );
  const progress = seams.map((seam) => seamProgress(seam, pattern, standing));
  const count = (state: (typeof progress)[number]) =>
    progress.filter((one) => one === state).length;
  const made = count('made');
  if (made < seams.length) {
    const why = [
      ...seams.flatMap((seam, i) => openSeam(seam, progress[i]!)),
      ...(count('tacked') > 0 ? ['Tacks alone hold it for the run, they are no weld.'] : []),
    ];
    const [only] = seams;
    if (seams.length === 1 && only) {
      const plugged = only.plugs.length > 0;
      const [done, all] = plugged
        ? [only.plugsDone.size, only.plugs.length]
        : [only.tacksDone.size, only.tacks.length];
      return stop(
        'ahead',
        progress[0] === 'tacked' ? 'Tacked' : `${done} of ${all} ${plugged ? 'plugs' : 'tacks'}`,
        ...why,
      );
    }
    return stop('ahead', `${made} of ${seams.length} edges`, ...why);
  }
  const unseen = structural
    ? seams.filter(({ edge }) => !seen.some((one) => isOfEdge(pattern, one.edge, edge)))
    : [];
  if (unseen.length > 0)
    return stop(
      'attention',
      'Not looked at',
      `It holds the vehicle up: look at edge ${unseen.map(({ edge }) => edge.letter).join(', ')} before it counts as welded.`,
    );
  return stop('done', 'Welded', 'All that its plan asks is made, and no finding is open.');
}

/** What of a seam is still to be made, in words. */
function openSeam(seam: Seam, progress: SeamProgress): string[] {
  if (progress === 'made') return [];
  const plugged = seam.plugs.length > 0;
  const [done, all] = plugged
    ? [seam.plugsDone.size, seam.plugs.length]
    : [seam.tacksDone.size, seam.tacks.length];
  const spots = `${done} of ${all} ${plugged ? 'plugs' : 'tacks'}`;
  return [`Edge ${seam.edge.letter}: ${progress === 'tacked' ? 'tacked, not seamed' : spots}.`];
}
