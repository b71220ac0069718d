import type { Process } from '../card/kinds';
import type { Edge } from '../card/pattern';
import { gapRemedy } from '../fit/gapRemedy';
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
  | 'gap-thicker-rod'
  | 'gap-build-up'
  | 'gap-strip';

/**
 * What wants care when an edge is welded, most pressing first. `structural`: the piece is said to
 * be part of what holds the vehicle up. `widestGapMm`: the widest gap read along it at the last trial
 * fit; what is too wide for the process is told with its remedy.
 */
export function cautionsFor(
  edge: Pick<Edge, 'joint'>,
  metal: Pick<Metal, 'family'>,
  thicknessMm: number,
  structural: boolean,
  widestGapMm: number | null,
  process: Process | null,
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
  const remedy = widestGapMm === null ? null : gapRemedy(widestGapMm, kind, process, thicknessMm);
  if (remedy === 'thicker-rod' || remedy === 'build-up' || remedy === 'strip')
    cautions.push(`gap-${remedy}`);
  cautions.push('sparks');
  return cautions;
}
