import type { FitRecord } from '#core/format/job';
import type { CutDown, CutDownWork, Fault, Received } from '#core/cutdown/cutDown';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import type { StepWork } from '#core/shape/shaping';
import type { Fit } from '../records/records.server';
import type { Picture } from '../records/pictures.server';
import type { Inspection, Weld } from '../records/records.server';

/**
 * One thing that was done to a piece, or seen of it. `at`: when, as an ISO moment; of pictures, as
 * the camera's clock stood.
 */
export type Event = { at: string } & (
  | { kind: 'cut-out' | 'back'; note: string }
  | { kind: 'received'; received: Received }
  | { kind: 'fault'; fault: Fault }
  | { kind: 'cut-down'; work: CutDownWork }
  | { kind: 'trial'; number: number; fit: Fit }
  | { kind: 'trial-back'; fit: Fit }
  | { kind: 'weld'; weld: Weld }
  | { kind: 'inspection'; inspection: Inspection }
  | { kind: 'step'; key: string; work: StepWork }
  | { kind: 'picture'; picture: Picture }
);

export type StoryOf = {
  survey: Pick<PieceSurvey, 'cutOut'>;
  cutDown: CutDown;
  /** Trials that stand, in their order, and those taken back. */
  fits: readonly Fit[];
  takenBack: readonly Fit[];
  welds: readonly Weld[];
  inspections: readonly Inspection[];
  shaping: { work: Readonly<Record<string, StepWork>> };
  pictures: readonly Picture[];
};

/**
 * What was done to a piece, first what was first. Pictures of a trial, a weld or an inspection hang
 * there and are no events of their own; nor is what was put away.
 */
export function storyOf({
  survey,
  cutDown,
  fits,
  takenBack,
  welds,
  inspections,
  shaping,
  pictures,
}: StoryOf): Event[] {
  const { cutOut } = survey;
  const events: Event[] = [
    ...(cutOut ? [{ at: cutOut.at, kind: 'cut-out' as const, note: cutOut.note }] : []),
    ...(cutOut?.backAt ? [{ at: cutOut.backAt, kind: 'back' as const, note: '' }] : []),
    ...(cutDown.received
      ? [{ at: cutDown.received.at, kind: 'received' as const, received: cutDown.received }]
      : []),
    ...cutDown.faults.flatMap((fault) =>
      fault.mendedAt ? [{ at: fault.mendedAt, kind: 'fault' as const, fault }] : [],
    ),
    ...cutDown.works.flatMap((work) =>
      work.doneAt ? [{ at: work.doneAt, kind: 'cut-down' as const, work }] : [],
    ),
    ...fits.map((fit, i) => ({ at: fit.at, kind: 'trial' as const, number: i + 1, fit })),
    ...takenBack.map((fit) => ({ at: fit.at, kind: 'trial-back' as const, fit })),
    ...welds.map((weld) => ({ at: weld.at, kind: 'weld' as const, weld })),
    ...inspections.map((inspection) => ({
      at: inspection.at,
      kind: 'inspection' as const,
      inspection,
    })),
    ...Object.entries(shaping.work).flatMap(([key, work]) =>
      work.done ? [{ at: work.done, kind: 'step' as const, key, work }] : [],
    ),
    ...pictures
      .filter(({ owner, putAway }) => (owner === 'piece' || owner === 'edge') && !putAway)
      .map((picture) => ({ at: picture.taken ?? picture.at, kind: 'picture' as const, picture })),
  ];
  return events.sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}

/** Events of one day after another, in the days of this clock (`dayOf`). */
export function byDay<E extends { at: string }>(
  events: readonly E[],
  dayOf: (at: string) => string,
): { day: string; events: E[] }[] {
  const days: { day: string; events: E[] }[] = [];
  for (const event of events) {
    const day = dayOf(event.at);
    const last = days[days.length - 1];
    if (last?.day === day) last.events.push(event);
    else days.push({ day, events: [event] });
  }
  return days;
}

/** How long all steps took by the watch, seconds; null where no watch was started. */
export function secondsWorked(work: Readonly<Record<string, StepWork>>): number | null {
  const all = Object.values(work).flatMap((one) => [
    one.seconds,
    ...one.before.map(({ seconds }) => seconds),
  ]);
  const sum = all.reduce((total, seconds) => total + seconds, 0);
  return sum > 0 ? sum : null;
}

/** A time of work: 3 h 20 min; under an hour in minutes, under a minute as that. */
export function durationSaid(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  if (minutes < 1) return 'under a minute';
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  return [hours > 0 && `${hours} h`, (rest > 0 || hours === 0) && `${rest} min`]
    .filter(Boolean)
    .join(' ');
}

/** How many edges were read at a trial, of those with a gap read. */
export const edgesRead = (fit: FitRecord): number =>
  fit.edges.filter(({ stations }) => stations.some(({ gapMm }) => gapMm !== null)).length;
