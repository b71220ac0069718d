import { inDegrees } from '#core/survey/kinds';
import type { Change } from '#core/survey/moved';
import type { Measure } from '#core/survey/references';

type Show = (mm: number) => string;

/** A reading as it is shown: a length in the unit in use, or degrees. */
export const readingSaid = ({ of }: Measure, value: number, show: Show): string =>
  inDegrees(of) ? `${value.toFixed(1)}°` : show(value);

/** A change with its sign: `+3.5 mm`, `−0.2°`. */
export const changeSaid = (measure: Measure, by: number, show: Show): string =>
  `${by > 0 ? '+' : ''}${inDegrees(measure.of) ? `${by.toFixed(1).replace('-', '−')}°` : show(by)}`;

/**
 * What moved, in words: what, by how much, since when, and why it may be said. `misread`: of each
 * round the measures that its networks name as most likely misread.
 */
export function movedSentence(
  { measure, from, to, by, shown }: Change,
  show: Show,
  misread: ReadonlyMap<string, readonly string[]> = new Map(),
): string {
  const why = shown
    ? 'more than the readings can be out'
    : 'within what the readings can be out, but over the tolerance';
  const doubtful = [from, to].find((round) => misread.get(round.id)?.includes(measure.id));
  const doubt = doubtful
    ? ` But in “${doubtful.name}” it is the tape most likely misread: this may be only that.`
    : '';
  return `${measure.name} ${changeSaid(measure, by, show)} since “${from.name}”: ${why}.${doubt}`;
}

/** How a finding grew, from its first look that can be compared to its last. */
export const grownSaid = (times: number): string =>
  times > 1.05
    ? `grew ${times.toFixed(1)} times`
    : times < 0.95
      ? 'smaller than it looked'
      : 'has not grown';
