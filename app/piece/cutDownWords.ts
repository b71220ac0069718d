import type { PatternDoc } from '#core/card/pattern';
import type { CutDown, CutDownWork, Fault } from '#core/cutdown/cutDown';
import type { CutDownWorkKind, FaultKind, Holed, LaidOn, Verdict } from '#core/cutdown/kinds';
import { FAULT_MEASURED } from '#core/cutdown/kinds';

/** What the parts of cutting down are called, where two pages differ about one. */
export const CUT_DOWN_WORDS: { [K in keyof CutDown]: string } = {
  readingsMm: 'Micrometer readings',
  received: 'How it was received',
  faults: 'What is wrong with it',
  works: 'What brings it to size',
};

export const LAID_ON_WORDS: Record<LaidOn, string> = {
  template: 'On the template',
  'old-panel': 'On the old panel',
  vehicle: 'On the vehicle',
  nothing: 'On nothing',
};

export const VERDICT_WORDS: Record<Verdict, string> = {
  kept: 'Kept',
  'in-part': 'Used in part',
  'sent-back': 'Sent back',
};

export const FAULT_WORDS: Record<FaultKind, string> = {
  'too-long': 'Too long',
  'too-short': 'Too short',
  'hole-missing': 'Hole missing',
  'hole-out-of-place': 'Hole out of place',
  'crease-missing': 'Crease missing',
  'angle-wrong': 'Angle wrong',
  'curve-wrong': 'Curve wrong',
  other: 'Something else',
};

export const WORK_WORDS: Record<CutDownWorkKind, string> = {
  spots: 'Spots drilled out',
  flange: 'Flange trimmed',
  cut: 'Cut along a line',
  'hole-made': 'Hole made',
  'hole-stopped': 'Hole stopped',
};

export const HOLED_WORDS: Record<Holed, string> = {
  this: 'Holes in this piece',
  other: 'Holes in what it was on',
  both: 'Holes in both',
};

const where = (edge: string | null, { edges }: PatternDoc): string => {
  const at = edges.find(({ id }) => id === edge);
  return at ? `, at ${at.letter}` : '';
};

/** A fault in a line: what, by how much, where. */
export function faultSaid(
  { kind, edge, by }: Fault,
  pattern: PatternDoc,
  show: (mm: number) => string,
): string {
  const much = by === null ? '' : FAULT_MEASURED[kind] === 'deg' ? ` by ${by}°` : ` by ${show(by)}`;
  return `${FAULT_WORDS[kind]}${much}${where(edge, pattern)}`;
}

/** The figure of a work, as it is told. */
function figureOf(work: CutDownWork, show: (mm: number) => string): string {
  switch (work.kind) {
    case 'spots':
      return `${work.count}, ${HOLED_WORDS[work.holed].toLowerCase()}`;
    case 'flange':
      return `by ${show(work.byMm)}`;
    case 'cut':
      return `${show(work.leftMm)} left on`;
    case 'hole-made':
    case 'hole-stopped':
      return `⌀ ${show(work.diameterMm)}`;
  }
}

/** A work in a line: what, its figure, and where. */
export const cutDownWorkSaid = (
  work: CutDownWork,
  pattern: PatternDoc,
  show: (mm: number) => string,
): string => `${WORK_WORDS[work.kind]}, ${figureOf(work, show)}${where(work.edge, pattern)}`;
