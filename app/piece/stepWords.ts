import type { ShapeStep, StepKind } from '#core/shape/shapeStep';
import type { PatternDoc } from '#core/card/pattern';
import { nameOf } from '../frame/sentences';

type Show = (mm: number, digits?: number) => string;
/** The ways a length is shown: as long things are, and as thin ones. */
export type Shown = { show: Show; showThin: (mm: number) => string };

const names = (pattern: PatternDoc, step: ShapeStep): string =>
  step.about.map((id) => nameOf(pattern, id)).join(' and ');
const profileOf = (pattern: PatternDoc, id: string | undefined): string =>
  pattern.profiles.find((one) => one.id === id)?.name ?? 'the profile';

type Say = (
  figures: Record<string, number>,
  name: string,
  shown: Shown,
  step: ShapeStep,
  pattern: PatternDoc,
) => string;

const pct = (strain = 0) => `${Math.abs(strain * 100).toFixed(1)} %`;

/** A step in a few words, what to do first. */
const TITLES: Record<Exclude<StepKind, 'own'>, Say> = {
  'test-bead': (_, name) => `Test piece for ${name}`,
  'test-strip': (_, __, ___, { reason }) =>
    `Test strip: ${reason === 'shrink-not-proven' ? 'shrink' : 'stretch'} it`,
  'test-bend': () => 'Test bend',
  rough: (f, _, { show }) => `Cut out, ${show(f.overMm ?? 0, 0)} over`,
  exact: () => 'Cut out to the line',
  holes: () => 'Drill the holes',
  flare: (_, name) => `Flare ${name}`,
  bead: (_, name) => `Roll ${name}`,
  raise: () => 'Raise the middle',
  smooth: () => 'Smooth it',
  'tip-start': (f, name) => `Turn the flange of ${name} to ${Math.round(f.startDeg ?? 0)}°`,
  strain: (f, name, { show }) =>
    `${(f.strain ?? 0) > 0 ? 'Stretch' : 'Gather'} ${name}, ${show(f.fromMm ?? 0, 0)} to ${show(f.toMm ?? 0, 0)}`,
  'tip-home': (f, name) => `Turn the flange of ${name} home, ${Math.round(f.angleDeg ?? 0)}°`,
  turn: (f, name, _, { reason }) =>
    reason === 'hem' ? `Hem ${name}` : `Turn the lip of ${name} to ${Math.round(f.angleDeg ?? 0)}°`,
  angle: (f, name) => `Fold the strip for ${name} to ${Math.round(f.angleDeg ?? 0)}°`,
  lip: (_, name, __, { reason }) =>
    reason === 'weld-angle' ? `Fit the curved angle to ${name}` : `Make the lip for ${name}`,
  notch: (_, name) => `Notch the flange of ${name}`,
  pack: (_, __, ___, { about }, pattern) => `Pack ${nameOf(pattern, about[0] ?? '')}`,
  fold: (f, _, __, { about }, pattern) =>
    `Make ${nameOf(pattern, about[0] ?? '')}, ${Math.round(f.angleDeg ?? 0)}°`,
  leave: (_, __, ___, { about }, pattern) =>
    `Leave ${nameOf(pattern, about[0] ?? '')} until the neighbours are up`,
  check: (_, __, ___, { about }, pattern) =>
    `Check with the strip “${profileOf(pattern, about[0])}”`,
  trim: () => 'Trim to the line',
};

