import type { FlangeMade, JointKind, CardConvention, Process } from '#core/card/kinds';
import type { BlankBead } from '#core/blank/blank';
import type { EdgeFit, GapRemedy } from '#core/fit/gapRemedy';
import type { GapCondition } from '#core/fit/gapCondition';
import type { LimitWhy } from '#core/metal/forming';
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

export const FLANGE_WORDS: Record<FlangeMade, { title: string; about: string }> = {
  tipped: {
    title: 'Tipping',
    about:
      'Cut to the curve and turned over: on the inside of a curve it stretches, on the outside it shrinks.',
  },
  pulled: {
    title: 'Pulling a straight angle round',
    about:
      'A strip made apart: folded straight first, then curved with shrinker or stretcher along the leg that lies on the panel.',
  },
  notched: {
    title: 'Tipping, with notches welded after',
    about: 'Cuts take the strain out of its outer part; each is welded when the flange stands.',
  },
  lip: {
    title: 'A lip of its own, welded on',
    about: 'The panel ends at the line; the lip is a strip that is only rolled to the curve.',
  },
};

/** What a limit is by: “… % is”. */
export const LIMIT_WORDS: Record<LimitWhy, string> = {
  'uniform-elongation': 'as far as this metal stretches evenly (Considère)',
  elongation: 'three fifths of its elongation at break (common practice)',
  'elongation-at-break': 'its elongation at break, where a cut edge tears',
  'hole-flange-table': 'where the rim of a hole cracks (Romanovsky’s tables, from memory)',
  'torn-here': 'where an edge of this sheet tore in this shop',
  'wrinkled-here': 'where an edge of this sheet folded over in this shop',
  usual: 'what can usually be gathered (common practice)',
};

/** Where the share that a bead draws in is from: “the share …”. */
export const DRAWN_BY_WORDS: Record<BlankBead['by'], string> = {
  bead: 'as it was typed on the card',
  shop: 'from this shop’s test pieces of the sheet',
  usual: 'is what is usual (common practice, from memory): prove it on a test piece',
};

export const AT_FOLDS_WORDS: Record<'packed' | 'stopped' | 'parted', string> = {
  packed: 'It runs through and is packed with strip',
  stopped: 'It stops short on both sides',
  parted: 'It is cut through there and welded after',
};

export const MADE_WORDS: Record<CardConvention, { short: string; long: string }> = {
  'outside-sharp': {
    short: 'Outside, creased',
    long: 'Card lay on the outside, creased sharp at the corner',
  },
  'inside-sharp': {
    short: 'Inside, creased',
    long: 'Card lay on the inside, creased sharp at the corner',
  },
  'outside-rolled': {
    short: 'Outside, rolled',
    long: 'Card lay on the outside, rolled round; mark at mid-bend',
  },
  'inside-rolled': {
    short: 'Inside, rolled',
    long: 'Card lay on the inside, rolled round; mark at mid-bend',
  },
};

const CONDITION_WORDS: Record<GapCondition, string> = {
  unread: 'not read yet',
  even: 'on target',
  'even-tight': 'tight all along: relieve it, or move the piece away',
  'even-wide': 'wide all along: move the piece over',
  'tapers-to-start': 'tight toward the start, wide toward the far end: turn the piece a little',
  'tapers-to-end': 'wide toward the start, tight toward the far end: turn the piece a little',
  'tight-at-start': 'tight at the start: relieve it there',
  'tight-at-end': 'tight at the far end: relieve it there',
  'tight-at-ends': 'tight at both ends: relieve it there',
  'tight-in-middle': 'tight in the middle: relieve it there',
  'tight-in-places': 'tight in places: relieve it there',
  'wide-at-start': 'wide at the start',
  'wide-at-end': 'wide at the far end',
  'wide-at-ends': 'wide at both ends',
  'wide-in-middle': 'wide in the middle',
  'wide-in-places': 'wide in places',
  uneven: 'tight in places and wide in others: dress it station by station',
};

/** What is done about a gap that is wider than wanted, once the piece itself lies as it can. */
const REMEDY_WORDS: Record<GapRemedy, string> = {
  weldable: 'it can still be welded as it is',
  'thicker-rod': 'dress the edge over, or close it with a thicker rod',
  'build-up': 'stretch the edge over, or build it up from the stronger side',
  strip: 'let in a strip',
  'clamp-down': 'clamp or dress it down',
  'shut-line': 'move it at hinge or striker',
};

/** How an edge lies in one line: its gaps, how many are read, and where it does not lie flush. */
export function conditionSentence(
  { condition, read, stations, proud, low, remedy, longMm }: EdgeFit,
  show: (mm: number) => string,
): string {
  if (condition === 'unread') return CONDITION_WORDS.unread;
  const off = [
    proud.length > 0 && `proud at ${proud.length}`,
    low.length > 0 && `low at ${low.length}`,
  ].filter(Boolean);
  const flush = off.length > 0 ? `; stands ${off.join(', ')}` : '';
  const wide = remedy && condition.startsWith('wide-') ? `: ${REMEDY_WORDS[remedy]}` : '';
  const left = longMm === null ? '' : `; left long: up to ${show(longMm)} still to trim`;
  const over =
    remedy && condition === 'even-wide' && remedy !== 'weldable'
      ? `, else ${REMEDY_WORDS[remedy]}`
      : '';
  return `${CONDITION_WORDS[condition]}${wide}${over}${left}${flush}${read < stations ? ` (${read} of ${stations} read)` : ''}`;
}

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
  'gap-thicker-rod': {
    title: 'Gap too wide for TIG',
    text: 'Its edges want to touch. Dress them together, or close it with a thicker rod, tried on scrap first.',
  },
  'gap-build-up': {
    title: 'Gap wider than MIG jumps on this sheet',
    text: 'Build up from the stronger edge a spot at a time, copper behind it, and let each cool.',
  },
  'gap-strip': {
    title: 'Gap too wide to weld',
    text: 'It would burn away or pull: let in a strip, or move the piece.',
  },
};

const LIST = new Intl.ListFormat('en-GB', { type: 'conjunction' });
/** Names in a row, as one says them: “A, B and C”. */
export const listed = (names: readonly string[]): string => LIST.format(names);
