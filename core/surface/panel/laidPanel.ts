import type { Result } from '../../measure/result';
import type { Vec } from '../../measure/vector';
import type { BlankOutline } from '../flatten/blankOutline';
import { blankOutline } from '../flatten/blankOutline';
import type { Disc } from '../mesh/disc';
import { discOf } from '../mesh/disc';
import type { Figure } from '../mesh/figures';
import { figureMesh } from '../mesh/figures';
import { flatArea } from '../flatten/firstFlat';
import { flattening } from '../flatten/flatten';
import type { Held, Hold } from '../flatten/held';
import { heldOff, heldOn, pulledFrom } from '../flatten/held';
import { keptSides } from '../flatten/kept';
import type { Mesh } from '../mesh/mesh';
import { overlapsOf } from '../mesh/overlap';
import type { Scan, Taped } from '../mesh/packed';
import { unpacked } from '../mesh/packed';
import type { Panel } from '../strain/strain';
import type { Part } from '../flatten/part';
import { partOf } from '../flatten/part';
import { panelOf } from '../strain/strain';
import type { Contour, StrainMap, Way, Zone } from '../strain/strainMap';
import { benchStep, contours, evened, strainMap, zonesOf } from '../strain/strainMap';
import type { Deviations, Stations } from '../mesh/stations';
import { stationsMesh } from '../mesh/stations';
import type { WorkMark } from '../strain/workMarks';
import { workMarks } from '../strain/workMarks';

/** What a panel is made from: figures, profiles at stations, a scan, or a tucked card. */
export type Described = Figure | Stations | Scan | Taped;

/** A panel laid flat, with all that is said of it. */
export type LaidPanel = {
  disc: Disc;
  flat: Float64Array;
  outline: BlankOutline;
  panelMm2: number;
  blankMm2: number;
  /**
   * The greatest of each over the panel, both 0 or above, and what the thickness becomes where it
   * changes most (as a factor).
   */
  stretch: number;
  shrink: number;
  thinnest: number;
  thickest: number;
  map: StrainMap;
  lines: (Contour & { way: Way })[];
  marks: WorkMark[];
  zones: Zone[];
  /** Where the outline runs over itself. */
  overlaps: Vec[];
  deviations: Deviations | null;
  /** How far what is held still lies off on the blank, mm, in the order it is given. */
  heldOff: number[];
};

/** Tolerance within which what is held has to lie, mm, and the maximum number of rounds. */
const [HELD_MM, HELD_ROUNDS] = [0.05, 8];

/** Distance between marks, as a share of the square root of the blank’s area. */
const MARKS_APART = 1 / 11;

/** The surface that is described, or the part of it that is made, as a disc. */
export function describedDisc(
  made: Described,
  triangles: number,
  part: Part | null = null,
): Result<{ disc: Disc; deviations: Deviations | null }> {
  const whole = wholeDisc(made, triangles);
  if (!whole.ok || !part) return whole;
  const found = partOf(whole.disc, part);
  return found.ok ? { ...found, deviations: whole.deviations } : found;
}

function wholeDisc(
  made: Described,
  triangles: number,
): Result<{ disc: Disc; deviations: Deviations | null }> {
  if (made.kind === 'scan' || made.kind === 'taped') {
    const disc = discOf(unpacked(made));
    return disc.ok ? { ok: true, disc: disc.disc, deviations: null } : disc;
  }
  const found: Result<{ mesh: Mesh; deviations?: Deviations }> =
    made.kind === 'stations' ? stationsMesh(made, triangles) : figureMesh(made, triangles);
  if (!found.ok) return found;
  const disc = discOf(found.mesh);
  return disc.ok ? { ok: true, disc: disc.disc, deviations: found.deviations ?? null } : disc;
}

/**
 * Lays what is described flat: yields how many steps were taken, so that whoever waits can stop;
 * then the answer. Problems: those of the surface, of `discOf`, and `flatten-failed`. `keep`: edges
 * by their number that keep their length; `part`: the part of it that is made, null for the whole;
 * `hold`: lines and points that stay as they are.
 */
export function* layingPanel(
  made: Described,
  balance: number,
  triangles: number,
  keep: readonly number[] = [],
  part: Part | null = null,
  hold: readonly Hold[] = [],
): Generator<number, Result<{ laid: LaidPanel }>> {
  const described = describedDisc(made, triangles, part);
  if (!described.ok) return described;
  const { disc, deviations } = described;
  const way = flattening(disc, balance);
  let step = way.next();
  for (; !step.done; step = way.next()) yield step.value.steps;
  const held = hold.map((one) => heldOn(disc, one));
  const panel = panelOf(disc.mesh);
  let off = Infinity;
  // Where what is held goes is known when it lies flat: laid again until it stays there.
  for (
    let round = 0;
    step.value.ok && round < (held.length > 0 ? HELD_ROUNDS : Math.min(1, keep.length));
    round++
  ) {
    const { flat } = step.value;
    // Which sides an edge has is known when it lies flat.
    const runs = blankOutline(disc, flat).edges.filter((_, i) => keep.includes(i));
    const again = flattening(disc, balance, flat, {
      sides: keptSides(disc.mesh, disc.rim, runs),
      pulled: pulledFrom(panel, flat, held),
    });
    for (step = again.next(); !step.done; step = again.next()) yield step.value.steps;
    if (!step.value.ok) break;
    const now = worstOff(panel, step.value.flat, held);
    if (now < HELD_MM || now > off - HELD_MM / 4) break;
    off = now;
  }
  if (!step.value.ok) return step.value;
  const { flat } = step.value;
  return {
    ok: true,
    laid: {
      ...laidPanel(disc, flat, deviations),
      heldOff: held.map((one) => heldOff(panel, flat, one)),
    },
  };
}

const worstOff = (panel: Panel, flat: Float64Array, held: readonly Held[]): number =>
  held.reduce((worst, one) => Math.max(worst, heldOff(panel, flat, one)), 0);

/** All that is said of a flat. */
function laidPanel(disc: Disc, flat: Float64Array, deviations: Deviations | null): LaidPanel {
  const panel = panelOf(disc.mesh);
  const map = strainMap(panel, flat);
  const greatest = (values: Float64Array): number => values.reduce((a, b) => Math.max(a, b), 0);
  const [stretch, shrink] = [greatest(map.stretch), greatest(map.shrink)];
  const step = benchStep(Math.max(stretch, shrink));
  const blankMm2 = flatArea(panel.triangles, flat);
  const thickness = map.area.map((x) => 1 / (1 + x));
  return {
    disc,
    flat,
    outline: blankOutline(disc, flat),
    panelMm2: panel.whole,
    blankMm2,
    stretch,
    shrink,
    thinnest: thickness.reduce((a, b) => Math.min(a, b), Infinity),
    thickest: greatest(thickness),
    map,
    lines: (['stretch', 'shrink'] as const).flatMap((way) =>
      contours(panel, evened(panel, map[way]), step).map((line) => ({ ...line, way })),
    ),
    marks: workMarks(panel, flat, Math.sqrt(blankMm2) * MARKS_APART),
    zones: zonesOf(disc, panel, flat),
    overlaps: overlapsOf([...disc.rim].map((v): Vec => [flat[2 * v]!, flat[2 * v + 1]!])),
    deviations,
    heldOff: [],
  };
}
