import type { Figures, ProblemCode } from './problems';

/**
 * `stop`: no answer until it is mended; `care`: there is an answer, and this wants thinking about.
 */
export type Severity = 'stop' | 'care';

type Told<C extends ProblemCode> = keyof Figures[C] extends never
  ? { numbers?: undefined }
  : { numbers: Figures[C] };

/**
 * Something the core could not answer, or an answer that wants care. The core gives a code, the
 * figures and the ids of the edges, sides, folds, holes or corners concerned; the interface turns
 * the code into a sentence with the remedy.
 */
export type Problem<C extends ProblemCode = ProblemCode> = C extends ProblemCode
  ? { code: C; about?: string[]; severity?: Severity } & Told<C>
  : never;

export type Failure = { ok: false; problems: Problem[] };
export type Result<T> = ({ ok: true } & T) | Failure;

export const failure = (...problems: Problem[]): Failure => ({ ok: false, problems });

type Rest<C extends ProblemCode> = keyof Figures[C] extends never ? [] : [numbers: Figures[C]];

const made = (
  severity: Severity,
  code: ProblemCode,
  about: string[],
  numbers: object | undefined,
): Problem => ({ code, about, severity, ...(numbers && { numbers }) }) as Problem;

/** A problem that stands in the way of an answer. */
export const stop = <C extends ProblemCode>(
  code: C,
  about: string[],
  ...[numbers]: Rest<C>
): Problem => made('stop', code, about, numbers);
/** A problem that an answer can be had in spite of. */
export const care = <C extends ProblemCode>(
  code: C,
  about: string[],
  ...[numbers]: Rest<C>
): Problem => made('care', code, about, numbers);

/** Maximum number of problems of a kind that are told; of the rest only how many there are. */
const TOLD = 5;

/**
 * Problems as they are told: of each code the first few in the order given, then how many more
 * there are (`more-of-these`, as severe as they are). A card with two thousand holes on one spot
 * has two million pairs that lie on each other.
 */
export function fewOfAKind(problems: readonly Problem[]): Problem[] {
  const kinds = new Map<string, Problem[]>();
  for (const problem of problems) {
    const kind = kinds.get(problem.code);
    if (kind) kind.push(problem);
    else kinds.set(problem.code, [problem]);
  }
  return [...kinds.values()].flatMap((kind) => {
    const count = kind.length - TOLD;
    if (count < 1) return kind;
    const rest =
      kind[0]!.severity === 'stop'
        ? stop('more-of-these', [], { count })
        : care('more-of-these', [], { count });
    return [...kind.slice(0, TOLD), rest];
  });
}
