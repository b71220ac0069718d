import type { PatternDoc } from '#core/card/pattern';
import type { Figures, ProblemCode } from '#core/measure/problems';
import type { Problem } from '#core/measure/result';

/** What a thing on the card is called: edge A, fold 2, hole 1. */
export function nameOf(doc: PatternDoc, id: string): string {
  const edge = doc.edges.find((e) => e.id === id || e.sides.includes(id));
  if (edge) return `edge ${edge.letter}`;
  const fold = doc.folds.findIndex((f) => f.id === id);
  if (fold >= 0) return `fold ${fold + 1}`;
  const hole = doc.holes.findIndex((h) => h.id === id);
  if (hole >= 0) return `hole ${hole + 1}`;
  const bead = doc.beads.findIndex((b) => b.id === id);
  if (bead >= 0) return `bead ${bead + 1}`;
  const tuck = doc.tucks.findIndex((t) => t.id === id);
  if (tuck >= 0) return `${doc.tucks[tuck]!.kind} ${tuck + 1}`;
  return doc.rules.some((rule) => rule.id === id) ? 'a rule' : id;
}

/** A strain as a percentage. */
const share = (strain: number) => `${(strain * 100).toFixed(1)} %`;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/**
 * Whom a sentence is about: the first thing (`It` with a capital), the second, and all of them
 * together.
 */
type About = { it: string; It: string; other: string; all: string; All: string };
type Say<C extends ProblemCode> =
  string | ((figures: Figures[C], about: About, mm: (mm: number) => string) => string);

const WRITE = 'Write 812, 81.2cm, 32", 31 15/16 or 2\' 8.';