/** How it is done, with its figures. */
const HOW: Record<Exclude<StepKind, 'own'>, Say> = {
  'test-bead': (f, _, { show }) =>
    `A piece of the same sheet ${show(f.wideMm ?? 0, 0)} wide and ${show(f.longMm ?? 0, 0)} long. Measure it square to the bead, roll the bead right across, measure again; count the passes.`,
  'test-strip': (f, _, { show }) =>
    `A strip of the same sheet ${show(f.lengthMm ?? 0, 0)} long, ${show(f.widthMm ?? 0, 0)} wide. Bite one edge ${f.bites ?? 0} times, evenly, and measure along that edge before and after.`,
  'test-bend': () =>
    'Fold a strip of the same sheet square and measure its legs: the shop’s page for what is measured takes the reading.',
  rough: () =>
    'Some figures are not proven yet: leave metal on all round, and trim when nothing draws in any more.',
  exact: () => 'The blank as printed.',
  holes: () =>
    'Centre-pop, drill the first size, take the burrs off. What lies near a bead or a stretched rim is drilled after it.',
  flare: (f, _, { show }) => `While the sheet is flat: rim ${show(f.heightMm ?? 0)} high over all.`,
  bead: (f, _, { show, showThin }) =>
    `${f.inMm === undefined ? 'Along the scribed line' : `Fence ${show(f.inMm)} from its edge`}${f.depthPerPassMm ? `, ${showThin(f.depthPerPassMm)} deeper each pass` : ', over a form by hand'}, to ${showThin(f.heightMm ?? 0)} high.`,
  raise: (f, _, { show }) =>
    `Up to ${pct(f.most)} more area where it is most, over a place about ${show(2 * Math.sqrt((f.areaMm2 ?? 0) / Math.PI), 0)} across. Wheel: tracks the long way, half of each over the one before; once over all inside the outermost line of the map, once more inside each line within it. Hammer and bag: rings from the middle out, closer where the lines are closer.`,
  smooth: () =>
    'Light tracks across the first ones, or slap it over a stake of about its crown, until the light runs over it without breaking. It rises a little more by that.',
  'tip-start': (f) =>
    (f.startDeg ?? 0) < (f.angleDeg ?? 0)
      ? 'Only so far all along, over the stake or in the tipping wheel: it is worked before it goes farther.'
      : 'All along, a little at a time: it is straight, nothing is strained.',
  strain: (f, _, { show }, { reason }) =>
    `${pct(f.strain)} ${reason.startsWith('crown') ? 'along the edge' : 'at the rim where it is most'}: ${show(Math.abs(f.changeMm ?? 0))} ${(f.changeMm ?? 0) > 0 ? 'longer' : 'shorter'} over ${show(f.freeMm ?? 0, 0)} of rim${f.apartMm ? `, a bite about every ${show(f.apartMm)}` : ''}. From both ends in turn, a little each side, so that it does not twist.`,
  'tip-home': () =>
    'Turn it the rest of the way, working the rim a little where it still wants to buckle or pull.',
  turn: (f, _, { show, showThin }, { reason }) =>
    reason === 'hem'
      ? `${show(f.widthMm ?? 0)} over: fold it up past square, then close it ${(f.gapMm ?? 0) > 0 ? `on a strip ${showThin(f.gapMm ?? 0)} thick` : 'flat'}.`
      : `${show(f.widthMm ?? 0)} wide, all along, on the machine or over a bar.`,
  angle: (f, _, { show }) =>
    `A straight strip ${show(f.lengthMm ?? 0)} long; the leg that lies on the panel is ${show(f.landMm ?? 0)} wide. Straight first, curved after.`,
  lip: (f, _, { show }) =>
    `${show(f.lengthMm ?? 0)} long along the weld. Fit it to the curve, clamp, tack from the middle out.`,
  notch: (f, _, { show }) =>
    `Cuts ${show(f.deepMm ?? 0)} deep, ${show(f.apartMm ?? 0)} apart; each ends up ${show(f.opensMm ?? 0)} wide at the rim. Drill their ends.`,
  pack: (f, _, { show, showThin }) =>
    f.thickMm
      ? `Lay a strip ${showThin(f.thickMm)} thick and ${show(f.wideMm ?? 0)} wide into it, past both sides of the fold.`
      : 'No flat strip fits: a rod, or hot-set filler that can be taken out.',
  fold: () => 'Overbend and order are on the Blank stop, under Machine.',
  leave: (f) =>
    `Fold it to ${Math.round(f.angleDeg ?? 0)}° only when the gap beyond it can be seen.`,
  check: () => 'Hold the checking strip on its line; work what stands off, and look again.',
  trim: (f, _, { show }) =>
    `Take the ${show(f.overMm ?? 0, 0)} off: scribe again from the datum, cut to the line, last a file stroke.`,
};

