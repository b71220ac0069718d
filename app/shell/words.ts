import type { PatternDoc } from '#core/card/pattern';
import type { JointKind, Made, Process } from '#core/card/kinds';
import type { Problem } from '#core/measure/result';
import type { Lie } from '#core/fit/lie';
import type { Caution } from '#core/weld/caution';

/** Trade words for codes: what is shown wherever the core says something. */

export const JOINT_WORDS: Record<JointKind, string> = {
  free: 'Free edge',
  butt: 'Butt',
  'backed-butt': 'Backed butt',
  lap: 'Lap',
  joggle: 'Joggled lap',
  hem: 'Hem',
  'plug-flange': 'Plug-welded flange',
};

export const PROCESS_WORDS: Record<Process, string> = {
  mig: 'MIG',
  tig: 'TIG',
  gas: 'Gas',
  spot: 'Spot',
  braze: 'Braze',
};

export const MADE_WORDS: Record<Made, { short: string; long: string }> = {
  'outside-sharp': { short: 'Outside, creased', long: 'Card lay on the outside, creased sharp at the corner' },
  'inside-sharp': { short: 'Inside, creased', long: 'Card lay on the inside, creased sharp at the corner' },
  'outside-rolled': { short: 'Outside, rolled', long: 'Card lay on the outside, rolled round; mark at mid-bend' },
  'inside-rolled': { short: 'Inside, rolled', long: 'Card lay on the inside, rolled round; mark at mid-bend' },
};

type Show = (mm: number) => string;