/** A sentence for every code, that says what to do. A code without one does not compile. */
const SENTENCES: { [C in ProblemCode]: Say<C> } = {
  'length-empty': 'Type a length.',
  'length-unreadable': `Can’t read that. ${WRITE}`,
  'length-divided-by-zero': 'That divides by nothing.',
  'length-too-long': `That is longer than any bench. ${WRITE}`,
  'length-ambiguous': (n) =>
    `That can be ${n.first} or ${n.second}: write it without the comma, or with a point.`,
  'length-fraction-ambiguous': (n, _, mm) =>
    `That can be a fraction of an inch (${mm(n.inchMm)}) or a division (${mm(n.dividedMm)}): put " behind it for inches, or write ÷.`,
  'no-legs': 'Type at least three legs, like: 120, 45 left 60, 120.',
  'leg-unreadable': (n) =>
    `Leg ${n.leg} can’t be read. Write a length and the turn at its end: 120 left 60. No turn means square.`,
  'leg-ambiguous': (n) =>
    `Leg ${n.leg}: is that comma a decimal comma, or does it part two legs? Write a point for decimals, a new line for legs.`,
  'leg-zero': (n) => `Leg ${n.leg} has no length.`,
  'lengths-few': 'Name three edges or more, each with its length: they go round the piece.',
  'lengths-none': (_, { all }) => `Edge ${all} has no length yet: measure it and type it.`,
  'lengths-open': (n, { all }, mm) =>
    `These edges cannot go round: ${all} is ${mm(n.longestMm)}, all others together ${mm(n.restMm)}. Measure again, or name the edge that is missing.`,
  'outline-presumed':
    'Only the lengths of its edges are known: no blank can be cut by that. Draw its card, and the edges keep what was read and welded on them.',
  'no-rows': 'Paste at least three lines of two figures.',
  'row-unreadable': (n) =>
    `Line ${n.row} can’t be read: ${n.cells === 3 ? 'three figures are wanted, along, across and height' : 'two figures are wanted, across and up'}.`,
  'profile-station': (_, { it }) => `Reading ${it}: every station is read once, as a length.`,
  'tuck-form': (_, { It }) => `${It}: give it a width of 0 or more and a depth above 0.`,
  'shape-figures': (_, { all }) => `Out of range: ${all}.`,
  'tube-misses':
    'Some of this tube passes beside the other: make it thinner, or bring the axes nearer to each other.',
  'take-off-too-far': (n, { it }, mm) =>
    `${mm(n.mm)} cannot be taken off along ${it}: nothing would be left of it or of a side beside it.`,
  'nothing-taken':
    'This card was begun anew since it was made from the other: there is nothing left to compare it by.',
  'contour-length': (n, { it }, mm) =>
    `The contour is ${mm(n.contourMm)} from end to end and ${it} ${mm(n.sideMm)}: make the side as long first, or take the contour over all of it.`,
  'taken-needs-outline': (_, { It }) =>
    `${It} hangs on a side that this card does not have: take the outline over first, or with it.`,
  'taken-strands-fold': (_, { It }) =>
    `${It} of this card hangs on a side that the other outline does not have. Take it off first, and lay it anew after.`,
  'rule-unreadable':
    'A rule names a side, corner, hole or fold that is not there, or too few of them.',
  'springback-figures': (_, { all }) =>
    `These figures must be above 0, and the angle at most 180°: ${all}.`,
  'flange-figures': (_, { all }) =>
    `No flange has these figures: ${all}. All must be above 0, the angle at most 180°, the arc at most 360°.`,
  'flange-past-centre': (n, _, mm) =>
    `A flange of ${mm(n.widthMm)} reaches past the middle of a curve of ${mm(n.radiusMm)}: make it narrower, or make the piece of two.`,
  'flange-narrow': (n, { it }, mm) =>
    `The flange of ${it} is ${mm(n.widthMm)} wide, its bend alone takes ${mm(n.leastMm)}: make it wider, or the radius smaller.`,
  'flange-strained': (n, { it }) =>
    n.strain > 0
      ? `The flange of ${it} must stretch by ${share(n.strain)}, ${share(n.limit)} is the most it should: narrower, less turned, notched, or a lip of its own.`
      : `The flange of ${it} must shrink by ${share(-n.strain)}, ${share(-n.limit)} is the most it should: narrower, less turned, notched, or a lip of its own.`,
  'flange-round-corner': (n, { it }) =>
    `The flange of ${it} goes round a corner of ${Math.round(Math.abs(n.turnDeg))}°: it is cut there. Round the corner off to have it in one.`,
  'flange-over-fold': (_, { it, other }) =>
    `The flange of ${it} stops at ${other}: two bends cannot cross. Weld the corner after.`,
  'bead-figures': (_, { it }) => `The figures of ${it} must be above 0.`,
  'bead-too-high': (n, _, mm) =>
    `A round bead is at most half as high as it is wide: ${mm(n.mostMm)}. Make it wider or lower, or flat-topped.`,
  'bead-top-wide': (n, _, mm) =>
    `The top, ${mm(n.topMm)}, must be narrower than the bead, ${mm(n.widthMm)}.`,
  'bead-share': 'The share that draws in lies between 0 (it all stretches) and 1.',
  'bead-pass': 'A pass must go deeper than 0.',
  'bead-radius': 'The radius of the panel along the bead must be above 0.',
  'bead-off-card': (_, { It }) => `${It} does not lie on the card: move it in, or take it off.`,
  'bead-over-fold': (_, { It, other }) =>
    `${It} runs over ${other} and is crushed there: say whether it is packed with strip, stops short of it, or is cut through.`,
  'bead-near-edge': (n, { It, other }, mm) =>
    `${It} lies ${mm(n.clearMm)} from ${other}, ${mm(n.neededMm)} (three widths) is usual: the edge will be drawn in there, trim it after.`,
  'bead-near-fold': (n, { It, other }, mm) =>
    `${It} lies ${mm(n.clearMm)} from ${other}, ${mm(n.neededMm)} (three widths) is usual: pack it when folding, or it collapses.`,
  'bead-over-hole': (_, { It, other }) =>
    `${It} runs into ${other}: drill it after beading, or move one of them.`,
  'beads-meet': (_, { It, other }) =>
    `${It} ends at ${other}: mitre them by hand, let one run out short of the other, or hammer the corner over a form.`,
  'beads-cross': (_, { It, other }) =>
    `${It} crosses ${other}: rollers crush the first when the second is run. Stop one short, or make the crossing by hand.`,
  'flare-figures': (_, { all }) => `These figures of a flared hole must be above 0: ${all}.`,
  'flare-low': (n, _, mm) =>
    `A rim of ${mm(n.heightMm)} is lower than its own bend, ${mm(n.leastMm)}: make it higher, or the radius smaller.`,
  'flare-no-hole': (n, _, mm) =>
    `A rim that high would start from no hole at all: at ${mm(n.mostMm)} the first hole is closed. Make it lower.`,
  'flare-not-round': (_, { It }) =>
    `${It} is not round: its rim cannot be reckoned. Make it round, or flare it by hand.`,
  'flare-tears': (n, { it }) =>
    `The rim of ${it} must stretch by ${share(n.strain)}, ${share(n.limit)} is the most it should: a lower rim, or drill the first hole and take its burr off.`,
  'flare-near-edge': (n, { It, other }, mm) =>
    `${It} leaves ${mm(n.clearMm)} to ${other}, about ${mm(n.neededMm)} (the height of its rim) is wanted: the edge will bulge.`,
  'flare-near-fold': (n, { It, other }, mm) =>
    `${It} leaves ${mm(n.clearMm)} to ${other}, about ${mm(n.neededMm)} (the height of its rim) is wanted: the stiff bend holds that side back.`,
  'bite-strip': (_, { all }) => `These figures of the test strip must be above 0: ${all}.`,
  'bite-strip-same':
    'The strip is as long as it was: nothing can be told from it. Give it more bites and measure again.',
  'bite-strip-other-way':
    'The test strip was worked the other way: one was stretched, the other is to be shrunk.',
  'strain-impossible': (n) => `Metal cannot be strained by ${share(n.strain)}.`,
  'mesh-empty': 'There are no triangles in it. Export the surface as triangles (OBJ, STL or PLY).',
  'mesh-number': 'A coordinate is not a number. Export the scan again.',
  'mesh-index': ({ triangle }) =>
    `Triangle ${triangle} names a point that is not there, or one point twice. Export the scan again, or have it cleaned.`,
  'mesh-no-area': ({ triangles }) =>
    `${triangles === 1 ? 'One triangle has' : `${triangles} triangles have`} no area. Have the scan cleaned first.`,
  'mesh-loose-points': ({ points }) =>
    `${points === 1 ? 'One point belongs' : `${points} points belong`} to no triangle. Leave them out, or have the scan cleaned.`,
  'mesh-edge-shared': ({ edges }) =>
    `At ${edges === 1 ? 'one edge' : `${edges} edges`} more than two triangles meet. Take away what lies on the panel twice, or have the scan cleaned.`,
  'mesh-pinched': ({ points }) =>
    `At ${points === 1 ? 'one point' : `${points} points`} the surface hangs together by a tip alone. Have the scan cleaned, or cut it there.`,
  'mesh-one-sided': 'The surface is twisted so that it has one side only. Cut it across the twist.',
  'mesh-parts': ({ parts }) =>
    `The surface is in ${parts} parts. Keep the panel and take the rest away, or have the scan cleaned.`,
  'mesh-closed':
    'The surface is closed all round, like a ball. Cut the panel out of it: draw its outline on it.',
  'mesh-holes': ({ holes }) =>
    `There ${holes === 1 ? 'is a hole' : `are ${holes} holes`} in the surface. Close what is small; from a large one cut to the rim.`,
  'taped-cross': (_, { All }) =>
    `${All}: a tuck or slit must run out within the card and cross no other. Move it, or make it less deep.`,
  'taped-fine':
    'The outline has corners too fine to tape: thin the traced outline out, or draw it with fewer corners.',
  'taped-flat':
    'There is no tuck and no slit on the card: put them on under Card, where the paper lapped or stood open.',
  'flatten-failed': 'This surface could not be laid flat. Part it into two panels.',
  'surface-figures':
    'No panel has these figures. Every length is above 0, a rim is no wider than its ball, and nothing goes all the way round.',
  'stations-few': 'A surface needs at least two profiles, each with at least two points.',
  'stations-number':
    'One of the figures of the stations is not a number, or a radius is 0. Leave the radius empty for a straight spine.',
  'stations-order': ({ atMm }, _, mm) =>
    `Two profiles stand at ${mm(atMm)}. Give each its own place along the panel.`,
  'stations-doubled': ({ atMm }, _, mm) =>
    `In the profile at ${mm(atMm)} two points in a row are the same. Take one away.`,
  'scan-rough':
    'The scan is too torn to be thinned. Have it closed and smoothed where it was made, or scan less at once.',
  'cut-misses':
    'These corners enclose nothing of the panel. Tap them one after another, all the way round.',
  'strip-gaps': 'Read the gap at two stations of the strip at least, each once.',
  'stations-guides': 'A guide curve needs at least two different points.',
  'mesh-file-kind': (_, { all }) =>
    `${all} is not an OBJ, STL or PLY file. Export the scan as one of these.`,
  'mesh-file-broken': ({ line }) =>
    `The file cannot be read at line or triangle ${line}. It may have been cut short: export it again.`,
  'mesh-file-large': ({ triangles, most }) =>
    `It has ${triangles} triangles; up to ${most} are read. Export the scan with fewer.`,
  'strip-figures': (_, { all }) => `No strip has these figures: ${all}.`,
  'springback-past-closed': (n) =>
    `It would have to be folded to ${n.foldToDeg.toFixed(0)}°, and a fold ends at 180°: take a smaller radius, softer metal, or make it by rolling.`,
  'springs-back-wholly':
    'Bent round so large a radius the sheet comes back flat: it must be rolled, or the radius made smaller.',
  'spring-reading': (n) =>
    `Folded to ${n.foldedToDeg}° and back to ${n.cameBackToDeg}° do not belong together: a bend comes back by something between nothing and a third. Read both angles as turned from flat.`,
  'machine-figures': (_, { all }) => `The machine cannot be as these figures say: ${all}.`,
  'no-order': 'There is no order in which this machine can make all the folds.',
  'order-not-found':
    'No order was found among those that were followed; there may be one. Type one of your own to have it checked.',
  hits: (n, { It }, mm) =>
    `${It} cannot be made at its turn: something is in the way by ${mm(n.depthMm)}.`,
  'too-many-folds': (n) =>
    `An order is looked for up to ${n.most} folds; this piece has ${n.folds}.`,
  'order-unreadable': 'Name each fold of the card once.',
  'fold-leaves-side':
    'For that the fold would have to run off the end of the side it lies on. Lay the fold on the sides where it belongs first.',
  'rules-contradict': (n, _, mm) =>
    `These rules cannot all be met: they are ${mm(n.offMm)} apart. Take one of them off.`,
  'fit-too-few': 'Give at least two separate points.',
  'fit-too-many': (n) => `${n.points} points are too many at once: leave some out.`,
  'fit-tolerance': 'Type how far off a line may pass: more than 0.',
  'row-ambiguous': (n) =>
    `Line ${n.row} can be read two ways: put a space or a tab between its two figures, and a point for decimals.`,
  'more-of-these': (n) => `And ${n.count} more like the last.`,
  'too-few-corners': 'An outline needs at least three corners that are not on top of each other.',
  'outline-empty': 'There is no outline yet: type its legs, paste its points, or draw it.',
  'outline-not-closed': 'The outline does not close: draw it again or import it afresh.',
  'outline-crosses': (_, { all }) =>
    `The outline crosses itself at ${all}: move a corner so that it goes round once.`,
  'outline-clockwise': 'The outline runs the wrong way round: type or draw it again.',
  'side-zero': (_, { It }) => `${It} has no length: pull its corners apart or take one out.`,
  'side-not-straight': (_, { It }) =>
    `${It} is curved: a fold can be laid only along a straight side.`,
  'side-gone': 'That is no longer on the card.',
  'corner-not-straight': 'A side of this corner is curved: its angle follows from the curve.',
  'corner-angle-out-of-range': (f) => `${f.angleDeg}° is no corner: over 0° and under 360°.`,
  'side-length-not-positive': (_, { It }) => `${It} must keep some length.`,
  'corner-too-near': 'There is a corner there already: touch farther from it.',
  'corner-not-inside': 'An edge can only be split at a corner within it.',
  'last-corners': 'A card keeps at least three corners.',
  'edge-gone': 'That edge is no longer on the card.',
  'only-edge': 'There is only one edge: there is nothing to join it to.',
  'document-too-new': (n) =>
    `This was written by a newer Patrone (form ${n.version}; this one knows ${n.knownVersion}). Bring this program up to date.`,
  'document-unreadable': (_, { all }) => `What was sent does not fit a card (${all}).`,
  'document-ids-twice': (_, { all }) => `Something on the card is there twice (${all}).`,
  'document-reference-gone': (_, { all }) =>
    `Something on the card belongs to a part that is not there (${all}).`,
  'document-edges-part-badly': (_, { all }) =>
    `The edges do not divide the outline without gap or overlap (${all}).`,
  'job-not-json':
    'That is not a job file: it could not be read as JSON. Choose one that was written by “Job as a file”.',
  'job-pack-damaged': (_, { it }) =>
    `It is damaged, or was not packed by Patrone (${it}). Copy it again from where it came.`,
  'job-pack-picture': (_, { all }) =>
    `Nothing was taken in. A picture in it ${all.replace(/^pictures\/[0-9a-f]+/, (name) => `(${name.slice(0, 17)}…)`)}`,
  'job-no-room': 'What is packed in it is more than the disk has room for, or more than 4 GB.',
  'job-too-large': 'It is larger than the text of a job can be (200 MB).',
  'job-part-too-large': 'A piece in that file is larger than can be taken in.',
  'job-not-one': 'That is not a job file: choose one that Patrone wrote.',
  'job-too-new': (n) =>
    `That job file was written by a newer Patrone (form ${n.version}; this one knows ${n.knownVersion}). Bring this program up to date.`,
  'job-unreadable': (_, { all }) => `That job file is damaged at: ${all}.`,
  'worker-failed':
    'What reckons this beside the page stopped. Nothing is lost: load the page again.',
  'could-not-reckon':
    'This card could not be reckoned: the fault is Patrone’s and not yours. Nothing is lost. Undo the last change, or go back to the last card that gave a blank.',
  'fold-off-outline': (_, { It }) =>
    `${It} no longer ends on the outline: say where it begins and ends, or take it off and lay it again.`,
  'arc-fold-rise': (n, _, mm) =>
    `An arc between these ends rises by more than 0 and at most ${mm(n.mostMm)}, half a circle.`,
  'arc-fold-leaves': (_, { It }) =>
    `${It} would leave the card on the way, or run into another fold: let it rise less, or the other way.`,
  'slit-off-edge':
    'A slit starts on an edge of the piece and ends inside it: set its start on the outline, its end in the metal.',
  'slit-leaves': 'The slit runs out of the piece on its way: set its end nearer.',
  'slit-opening': (n, _, mm) =>
    `So short a slit cannot stand so far open: less than ${mm(n.mostMm)}.`,
  'strip-readings':
    'A strip needs the gap read at two places or more, in their order along the edge.',
  'strip-cut-back': 'What is cut back, the least width and the gap for the weld are 0 or more.',
  'arc-fold-made': (_, { It }) =>
    `${It}: a flange is measured over its outside to the sharp corner. Choose “Outside, creased” for how the card was made here, and set its line there.`,
  'arc-fold-holds': (_, { All }) =>
    `${All} lie in the part that becomes the flange and would be lost: take them off first, and mark them out on the flange when it stands.`,
  'arc-fold-rim': (_, { It }) =>
    `${It}: the rim of the part beyond does not face the arc all along. Let it rise less, or cut the ends square to it.`,
  'fold-zero': (_, { It }) => `${It} is too short to fold: its ends must be at least 1 mm apart.`,
  'fold-leaves-card': (_, { It }) =>
    `${It} leaves the card: both ends must see each other across the card.`,
  'fold-misses-card': (n, { it }, mm) => `A line ${mm(n.offMm)} in from ${it} misses the card.`,
  'no-corner-to-notch': (_, { All }) =>
    `${All} do not end at one corner on straight sides: cut the outline back there by hand.`,
  'walls-cross': (_, { all }) =>
    `Folded up, the walls of ${all} run into each other at their corner: say there how they meet, or draw them narrower.`,
  'folds-cross': (_, { All }) =>
    `${All} cross: a fold may meet another at a corner but not cross it.`,
  'card-both-sides': (_, { All }) =>
    `${All} can’t all be right: a card that lay outside a fold toward you lay inside a fold away from you. Look again which side it lay on at each; each choice gives another blank.`,
  'hole-zero': (_, { It }) => `${It} has no diameter: give it one or take it off.`,
  'hole-outside': (_, { It }) => `${It} lies off the card: move it in.`,
  'hole-over-edge': (n, { It }, mm) =>
    `${It} runs ${mm(n.overMm)} over the edge: move it in or make it smaller.`,
  'holes-overlap': (_, { All }) => `${All} run into each other.`,
  'base-off-card':
    'The point that marks the face that stays put lies off the card: the largest face stays put. Touch “Stays put” and the face you mean.',
  'thickness-not-positive': 'The sheet has no thickness: choose a gauge under Survey.',
  'radius-negative': (_, { It }) => `${It}: the radius cannot be less than nothing.`,
  'angle-out-of-range': (_, { It }) => `${It}: the angle must be over 0° and up to 180°.`,
  'k-out-of-range': 'The K in the shop settings must lie between 0 and 1.',
  'radius-under-least': (n, { It }, mm) =>
    `${It}: a radius of ${mm(n.radiusMm)} is under the least for this metal (${mm(n.leastMm)}). It may crack: use a larger radius, or try a test piece.`,
  'flange-shorter-than-setback': (n, { It }, mm) =>
    `${It}: the flange is ${mm(n.depthMm)} deep and the bend alone takes ${mm(n.setbackMm)}. Make the flange deeper or the radius smaller.`,
  'folds-too-close': (_, { It }) =>
    `${It} is too near another fold: their bends would run into each other. Move them apart or use a smaller radius.`,
  'lies-impossible': (n) =>
    `A face cannot rise by ${Math.abs(n.alongDeg)}° one way and ${Math.abs(n.acrossDeg)}° square to it: read the level again.`,
  'lies-on-no-face': 'The face the level was held on is not there any more: choose another.',
  'fold-too-long': (n, { It }, mm) =>
    `${It} is ${mm(n.longMm)} long, and this machine folds ${mm(n.mostMm)}.`,
  'sheet-too-thick': (n, { It }, mm) =>
    `${It} is ${mm(n.longMm)} long in sheet of ${mm(n.thicknessMm)}: so long a fold this machine makes in no more than ${mm(n.mostMm)}.`,
  'radius-under-tip': (n, { all }, mm) =>
    `The tip of the bar is ${mm(n.tipMm)} round: nothing comes out sharper, but the blank is reckoned for ${mm(n.radiusMm)} (${all}). Say so on the card, or take a sharper bar.`,
  'flange-not-held': (n, { It }, mm) =>
    `${It}: its flange is flat for ${mm(n.flatMm)}, and this machine holds no less than ${mm(n.leastMm)}. Make it wider and cut it back after, or fold it over a bar.`,
  'flange-short': (n, { It }, mm) =>
    `${It}: only ${mm(n.flatMm)} of flat beyond the bend, and the brake wants ${mm(n.leastMm)}. Fold it over a bar, or leave it longer and trim after.`,
  'hem-narrow': (n, { It }, mm) =>
    `${It}: a hem ${mm(n.widthMm)} wide is narrower than its own bend. Make it at least ${mm(n.leastMm)}.`,
  'turned-flange-narrow': (n, { It }, mm) =>
    `${It}: a flange ${mm(n.widthMm)} wide is narrower than its own bend. Make it at least ${mm(n.leastMm)}, or lay it in line with the piece.`,
  'hole-in-bend': (_, { It, other }) =>
    `${It} lies in the bend of ${other}: it will pull out of round. Make it after folding.`,
  'hole-near-fold': (n, { It, other }, mm) =>
    `${It} is ${mm(n.clearMm)} from the bend of ${other}; under ${mm(n.neededMm)} it may go egg-shaped. Make it after folding, or move it.`,
  'blank-crosses': (_, { all }) =>
    `In the flat, parts of the blank lie on each other (${all}). Trim the card there or make the piece in two.`,
  'no-room-for-relief': (_, { It }) =>
    `${It}: no room to cut a relief at its end. Drill it by hand.`,
  'no-strips': 'Fold a test strip first, and measure it.',
  'reading-not-positive':
    'Say how far each reading of the strip may be out: a tenth of a millimetre is usual.',
  'strip-not-credible': 'Flat length and legs do not belong together: measure the strip again.',
  'gauge-unknown': (n) =>
    `There is no ${n.gauge} gauge in that system; it goes from ${n.lowest} to ${n.highest}.`,
  'nothing-to-print': 'There is nothing to print yet: make the card first.',
  'paper-too-small': 'The overlap leaves no room on that paper.',
  'too-many-pages': (n) => `That would be ${n.pages} pages: use larger paper.`,
  'length-not-positive': 'The edge has no length to space anything along.',
  'pitch-not-positive': 'Give a pitch over nothing.',
  'end-negative': 'The first plug cannot lie before the start of the edge: give nothing or more.',
  'too-many-plugs': (n) => `That would be over ${Math.round(n.plugs)} plugs: give a larger pitch.`,
  'too-many-tacks': (n) => `That would be over ${Math.round(n.tacks)} tacks: give a larger pitch.`,
  'no-frame': (n, about) =>
    n.missing > 0
      ? `Of the corner cards these cannot be seen: ${about.all}. All four must be in the picture, whole and in focus.`
      : 'The marks of the scale frame cannot be seen. At least three of the four angles must be in the picture, whole and in focus, and the paper must be the one that was chosen.',
  'other-paper': (_, { It }) => `This is the frame for ${It}: choose that paper and look again.`,
  'scan-dpi': 'A scan has between 20 and 10 000 dots to the inch: look in the scanner’s settings.',
  'places-too-few': 'It takes four places, no three of them in line.',
  'card-not-found':
    'The card cannot be told from what it lies on. Lay it on something of another colour, print the frame with a dark middle, or tap the corners of the card.',
  'not-enough-known':
    'Too little is known to say how large things are here. A second known distance would do, better four of them that are not all the same way, or a rectangle of known sides with its right angles.',
  'picture-place': 'A place or a figure is missing, or two places lie on each other.',
  'network-empty': 'Name some reference points first, and measure between them.',
  'network-point-twice': (_, { It }) => `${It} is there twice: give one of the two another name.`,
  'network-point-unknown': (_, { It }) =>
    `${It} is in a measure and is no point: name it among the points.`,
  'network-point-form': (n, { It }) =>
    `${It}: its place wants ${n.dimension} figures, one a direction.`,
  'network-tape-loop': (_, { It }) =>
    `A measure leads from ${It} to itself: choose another point for one of its ends.`,
  'network-tape-form': (n, { all }) =>
    `The measure between ${all} reads ${n.mm} give or take ${n.uMm}: both must be over nothing.`,
  undetermined: (_, { All }) =>
    `${All}: too few measures to say where. Measure from there to one or two more points, not all in one line.`,
  'twist-tape-form': (_, { all }) => `The tape ${all} must read over nothing.`,
  'twist-no-triangle': (_, { all }) => `${all} close no triangle: one of them is misread.`,
  'options-empty': 'Put down at least one way of going about it.',
  'option-hours': (_, { It }) => `${It}: hours at best, likely and at worst must not fall.`,
  'option-money': (_, { It }) => `${It}: money must be nothing or more.`,
};

const listed = (names: readonly string[]): string =>
  names.length < 2
    ? (names[0] ?? 'it')
    : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;

const said = (problem: Problem, about: About, mm: (mm: number) => string): string => {
  const say = SENTENCES[problem.code] as Say<ProblemCode>;
  return typeof say === 'string' ? say : say((problem.numbers ?? {}) as never, about, mm);
};

/** A problem as a sentence that says what to do. */
export function problemSentence(
  problem: Problem,
  doc: PatternDoc | null,
  show: (mm: number) => string,
): string {
  const names = (problem.about ?? []).map((id) => (doc ? nameOf(doc, id) : id));
  const it = names[0] ?? 'it';
  const all = listed([...new Set(names)]);
  return said(
    problem,
    { it, It: capital(it), other: names[1] ?? 'a fold', all, All: capital(all) },
    show,
  );
}

/** What is wrong with a length that was typed. */
export const lengthProblem = (problem: Problem, show: (mm: number) => string): string =>
  said(problem, { it: 'it', It: 'It', other: 'it', all: 'it', All: 'It' }, show);
