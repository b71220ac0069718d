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
import { brokenIn } from '#core/shape/shapeOrder';
import type { Shaping } from '#core/shape/shaping';
import { inOwnOrder } from '#core/shape/shaping';
import type { ShapeStep } from '#core/shape/step';
import type { PlanDoc } from '#core/weld/plan';
import { weldOf } from '#core/weld/planned';
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

export type Stop = { state: StopState; note: string };
export type Road = Record<StageId, Stop>;

const SAID: Record<StopState, string> = {
  done: 'done',
  next: 'next',
  attention: 'needs attention',
  ahead: 'ahead',
};

/** A stop and how it stands, for who does not see its mark. */
export const stopSaid = (label: string, { state, note }: Stop): string =>
  `${label}: ${SAID[state]}${note ? `, ${note}` : ''}`;

export type RoadGiven = {
  survey: PieceSurvey;
  /** The working order, and how far it is. */
  steps: readonly ShapeStep[];
  shaping: Shaping;
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
 * How far a piece has come: computed from what exists, never ticked by hand. The first stop not
 * done is next.
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

function surveyStop({ survey, surveyWarnings }: RoadGiven): Stop {
  if (surveyWarnings === null) return { state: 'attention', note: 'References not told' };
  const wanted = surveyWarnings.flatMap((warning) => surveyWarningShort(warning) ?? []);
  if (wanted.length > 0) return { state: 'attention', note: wanted[0]! };
  const { cutOut, takes } = survey;
  if (cutOut) return { state: 'done', note: cutOut.backAt ? 'Back in' : 'Cut out' };
  return { state: 'done', note: takes.length > 0 ? 'Can be put back' : 'Named, metal chosen' };
}

function cardStop({ pattern, problems, changedThere = 0 }: RoadGiven): Stop {
  if (pattern.sides.length === 0) return { state: 'ahead', note: 'No outline yet' };
  const stops = problems.filter((p) => p.severity === 'stop').length;
  if (stops > 0) return { state: 'attention', note: `${stops} to mend` };
  if (changedThere > 0) return { state: 'attention', note: 'The first has changed' };
  const folds = pattern.folds.length;
  return {
    state: 'done',
    note:
      folds === 1
        ? '1 fold'
        : folds === 0
          ? pattern.crown
            ? 'Curved two ways'
            : 'Flat'
          : `${folds} folds`,
  };
}

function blankStop({ pattern, development }: RoadGiven): Stop {
  if (pattern.sides.length === 0) return { state: 'ahead', note: '' };
  if (!development.ok) return { state: 'attention', note: 'No blank yet' };
  const { warnings } = development.development;
  return warnings.length > 0
    ? {
        state: 'attention',
        note: warnings.length === 1 ? '1 warning' : `${warnings.length} warnings`,
      }
    : { state: 'done', note: 'Reckoned' };
}

function sheetStop({ printed, revision, digest }: RoadGiven): Stop {
  if (printed === null) return { state: 'ahead', note: 'Not printed' };
  const same = printed.digest === null ? printed.revision === revision : printed.digest === digest;
  return same
    ? { state: 'done', note: 'Printed' }
    : { state: 'attention', note: 'Changed since print' };
}

function shapeStop({ steps, shaping, pattern, fit }: RoadGiven): Stop {
  const all = inOwnOrder([...steps.map(({ key }) => ({ key })), ...shaping.own], shaping.order);
  const done = all.filter(({ key }) => shaping.work[key]?.done).length;
  if (all.length === 0) return { state: 'ahead', note: '' };
  if (done === all.length) return { state: 'done', note: 'Shaped' };
  // What was tried in place has been made, whether or not somebody counted.
  if (done === 0 && fit) return { state: 'done', note: 'Tried in place' };
  const broken = shaping.order ? brokenIn(inOwnOrder(steps, shaping.order), pattern).length : 0;
  if (broken > 0) return { state: 'attention', note: 'Order to look at' };
  return { state: 'ahead', note: done === 0 ? `${all.length} steps` : `${done} of ${all.length}` };
}

function fitStop({ fit, pattern, plan, thicknessMm }: RoadGiven): Stop {
  const lies = pattern.edges.flatMap((edge) => {
    const record = fit?.edges.find((e) => e.edge === edge.id);
    // What is joined must be read; a free edge only where somebody reads it.
    const matters = isJoined(edge.joint);
    if (!record)
      return matters
        ? [{ read: 0, stations: evenStations(edgeLength(pattern, edge)).length, good: true }]
        : [];
    const process = weldOf(plan, edge, thicknessMm)?.process ?? null;
    const lie = edgeFit(record, edge.joint.kind, process, thicknessMm);
    return matters || lie.read > 0 ? [lie] : [];
  });
  const read = lies.reduce((sum, lie) => sum + lie.read, 0);
  const stations = lies.reduce((sum, lie) => sum + lie.stations, 0);
  if (!fit || read === 0) return { state: 'ahead', note: fit ? 'Nothing read' : 'Not tried' };
  const off = lies.filter((lie) => lie.read > 0 && !lie.good).length;
  if (off > 0) return { state: 'attention', note: off === 1 ? '1 edge off' : `${off} edges off` };
  return read < stations
    ? { state: 'ahead', note: `${read} of ${stations} read` }
    : { state: 'done', note: 'Fits' };
}

function weldStop({ pattern, plan, thicknessMm, welds, inspections }: RoadGiven): Stop {
  const joined = pattern.edges.filter((edge) => weldOf(plan, edge, thicknessMm) !== null);
  const standing = welds.filter((weld) => !weld.withdrawn);
  if (standing.length === 0)
    return { state: 'ahead', note: joined.length > 0 ? 'Not welded' : 'Nothing joined' };
  const open = inspections.filter((i) => !i.withdrawn && !i.sound && i.remedy.trim() === '').length;
  if (open > 0)
    return { state: 'attention', note: open === 1 ? '1 finding open' : `${open} findings open` };
  const done = joined.filter((edge) =>
    standing.some((weld) => isOfEdge(pattern, weld.edge, edge)),
  ).length;
  return done === joined.length
    ? { state: 'done', note: 'Welded' }
    : { state: 'ahead', note: `${done} of ${joined.length} edges` };
}
