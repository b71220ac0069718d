import type { Development } from '#core/blank/fold/developed';
import type { Run } from '#core/blank/fold/water/runs';

/** What a face is called: by the fold it hangs on. */
export function faceSaid({ faces }: Pick<Development, 'faces'>, index: number): string {
  const { fold } = faces[index]!;
  return fold < 0 ? 'the face that stays put' : `the face beyond fold ${fold + 1}`;
}

type Say = {
  show: (mm: number) => string;
  letter: (edge: string) => string;
  hole: (id: string) => number;
  face: (index: number) => string;
};

/** Where water ends, and from which faces it comes. */
export function runSaid({ end, from }: Run, { show, letter, hole, face }: Say): string {
  const faces =
    from.length > 3
      ? `${from.length} faces`
      : from
          .map(face)
          .join(', ')
          .replace(/, ([^,]*)$/, ' and $1');
  const of = `From ${faces}: `;
  if (end.kind === 'drain') return `${of}out through hole ${hole(end.hole)}.`;
  if (end.kind === 'off')
    return `${of}${end.edge ? `over edge ${letter(end.edge)}` : 'off at the end of a fold'}.`;
  const where =
    end.folds.length > 1
      ? `in the corner of folds ${end.folds.map((fold) => fold + 1).join(' and ')}`
      : end.folds.length === 1
        ? `along fold ${end.folds[0]! + 1}`
        : `on ${face(end.face)}, which is level`;
  const deep =
    end.depthMm === null
      ? 'with no way out: the drain belongs there'
      : end.depthMm < 0.05
        ? 'as a film'
        : `${show(end.depthMm)} deep until it reaches a drain`;
  return `${of}stands ${where}, ${deep}.`;
}
