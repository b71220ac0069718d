import { boxOf, points } from '../measure/path';
import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { sub } from '../measure/vector';
import { drawnMap } from '../surface/panel/drawnMap';
import type { Hold } from '../surface/flatten/held';
import type { Described, LaidPanel } from '../surface/panel/laidPanel';
import type { Part } from '../surface/flatten/part';
import type { Strip } from '../surface/flatten/strips';
import type { NewId } from './kinds';
import { lettered, patternParts } from './outline';
import type { Edge, Joint, PatternDoc } from './pattern';

/** Ids of what a card has of its panel’s strips begin so. */
const STRIP = 'strip-';

/** The panel, and how its blank is wanted. */
export type Wanted = {
  made: Described;
  balance: number;
  keep: readonly number[];
  hold: readonly Hold[];
  part: Part | null;
  /**
   * Of its edges, in the order of the outline, those that are seams: butted, where nothing else is
   * said of them.
   */
  seams?: readonly boolean[];
};

/**
 * A card whose outline is the blank of a panel curved two ways: lines and arcs, an edge from corner
 * to corner. Laid anew (at another balance, from other figures) with as many corners, its edges keep
 * their ids, letters and joints in their order; so do holes and marks where they are. Folds, beads,
 * tucks and rules were laid on the old outline and go. Strips become profiles, with their lines to
 * scribe.
 */
export function crownCard(
  pattern: PatternDoc,
  { made, balance, keep, hold, part, seams = [] }: Wanted,
  laid: LaidPanel,
  strips: readonly Strip[],
  newId: NewId,
): PatternDoc {
  const { path, edges: runs } = laid.outline;
  const bounds = boxOf(points(path, 0.1));
  const origin: Vec = [bounds.minX, bounds.minY];
  const moved = path.map((s): Segment => ({ ...s, a: sub(s.a, origin), b: sub(s.b, origin) }));
  const parts = patternParts(moved, newId);
  const known = pattern.crown && pattern.edges.length === runs.length ? pattern.edges : null;
  const edges = runs.map(({ first, count }, i): Edge => {
    const sides = parts.sides.slice(first, first + count).map(({ id }) => id);
    const before = known?.[i];
    const free: Joint = { kind: seams[i] ? 'butt' : 'free', trimMm: 0 };
    if (!before) return { id: newId(), letter: '?', sides, joint: free };
    return {
      ...before,
      sides,
      flange: undefined,
      joint: before.joint.kind === 'free' && seams[i] ? free : before.joint,
    };
  });
  const named = known ? edges : lettered(edges);
  const raise = laid.zones.find((zone) => zone.way === 'stretch');
  return {
    ...pattern,
    corners: parts.corners,
    sides: parts.sides,
    edges: named.map(({ flange: _flange, ...edge }) => edge),
    folds: [],
    beads: [],
    rules: [],
    dismissedRules: [],
    tucks: [],
    base: null,
    measured: null,
    profiles: [
      ...pattern.profiles.filter(({ id }) => !id.startsWith(STRIP)),
      ...strips.map(({ ordinates }, i) => ({
        id: `${STRIP}${i + 1}`,
        name: nameOf(strips, i),
        ordinates,
        toleranceMm: 0.3,
      })),
    ],
    marks: [
      ...pattern.marks.filter(({ id }) => !id.startsWith(STRIP)),
      ...strips.map(({ line }, i) => ({
        id: `${STRIP}${i + 1}-line`,
        name: nameOf(strips, i),
        from: round(sub(line[0]!, origin)),
        to: round(sub(line[line.length - 1]!, origin)),
      })),
    ],
    crown: {
      made,
      balance,
      part,
      keep: [...keep],
      hold: [...hold],
      turned: false,
      panelMm2: laid.panelMm2,
      blankMm2: laid.blankMm2,
      stretch: laid.stretch,
      shrink: laid.shrink,
      edges: runs.map(({ flatMm, panelMm }, i) => ({
        edge: named[i]!.id,
        changeMm: panelMm - flatMm,
      })),
      raise: raise ? { areaMm2: raise.flatMm2, most: raise.most } : null,
      map: drawnMap(laid, origin),
    },
  };
}

/** Strips across are numbered; the one along the middle is named. */
const nameOf = (strips: readonly Strip[], i: number): string =>
  strips[i]!.runs === 'along' ? 'Strip along the middle' : `Strip ${i + 1} across`;

const round = ([x, y]: Vec): [number, number] => [
  Math.round(x * 100) / 100 + 0,
  Math.round(y * 100) / 100 + 0,
];
