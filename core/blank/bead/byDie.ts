import type { Path } from '../../measure/path';
import { outwardAlong, pointAlong, runLength } from '../../measure/run';
import type { Segment } from '../../measure/segment';
import { arcOf, crossingsWithLine, isStraight, pointAt } from '../../measure/segment';
import { SAME_PLACE_MM } from '../../measure/tolerance';
import { dot, sub } from '../../measure/vector';
import type { BlankBead } from '../blank';
import type { WrittenSection } from './section';
import { passesFor } from './section';

/**
 * A roller or die: the section it makes, how much deeper a pass goes, the least radius it follows,
 * how far in it reaches, mm.
 */
export type Die = {
  id: string;
  name: string;
  section: WrittenSection;
  depthPerPassMm: number;
  leastRadiusMm: number;
  throatMm: number;
};

export type ByDie = {
  die: Die;
  passes: number;
  /** The tightest curve of the bead where it is tighter than the die follows, mm. */
  tooTightMm: number | null;
  /** How far from the nearer rim it lies where that is farther than the throat reaches, mm. */
  outOfReachMm: number | null;
};

/** A die makes a bead of about its width; lower ones by fewer passes. */
const SAME_WIDTH = 0.06;

/**
 * The die of a shop that makes a section: of its kind and width, and at least as high. Null where
 * none does.
 */
export function dieFor(section: WrittenSection, dies: readonly Die[]): Die | null {
  const fits = ({ section: made }: Die): boolean => {
    if (made.kind !== section.kind) return false;
    if (made.kind === 'step' || section.kind === 'step') return true;
    return (
      Math.abs(made.widthMm - section.widthMm) <= SAME_WIDTH * section.widthMm &&
      made.heightMm >= section.heightMm * (1 - SAME_WIDTH)
    );
  };
  return dies.find(fits) ?? null;
}

/** How a bead is run by a die, and what of it the die cannot do; by its runs on the blank. */
export function byDie({ runs, size }: BlankBead, die: Die, outline: Path): ByDie {
  const radii = runs.flat().flatMap((s) => (isStraight(s) ? [] : [arcOf(s).radius]));
  const tightest = Math.min(...radii, Infinity);
  const reach = Math.max(0, ...runs.map((run) => reachOf(run, outline)));
  return {
    die,
    passes: passesFor(size.heightMm, die.depthPerPassMm),
    tooTightMm: tightest < die.leastRadiusMm ? tightest : null,
    outOfReachMm: reach > die.throatMm ? reach : null,
  };
}

const PLACES = 24;

/** How far in a machine has to reach over the sheet, from the side where that is less, mm. */
function reachOf(run: readonly Segment[], outline: Path): number {
  const long = runLength(run);
  const sides = [1, -1].map((side) => {
    let most = 0;
    for (let i = 0; i <= PLACES; i++) {
      const mm = (long * i) / PLACES;
      const [p, out] = [pointAlong(run, mm), outwardAlong(run, mm)];
      if (!p) continue;
      const offs = outline.flatMap((s) =>
        crossingsWithLine(s, p, out).map((t) => side * dot(sub(pointAt(s, t), p), out)),
      );
      // Out over the rim the farthest crossing counts: whatever is between has to go into the
      // throat.
      most = Math.max(most, ...offs.filter((mm) => mm > SAME_PLACE_MM));
    }
    return most;
  });
  return Math.min(...sides);
}

/**
 * A strip to lay into a bead while a fold is made across it: as thick as the bead is deep, less the
 * sheet, and as wide as its inside is at half that depth. Null where nothing flat fits (a V, a
 * step, or a bead no deeper than the sheet).
 */
export function packingStrip(
  section: WrittenSection,
  thicknessMm: number,
): { wideMm: number; thickMm: number } | null {
  if (section.kind === 'v' || section.kind === 'step') return null;
  const thickMm = section.heightMm - thicknessMm / 2;
  if (thickMm <= 0) return null;
  if (section.kind === 'flat-topped') {
    const slope = (section.widthMm - section.topMm) / 2 / section.heightMm;
    return { wideMm: Math.max(0, section.topMm + slope * thickMm - thicknessMm), thickMm };
  }
  // How wide the arc is at half the height of the strip.
  const { widthMm: w, heightMm: h } = section;
  const radius = (w ** 2 / 4 + h ** 2) / (2 * h);
  const at = radius - h + thickMm / 2;
  return {
    wideMm: Math.max(0, 2 * Math.sqrt(Math.max(0, radius ** 2 - at ** 2)) - thicknessMm),
    thickMm,
  };
}
