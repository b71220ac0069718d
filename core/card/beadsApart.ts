import type { Bead } from './pattern';

/** In what a bead differs from the one it carries on; mm, here less there. */
export type BeadsApart = {
  kind: boolean;
  toward: boolean;
  widthMm: number;
  heightMm: number;
  /**
   * How far in from its edge the middle lies; null where one of the two is not measured from an
   * edge.
   */
  inMm: number | null;
};

const widthOf = ({ section }: Bead): number => (section.kind === 'step' ? 0 : section.widthMm);
const heightOf = ({ section }: Bead): number =>
  section.kind === 'step' ? section.depthMm : section.heightMm;
/** Differences smaller than this are none, mm. */
const SAME_MM = 0.05;

/**
 * Null where the two carry on as one: the same section, the same way up, as far in from the edges
 * that guide them.
 */
export function beadsApart(here: Bead, there: Bead): BeadsApart | null {
  const along =
    here.path.kind === 'along' && there.path.kind === 'along'
      ? here.path.inMm - there.path.inMm
      : null;
  const found: BeadsApart = {
    kind: here.section.kind !== there.section.kind,
    toward: here.toward !== there.toward,
    widthMm: widthOf(here) - widthOf(there),
    heightMm: heightOf(here) - heightOf(there),
    inMm: along,
  };
  const same = [found.widthMm, found.heightMm, along ?? 0].every((mm) => Math.abs(mm) < SAME_MM);
  return same && !found.kind && !found.toward ? null : found;
}
