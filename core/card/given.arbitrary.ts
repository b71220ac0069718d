import type { Result } from '../measure/result';
import type { FoldPath } from './pattern';

/** For tests: a fold's path between two shares of sides, as `{ side, at }`. */
export const between = (
  from: { side: string; at: number },
  to: { side: string; at: number },
): FoldPath => ({
  kind: 'between',
  from: { side: from.side, share: from.at },
  to: { side: to.side, share: to.at },
});

/** For tests: the document of an edit that must not be refused. */
export function done<T extends object>(
  edit: Result<T>,
): T extends { doc: infer Doc } ? Doc : never {
  if (!edit.ok) throw new Error(edit.problems.map((p) => p.code).join(', '));
  return (edit as unknown as { doc: never }).doc;
}
