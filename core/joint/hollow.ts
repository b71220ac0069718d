import { endsAt, inHandOf } from './joint';
import type { Hollow, Structured } from './structure';

/**
 * The joints that close a hollow: those named as its bounds, and those between two of its bounds,
 * each once.
 */
function jointsOf(hollow: Hollow, structure: readonly Structured[]): string[] {
  const joints = inHandOf(structure, 'joint');
  const pieces = hollow.bounds.flatMap((one) => ('piece' in one ? [one.piece] : []));
  const parts = new Set(hollow.bounds.flatMap((one) => ('part' in one ? [one.part] : [])));
  const named = new Set(hollow.bounds.flatMap((one) => ('joint' in one ? [one.joint] : [])));
  return joints.flatMap(({ id, ...joint }) => {
    const atPieces = pieces.filter((piece) => endsAt(joint, piece).length > 0).length;
    const { second } = joint;
    const atPart = 'part' in second && parts.has(second.part) ? 1 : 0;
    return named.has(id) || atPieces + atPart >= 2 ? [id] : [];
  });
}

/**
 * Whether what is behind can still be reached: a hollow is closed once every joint that closes it is
 * made. Null where nothing is known to close it. `made`: the ids of the joints that are welded or
 * fastened.
 */
export function isClosed(
  hollow: Hollow,
  structure: readonly Structured[],
  made: ReadonlySet<string>,
): boolean | null {
  const joints = jointsOf(hollow, structure);
  return joints.length === 0 ? null : joints.every((id) => made.has(id));
}
