/** A code without figures. */
type None = Record<never, never>;

/**
 * Everything the core can refuse or warn of, with the figures it tells: the unit is in the name. A
 * code that is not here cannot be made, and one without its sentence (`app/frame/sentences.ts`)
 * does not compile.
 */
export type Figures = {
  // Written lengths, legs and points. `first` and `second` are the two ways to read what was
  // written.
  'length-empty': None;
  'length-unreadable': None;
  'length-divided-by-zero': None;
  'length-too-long': None;
  'length-ambiguous': { first: number; second: number };
  'length-fraction-ambiguous': { inchMm: number; dividedMm: number };
  'no-legs': None;
  'leg-unreadable': { leg: number };
  'leg-ambiguous': { leg: number };
  'leg-zero': { leg: number };
  'no-rows': None;
  // Edges of which only the lengths are known.
  'lengths-few': None;
  'lengths-none': None;
  'lengths-open': { longestMm: number; restMm: number };
  'outline-presumed': None;
  'row-unreadable': { row: number; cells?: number };
  'row-ambiguous': { row: number };
  // A kind of problem that there is too much of to tell one by one: how many more there are of the
  // kind just told.
  'more-of-these': { count: number };
  'take-off-too-far': { mm: number };
  'nothing-taken': None;
  'contour-length': { contourMm: number; sideMm: number };
  'taken-needs-outline': None;
  'taken-strands-fold': None;
  // Profiles, tucks, and shapes from figures.
  'profile-station': None;
  'tuck-form': None;
  'shape-figures': None;
  'tube-misses': None;
  // What parts of a card are meant to be.
  'rule-unreadable': None;
  'rules-contradict': { offMm: number };
  'fold-leaves-side': None;
  'springback-figures': None;
  'springs-back-wholly': { x: number };
  'springback-past-closed': { foldToDeg: number };
  'spring-reading': { foldedToDeg: number; cameBackToDeg: number };
  'machine-figures': None;
  'no-order': { foldsLeft: number };
  'order-not-found': { foldsLeft: number };
  hits: { depthMm: number };
  'order-unreadable': None;
  'too-many-folds': { folds: number; most: number };
  // Flanges round a curve, beads, flared holes, bites.
  'flange-figures': None;
  'flange-past-centre': { widthMm: number; radiusMm: number };
  'flange-narrow': { widthMm: number; leastMm: number };
  'flange-strained': { strain: number; limit: number };
  'flange-round-corner': { turnDeg: number };
  'flange-over-fold': None;
  'arc-fold-rise': { riseMm: number; mostMm: number };
  'arc-fold-leaves': None;
  // Slits, and strips that are let in.
  'slit-off-edge': None;
  'slit-leaves': None;
  'slit-opening': { mostMm: number };
  'strip-readings': None;
  'strip-cut-back': None;
  'arc-fold-made': None;
  'arc-fold-holds': None;
  'arc-fold-rim': None;
  'bead-figures': None;
  'bead-too-high': { heightMm: number; mostMm: number };
  'bead-top-wide': { topMm: number; widthMm: number };
  'bead-share': { drawsIn: number };
  'bead-pass': None;
  'bead-radius': None;
  'bead-off-card': None;
  'bead-over-fold': None;
  'bead-near-edge': { clearMm: number; neededMm: number };
  'bead-near-fold': { clearMm: number; neededMm: number };
  'bead-over-hole': None;
  'beads-meet': None;
  'beads-cross': None;
  'flare-figures': None;
  'flare-low': { heightMm: number; leastMm: number };
  'flare-no-hole': { heightMm: number; mostMm: number };
  'flare-not-round': None;
  'flare-tears': { strain: number; limit: number };
  'flare-near-edge': { clearMm: number; neededMm: number };
  'flare-near-fold': { clearMm: number; neededMm: number };
  'bite-strip': None;
  'bite-strip-same': None;
  'bite-strip-other-way': None;
  'strain-impossible': { strain: number };
  'strip-figures': None;
  // Panels curved two ways: what a mesh of triangles has to be, and how it is laid flat.
  'mesh-empty': None;
  'mesh-number': None;
  'mesh-index': { triangle: number };
  'mesh-no-area': { triangles: number };
  'mesh-loose-points': { points: number };
  'mesh-edge-shared': { edges: number };
  'mesh-pinched': { points: number };
  'mesh-one-sided': None;
  'mesh-parts': { parts: number };
  'mesh-closed': None;
  'mesh-holes': { holes: number };
  'flatten-failed': None;
  'taped-cross': None;
  'taped-fine': None;
  'taped-flat': None;
  'surface-figures': None;
  'stations-few': None;
  'stations-number': None;
  'stations-order': { atMm: number };
  'stations-doubled': { atMm: number };
  'stations-guides': None;
  'strip-gaps': None;
  'cut-misses': None;
  'scan-rough': None;
  'mesh-file-kind': None;
  'mesh-file-broken': { line: number };
  'mesh-file-large': { triangles: number; most: number };
  // Lines and arcs through points.
  'fit-too-few': None;
  'fit-too-many': { points: number };
  'fit-tolerance': { toleranceMm: number };
  // The card.
  'too-few-corners': { corners: number };
  'outline-empty': None;
  'outline-not-closed': None;
  'outline-crosses': None;
  'outline-clockwise': None;
  'side-zero': { lengthMm: number };
  'side-not-straight': None;
  'side-gone': None;
  'side-length-not-positive': None;
  'corner-too-near': None;
  'corner-not-straight': None;
  'corner-angle-out-of-range': { angleDeg: number };
  'corner-not-inside': None;
  'last-corners': None;
  'edge-gone': None;
  'only-edge': None;
  'fold-off-outline': { offMm: number };
  'fold-zero': { lengthMm: number };
  'fold-leaves-card': None;
  'fold-misses-card': { offMm: number };
  'folds-cross': None;
  'walls-cross': None;
  'no-corner-to-notch': None;
  'card-both-sides': None;
  'hole-zero': None;
  'hole-outside': None;
  'hole-over-edge': { overMm: number };
  'holes-overlap': None;
  'base-off-card': None;
  // Documents at the door: the place in them, by name, is what they are about.
  'document-too-new': { version: number; knownVersion: number };
  'document-unreadable': None;
  'document-ids-twice': None;
  'document-reference-gone': None;
  'document-edges-part-badly': None;
  'job-not-json': None;
  'job-part-too-large': None;
  'job-pack-damaged': None;
  'job-pack-picture': None;
  'job-no-room': None;
  'job-too-large': None;
  'job-not-one': None;
  'job-too-new': { version: number; knownVersion: number };
  'job-unreadable': None;
  'could-not-reckon': None;
  /** What reckons beside the page came to nothing. */
  'worker-failed': None;
  // Bends and blanks.
  'thickness-not-positive': { thicknessMm: number };
  'radius-negative': { radiusMm: number };
  'angle-out-of-range': { angleDeg: number };
  'k-out-of-range': { k: number };
  'radius-under-least': { radiusMm: number; leastMm: number };
  'flange-shorter-than-setback': { depthMm: number; setbackMm: number };
  'folds-too-close': None;
  // How a piece lies on the vehicle.
  'lies-impossible': { alongDeg: number; acrossDeg: number };
  'lies-on-no-face': None;
  // What a machine cannot take.
  'fold-too-long': { longMm: number; mostMm: number };
  'sheet-too-thick': { thicknessMm: number; longMm: number; mostMm: number };
  'radius-under-tip': { radiusMm: number; tipMm: number };
  'flange-not-held': { flatMm: number; leastMm: number };
  'flange-short': { flatMm: number; leastMm: number };
  'hem-narrow': { widthMm: number; leastMm: number };
  'turned-flange-narrow': { widthMm: number; leastMm: number };
  'hole-in-bend': { overMm: number };
  'hole-near-fold': { clearMm: number; neededMm: number };
  'blank-crosses': None;
  'no-room-for-relief': None;
  // Test bends.
  'no-strips': None;
  'reading-not-positive': { readingMm: number };
  'strip-not-credible': { k: number; uK: number };
  // Gauges, pages, spacing.
  'gauge-unknown': { gauge: number; lowest: number; highest: number };
  'nothing-to-print': None;
  'paper-too-small': None;
  'too-many-pages': { pages: number };
  'length-not-positive': { lengthMm: number };
  'pitch-not-positive': { pitchMm: number };
  'end-negative': { endMm: number };
  'too-many-tacks': { tacks: number };
  'too-many-plugs': { plugs: number };
  // Photographs and scans.
  'no-frame': { missing: number };
  'other-paper': None;
  'scan-dpi': None;
  'places-too-few': None;
  'card-not-found': None;
  'not-enough-known': { known: number; needed: number };
  'picture-place': None;
  // The survey: points and tapes between them.
  'network-empty': None;
  'network-point-twice': None;
  'network-point-unknown': None;
  'network-point-form': { dimension: number };
  'network-tape-loop': None;
  'network-tape-form': { mm: number; uMm: number };
  undetermined: None;
  'twist-tape-form': { mm: number };
  'twist-no-triangle': None;
  'options-empty': None;
  'option-hours': None;
  'option-money': None;
};

export type ProblemCode = keyof Figures;
