import type { Edge } from '../card/pattern';
import type { Metal } from '../metal/metals';

/** Codes of the cautions a weld calls for; the interface says what, why and whom to ask. */
export type Caution =
  | 'zinc-fume'
  | 'weld-through-primer'
  | 'lap-traps-water'
  | 'prime-before-closing'
  | 'aluminium-other-settings'
  | 'stainless-fume'
  | 'sparks'
  | 'structural'
  | 'gap-too-wide';

/**
 * What wants care when an edge is welded, most pressing first. `structural`: the piece is said to
 * be part of what holds the vehicle up. `widestGapMm`: the widest gap read at the last trial fit of
 * a butt joint.
 */
export function cautionsFor(
  edge: Pick<Edge, 'joint'>,
  metal: Pick<Metal, 'family'>,
  thicknessMm: number,
  structural: boolean,
  widestGapMm: number | null,
): Caution[] {
  const { kind } = edge.joint;
  if (kind === 'free' || kind === 'hem') return [];
  const overlaps = kind === 'lap' || kind === 'joggle' || kind === 'plug-flange';
  const cautions: Caution[] = [];
  if (structural) cautions.push('structural');
  if (metal.family === 'coated-steel') cautions.push('zinc-fume');
  if (metal.family === 'stainless') cautions.push('stainless-fume');
  if (metal.family === 'aluminium') cautions.push('aluminium-other-settings');
  if (overlaps && metal.family !== 'aluminium') cautions.push('weld-through-primer');
  if (kind === 'backed-butt') cautions.push('prime-before-closing');
  if (kind === 'lap' || kind === 'joggle') cautions.push('lap-traps-water');
  if (kind === 'butt' && widestGapMm !== null && widestGapMm > thicknessMm)
    cautions.push('gap-too-wide');
  cautions.push('sparks');
  return cautions;
}
