import type { EndName } from './kinds';
import { ENDS } from './kinds';
import type { Joint, Part, Structured, StructureBody } from './structure';

/** Those of one kind that are in hand. */
export const inHandOf = <K extends StructureBody['kind']>(all: readonly Structured[], kind: K) =>
  all.filter((one) => one.kind === kind && !one.putAway) as Structured<
    Extract<StructureBody, { kind: K }>
  >[];

/** A part of which only the name is known. */
export const newPart = (name: string): Part => ({
  kind: 'part',
  name,
  metal: null,
  thicknessMm: null,
  readingsMm: [],
  condition: 'unknown',
  notes: '',
  putAway: false,
});

/** A joint of which nothing is said but its ends. */
export const newJoint = <First, Second>(first: First, second: Second) => ({
  kind: 'joint' as const,
  first,
  second,
  ...NOTHING_SAID,
});

/** The facts of a new joint, beside its ends: none is known. */
const NOTHING_SAID: Omit<Joint, 'kind' | 'first' | 'second'> = {
  sameWay: false,
  fastened: null,
  over: null,
  stepped: null,
  waterFrom: null,
  reach: null,
  structural: false,
  sight: null,
  notes: '',
  putAway: false,
};

/** Thickness of a part's sheet, mm: the smallest reading where there are any; null unknown. */
export const thicknessOf = ({ readingsMm, thicknessMm }: Part): number | null =>
  readingsMm.length > 0 ? Math.min(...readingsMm) : thicknessMm;

/** The ends of a joint that are edges of a piece: both, where a piece is closed on itself. */
export const endsAt = (joint: Joint, piece: string): EndName[] =>
  ENDS.filter((end) => {
    const at = joint[end];
    return 'piece' in at && at.piece === piece;
  });

/** The other pieces that joints of a piece lead to, each once. */
export function piecesBeyond(all: readonly Structured[], piece: string): string[] {
  const found = new Set<string>();
  for (const joint of inHandOf(all, 'joint')) {
    if (endsAt(joint, piece).length === 0) continue;
    for (const end of ENDS) {
      const at = joint[end];
      if ('piece' in at && at.piece !== piece) found.add(at.piece);
    }
  }
  return [...found];
}
