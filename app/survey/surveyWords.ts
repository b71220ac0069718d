import type { MeasureKind, RoundStage } from '#core/survey/kinds';
import { inDegrees } from '#core/survey/kinds';
import type { Change } from '#core/survey/moved';
import type { Measure } from '#core/survey/references';

export const KIND_WORDS: Record<MeasureKind, string> = {
  distance: 'Between two points',
  height: 'Height over a datum',
  gap: 'Gap',
  level: 'Level, degrees',
  lean: 'Lean, degrees',
  thickness: 'Thickness',
};
export const STAGE_WORDS: Record<RoundStage, string> = {
  found: 'As found',
  braced: 'Braced',
  cut: 'Cut open',
  tacked: 'Tacked',
  welded: 'Welded',
  other: 'Another time',
};

type Show = (mm: number) => string;

/** A reading as it is shown: a length in the unit in use, or degrees. */
export const readingSaid = ({ of }: Measure, value: number, show: Show): string =>
  inDegrees(of) ? `${value.toFixed(1)}°` : show(value);

/** A change with its sign: `+3.5 mm`, `−0.2°`. */
export const changeSaid = (measure: Measure, by: number, show: Show): string =>
  `${by > 0 ? '+' : ''}${inDegrees(measure.of) ? `${by.toFixed(1).replace('-', '−')}°` : show(by)}`;

/**
 * What moved, in words: what, by how much, since when, and why it may be said. `misread`: of each round the measure that its
 * network names as most likely misread.
 */
export function movedSentence(
  { measure, from, to, by, shown }: Change,
  show: Show,
  misread: ReadonlyMap<string, string | null>,
): string {
  const why = shown
    ? 'more than the readings can be out'
    : 'within what the readings can be out, but over the tolerance';
  const doubtful = [from, to].find((round) => misread.get(round.id) === measure.id);
  const doubt = doubtful
    ? ` But in “${doubtful.name}” it is the tape most likely misread: this may be only that.`
    : '';
  return `${measure.name} ${changeSaid(measure, by, show)} since “${from.name}”: ${why}.${doubt}`;
}
