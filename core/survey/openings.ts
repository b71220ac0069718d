import { readIn } from './moved';
import type { Measure, Opening, Round, Surveyed } from './references';
import type { SixTapes } from './twist';
import { twistOf } from './twist';
import type { Twist } from './twist';

const SPANS = { ab: [0, 1], bc: [1, 2], cd: [2, 3], da: [3, 0], ac: [0, 2], bd: [1, 3] } as const;
type Span = keyof typeof SPANS;

export type OpeningTwist =
  | ({ kind: 'told' } & Twist)
  /** Some of its sides and diagonals were not read: between which corners. */
  | { kind: 'missing'; between: [string, string][] }
  /** What was read closes no triangle: one of them is misread by far. */
  | { kind: 'impossible'; between: [string, string][] };

/**
 * The twist of an opening as it was read in a round, from its four sides and two diagonals; ± from
 * the worst of the tapes.
 */
export function openingTwist(
  { corners }: Pick<Opening, 'corners'>,
  measures: readonly Surveyed<Measure>[],
  round: Round,
): OpeningTwist {
  const names = Object.keys(SPANS) as Span[];
  const ends = (name: Span): [string, string] => [corners[SPANS[name][0]], corners[SPANS[name][1]]];
  const found = names.map((name) => {
    const [a, b] = ends(name);
    const tape = measures.find(
      (m) =>
        m.of === 'distance' &&
        ((m.from === a && m.to === b) || (m.from === b && m.to === a)) &&
        (readIn(round, m) ?? 0) > 0,
    );
    return tape ? { mm: readIn(round, tape)!, u: tape.u } : null;
  });
  const missing = names.filter((_, i) => !found[i]);
  if (missing.length > 0) return { kind: 'missing', between: missing.map(ends) };
  const tapes = Object.fromEntries(names.map((name, i) => [name, found[i]!.mm])) as SixTapes;
  const twist = twistOf(tapes, Math.max(...found.map((one) => one!.u)));
  if (twist.ok)
    return {
      kind: 'told',
      outOfPlaneMm: twist.outOfPlaneMm,
      uMm: twist.uMm,
      visible: twist.visible,
    };
  const about = twist.problems
    .flatMap((problem) => problem.about ?? [])
    .filter((name): name is Span => name in SPANS);
  return { kind: 'impossible', between: about.map(ends) };
}
