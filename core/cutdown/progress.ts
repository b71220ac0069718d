import type { CutDown } from './cutDown';
import type { PieceKind } from './kinds';

/** What is still open before a piece that was not made here can be tried in its place. */
export type OpenCutDown =
  | { kind: 'edges' }
  | { kind: 'received' }
  | { kind: 'sent-back' }
  | { kind: 'readings' }
  | { kind: 'faults'; count: number }
  | { kind: 'works'; count: number };

/**
 * What stands between a piece and its first trial, in the order in which it is done: its edges have
 * names; a bought part was laid on and looked at, and kept; its metal was read with a micrometer; no
 * fault is open; all that was to do is done.
 */
export function openOf(kind: PieceKind, cutDown: CutDown, edges: number): OpenCutDown[] {
  const { received, readingsMm, faults, works } = cutDown;
  if (kind === 'bought' && received?.verdict === 'sent-back') return [{ kind: 'sent-back' }];
  const open: OpenCutDown[] = [];
  if (edges === 0) open.push({ kind: 'edges' });
  if (kind === 'bought' && !received?.verdict) open.push({ kind: 'received' });
  if (readingsMm.length === 0) open.push({ kind: 'readings' });
  const wrong = faults.filter(({ mendedAt }) => mendedAt === null).length;
  if (wrong > 0) open.push({ kind: 'faults', count: wrong });
  const todo = works.filter(({ doneAt }) => doneAt === null).length;
  if (todo > 0) open.push({ kind: 'works', count: todo });
  return open;
}

/** Hours that putting its faults right took, as far as they were written down; null where none was. */
export function hoursOfFaults({ faults }: CutDown): number | null {
  const told = faults.flatMap(({ hours }) => (hours === null ? [] : [hours]));
  return told.length === 0 ? null : told.reduce((sum, hours) => sum + hours, 0);
}

/**
 * The thickness that micrometer readings say: their median, mm; null where there are none. A reading
 * over a blister or a pit does not move it.
 */
export function medianMm(readingsMm: readonly number[]): number | null {
  const sorted = [...readingsMm].sort((a, b) => a - b);
  const middle = sorted.length / 2;
  if (sorted.length === 0) return null;
  return sorted.length % 2 === 1
    ? sorted[Math.floor(middle)]!
    : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
