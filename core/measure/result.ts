/**
 * Something the core could not answer, or an answer that wants care. The core gives a code, the numbers and the
 * thing concerned; the interface turns the code into a sentence with the remedy.
 */
export type Problem = {
  code: string;
  /** Ids of the edges, sides, folds, holes or corners concerned. */
  about?: string[];
  /** `stop`: no answer until it is mended; `care`: there is an answer, and this wants thinking about. */
  severity?: 'stop' | 'care';
  /** The figures concerned, with the unit in the name: `{ shortByMm: 2.1 }`. */
  numbers?: Record<string, number>;
};

export type Failure = { ok: false; problems: Problem[] };
export type Result<T> = ({ ok: true } & T) | Failure;

export const failure = (...problems: Problem[]): Failure => ({ ok: false, problems });