/** Why it is there. */
const REASONS: Record<string, string> = {
  'bead-not-proven':
    'How much of its take-up draws the edges in was not measured twice in this shop for this sheet.',
  'stretch-not-proven': 'How much a bite stretches this sheet was not read twice here yet.',
  'shrink-not-proven': 'How much a bite gathers this sheet was not read twice here yet.',
  'bend-not-proven': 'Bends of this sheet were not measured twice here yet.',
  'not-proven': 'Figures that decide its size are not proven yet.',
  proven: 'What draws it in was measured more than once in this shop.',
  'nothing-draws': 'Nothing draws it in.',
  'nothing-draws-unproven': 'Nothing draws it in; its bends were not measured twice here yet.',
  'holes-flat': 'A hole is drilled where the sheet lies flat on wood.',
  'flare-flat': 'The punch wants flat sheet round it.',
  bead: 'Beads come before what stands up and would keep the sheet out of the roller.',
  'bead-by-hand': 'No die of the shop makes this section.',
  pack: 'A fold across an open bead crushes it.',
  'tip-a-little': 'Turned all at once it would buckle, or tear.',
  'tip-straight': 'It runs straight.',
  'middle-short': 'The panel has more metal in its middle than the blank.',
  raised: 'What was raised is uneven, and gathers where it is smoothed.',
  'crown-stretch': 'This edge is longer on the panel than on the blank.',
  'crown-shrink': 'This edge is shorter on the panel than on the blank.',
  'stretch-evenly': 'On the inside of a curve the rim must get longer.',
  'shrink-evenly': 'On the outside of a curve the rim must get shorter.',
  hem: 'A hem is turned while the sheet lies flat.',
  'turned-lip': 'The joint’s lip is turned over before the folds stand up.',
  'tip-home': 'The rim has the length it needs now.',
  'straight-angle': 'A straight angle folds true; it is curved after.',
  'weld-angle': 'It is welded on when it fits the curve.',
  'lip-apart': 'It was chosen to be made apart.',
  notch: 'The strain is more than this sheet takes in one piece.',
  fold: 'Folds come late: what is folded no longer goes into the machines.',
  'leave-for-gap': 'The gap beyond it is adjusted with this fold.',
  'checking-strip': 'Its shape was taken on a strip.',
  'rough-cut': 'It was cut with metal to spare.',
};

/** A broken rule, by its id: why the one should come first. */
export const RULE_WORDS: Record<string, string> = {
  'test-first': 'what a test piece says decides what is cut',
  'cut-first': 'nothing is worked before it is cut out',
  'flare-flat': 'the punch wants flat sheet round it',
  'flare-after-hole': 'the first hole is made in the flat',
  'bead-before-flange': 'what stands up keeps the sheet out of the roller',
  'bead-before-strain': 'a bead draws the edges in; they are worked after',
  'angle-before-pull': 'a straight angle is folded before it is pulled round',
  'tip-before-strain': 'turned a little first, so that nothing buckles',
  'strain-before-home': 'turned home too early it tears or buckles',
  'strain-before-fold': 'the jaws reach no edge that is folded in',
  'pack-before-fold': 'a fold across an open bead crushes it',
  'tip-before-fold': 'a folded piece does not lie on the stake',
  'fold-before-tip': 'turned over first, it would stand in the way of a fold',
  'lip-after-fold': 'what is pulled round is fitted when it has its curve',
  'raise-before-smooth': 'there is nothing to smooth before it is raised',
  'raise-before-gather': 'the rim is gathered to what the middle has become',
  'shape-before-check': 'a strip says nothing before there is a shape',
  'leave-last': 'the last fold adjusts the gap',
  'trim-last': 'trimmed before, it draws in again',
};

export const COUNT_WORDS = {
  passes: ['pass', 'passes'],
  bites: ['bite', 'bites'],
  cuts: ['cut', 'cuts'],
  holes: ['hole', 'holes'],
} as const;

export type Told = { title: string; how: string; reason: string };

/** A step in words. */
export function stepSaid(step: ShapeStep, pattern: PatternDoc, shown: Shown): Told {
  if (step.what === 'own') return { title: step.reason, how: '', reason: 'A step of your own.' };
  const name = names(pattern, step);
  return {
    title: TITLES[step.what](step.figures, name, shown, step, pattern),
    how: HOW[step.what](step.figures, name, shown, step, pattern),
    reason: REASONS[step.reason] ?? '',
  };
}