/** What a thing on the card is called: edge A, fold 2, hole 1. */
export function nameOf(doc: PatternDoc, id: string): string {
  const edge = doc.edges.find((e) => e.id === id || e.sides.includes(id));
  if (edge) return `edge ${edge.letter}`;
  const fold = doc.folds.findIndex((f) => f.id === id);
  if (fold >= 0) return `fold ${fold + 1}`;
  const hole = doc.holes.findIndex((h) => h.id === id);
  return hole >= 0 ? `hole ${hole + 1}` : 'a part that is gone';
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** A problem as a sentence that says what to do. */
export function problemSentence(problem: Problem, doc: PatternDoc, show: Show): string {
  const names = (problem.about ?? []).map((id) => nameOf(doc, id));
  const both = names.join(' and ');
  const it = capital(names[0] ?? 'It');
  const n = problem.numbers ?? {};
  const mm = (key: string) => show(n[key] ?? 0);
  const sentences: Record<string, string> = {
    'outline-empty': 'There is no outline yet: type its legs, paste its points, or draw it.',
    'outline-not-closed': 'The outline does not close: draw it again or import it afresh.',
    'side-zero': `${it} has no length: pull its corners apart or take one out.`,
    'outline-crosses': `The outline crosses itself at ${both}: move a corner so that it goes round once.`,
    'outline-clockwise': 'The outline runs the wrong way round: type or draw it again.',
    'fold-off-outline': `${it} no longer ends on the outline: take it off and lay it again.`,
    'fold-zero': `${it} is too short to fold: its ends must be at least 1 mm apart.`,
    'fold-leaves-card': `${it} leaves the card: both ends must see each other across the card.`,
    'folds-cross': `${capital(both)} cross: a fold may meet another at a corner but not cross it.`,
    'hole-zero': `${it} has no diameter: give it one or take it off.`,
    'hole-outside': `${it} lies off the card: move it in.`,
    'hole-over-edge': `${it} runs ${mm('overMm')} over the edge: move it in or make it smaller.`,
    'base-off-card':
      'The point that marks the face that stays put lies off the card: the largest face stays put. Touch “Stays put” and the face you mean.',
    'side-not-straight': `${it} is curved: a fold can be laid only along a straight side.`,
    'fold-misses-card': `A line ${mm('offMm')} in from ${it} misses the card.`,
    'holes-overlap': `${capital(both)} run into each other.`,
    'flange-shorter-than-setback': `${it}: the flange is ${mm('depthMm')} deep and the bend alone takes ${mm('setbackMm')}. Make the flange deeper or the radius smaller.`,
    'folds-too-close': `${it} is too near another fold: their bends would run into each other. Move them apart or use a smaller radius.`,
    'radius-under-least': `${it}: a radius of ${mm('radiusMm')} is under the least for this metal (${mm('leastMm')}). It may crack: use a larger radius, or try a test piece.`,
    'flange-short': `${it}: only ${mm('flatMm')} of flat beyond the bend, and the brake wants ${mm('leastMm')}. Fold it over a bar, or leave it longer and trim after.`,
    'hole-in-bend': `${capital(names[0] ?? 'a hole')} lies in the bend of ${names[1] ?? 'a fold'}: it will pull out of round. Make it after folding.`,
    'hole-near-fold': `${capital(names[0] ?? 'a hole')} is ${mm('clearMm')} from the bend of ${names[1] ?? 'a fold'}; under ${mm('neededMm')} it may go egg-shaped. Make it after folding, or move it.`,
    'blank-crosses': `In the flat, parts of the blank lie on each other (${both}). Trim the card there or make the piece in two.`,
    'no-room-for-relief': `${it}: no room to cut a relief at its end. Drill it by hand.`,
    'angle-out-of-range': `${it}: the angle must be over 0° and up to 180°.`,
    'radius-negative': `${it}: the radius cannot be less than nothing.`,
    'thickness-not-positive': 'The sheet has no thickness: choose a gauge under Survey.',
    'k-out-of-range': 'The K in the shop settings must lie between 0 and 1.',
    'too-few-corners': 'An outline needs at least three corners that are not on top of each other.',
    'leg-unreadable': `Leg ${n.leg} can’t be read. Write a length and, after @, the turn: 120 @ 90.`,
    'leg-zero': `Leg ${n.leg} has no length.`,
    'no-legs': 'Type at least three legs, like: 120 @ 90, then 45 @ 60.',
    'row-unreadable': `Line ${n.row} can’t be read: two figures are wanted, x and y.`,
    'no-rows': 'Paste at least three lines of x and y.',
    'gauge-unknown': `There is no ${n.gauge} gauge in that system; it goes from ${n.lowest} to ${n.highest}.`,
    'nothing-to-print': 'There is nothing to print yet: make the card first.',
    'too-many-pages': `That would be ${n.pages} pages: use larger paper.`,
    'paper-too-small': 'The overlap leaves no room on that paper.',
    'reading-not-positive': 'Say how far each reading of the strip may be out: a tenth of a millimetre is usual.',
    'no-strips': 'Fold a test strip first, and measure it.',
    'length-not-positive': 'The edge has no length to space anything along.',
    'pitch-not-positive': 'Give a pitch over nothing.',
    'end-negative': 'The first plug cannot lie before the start of the edge: give nothing or more.',
    'too-many-tacks': `That would be over ${Math.round(n.tacks ?? 2000)} tacks: give a larger pitch.`,
    'strip-not-credible': 'Flat length and legs do not belong together: measure the strip again.',
  };
  return sentences[problem.code] ?? `Something is wrong (${problem.code}).`;
}

export function lengthProblem(problem: Problem): string {
  return (
    {
      'length-empty': 'Type a length.',
      'length-divided-by-zero': 'That divides by nothing.',
    }[problem.code] ?? 'Can’t read that. Write 812, 81.2cm, 32", 31 15/16 or 2\' 8.'
  );
}

export const LIE_WORDS: Record<Lie, string> = {
  unread: 'not read yet',
  even: 'even, on target',
  'even-tight': 'even, but tight all along: relieve it',
  'even-wide': 'even, but wide all along: move the piece over',
  'tapers-to-start': 'tapers: tighter at the start, wider at the far end',
  'tapers-to-end': 'tapers: wider at the start, tighter at the far end',
  'tight-in-middle': 'tight in the middle: relieve it there',
  'wide-in-middle': 'wide in the middle: stretch the edge or move it in',
  uneven: 'uneven: dress it station by station',
};

export const CAUTION_WORDS: Record<Caution, { title: string; text: string }> = {
  structural: {
    title: 'Part of what holds the vehicle up',
    text: 'Brace before cutting and follow the maker’s and local inspection rules. Have a licensed person judge the repair before it is closed.',
  },
  'zinc-fume': {
    title: 'Zinc fume',
    text: 'Strip the zinc back from the weld, draw the fume off and wear a fume mask: it makes you ill. Ask the sheet’s data sheet what else it carries.',
  },
  'weld-through-primer': {
    title: 'Faces that will touch',
    text: 'Weld-through primer goes on before closing and is scraped off where the bead goes. Its zinc gives off fume: draw it away.',
  },
  'lap-traps-water': {
    title: 'Every lap holds water',
    text: 'Joggle the side that lets water run over the lap, not into it. Seal the seam after priming.',
  },
  'prime-before-closing': {
    title: 'Never reached again',
    text: 'Prime what will be closed in before it is closed, and keep the drain open.',
  },
  'aluminium-other-settings': {
    title: 'Aluminium gives no colour before it melts',
    text: 'Clean off the oxide just before, and prove settings on scrap of the same sheet.',
  },
  'stainless-fume': {
    title: 'Chromium fume',
    text: 'Welding stainless gives off chromium fume. Draw it off at the weld and follow local rules for it.',
  },
  sparks: {
    title: 'Sparks and heat',
    text: 'Wax, underseal, trim and fuel burn. Clear them, keep water by, and look again half an hour after.',
  },
  'gap-too-wide': {
    title: 'Gap wider than the sheet',
    text: 'On thin metal it can’t be jumped: build out from the stronger edge, or let in a strip.',
  },
};
