import { unfolded } from '#core/blank/fold/folding';
import type { StepWork } from '#core/shape/shaping';
import { noWork, unshaped } from '#core/shape/shaping';
import { moveCorner, reshapeSide, setEdge } from '#core/card/edit';
import { emptyPattern } from '#core/card/emptyPattern';
import { cardFromLengths } from '#core/card/fromLengths';
import { countingIds } from '#core/card/kinds';
import { outlineFromPoints } from '#core/card/legs';
import { madeFrom } from '#core/card/link/alignment';
import { byLetter, edgeLength, letterAt, patternParts, spotNearest } from '#core/card/outline';
import type { Bead, Edge, Flange, Fold, Joint, PatternDoc, Place } from '#core/card/pattern';
import { uncut } from '#core/cutdown/uncut';
import { evenStations, gapTarget } from '#core/fit/target';
import type { EdgeWord } from '#core/joint/fromWords';
import { structureOfWords } from '#core/joint/fromWords';
import type { FitRecord, InspectionRecord, JobFile, PieceFile, WeldRecord } from '#core/format/job';
import type { Vec } from '#core/measure/vector';
import { emptyPlan } from '#core/weld/emptyPlan';
import type { PlanDoc } from '#core/weld/plan';
import { weldOf } from '#core/weld/planned';
import { plugPositions, tackOrder } from '#core/weld/spacing';
import { cornerCard } from './corner';
import { demoSurvey, demoSurveyOf } from './survey';

/**
 * The invented demonstration job: a coach-built van from a maker that never was, pieces at
 * different stages.
 */

type FoldGiven = [from: Vec, to: Vec, angleDeg: number, more?: Partial<Fold>];

function outline(points: Vec[]): PatternDoc {
  const built = outlineFromPoints(points);
  if (!built.ok) throw new Error('The demo outline is not closed');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
}

/** The place on the outline at a point: its share of the side. */
const placeAt = (doc: PatternDoc, p: Vec): Place => {
  const { side, at } = spotNearest(doc, p)!.spot;
  return { side, share: at };
};

function withFolds(doc: PatternDoc, base: [number, number], folds: FoldGiven[]): PatternDoc {
  return {
    ...doc,
    base,
    folds: folds.map(([from, to, angleDeg, more], i) => ({
      id: `f${i + 1}`,
      path: { kind: 'between', from: placeAt(doc, from), to: placeAt(doc, to) },
      angleDeg,
      toward: 'face',
      radiusMm: null,
      convention: 'outside-sharp',
      ...more,
    })),
  };
}

const withHoles = (
  doc: PatternDoc,
  holes: [x: number, y: number, diameterMm: number][],
): PatternDoc => ({
  ...doc,
  holes: holes.map(([x, y, diameterMm], i) => ({ id: `h${i + 1}`, x, y, diameterMm })),
});

const edgeNear = (doc: PatternDoc, p: Vec): Edge => {
  const { side } = spotNearest(doc, p)!.spot;
  return doc.edges.find((edge) => edge.sides.includes(side))!;
};

/** A card and what its edges meet: welded as is usual for their joints. */
type Planned = { doc: PatternDoc; plan: PlanDoc; meets: EdgeWord[] };

const joined = ({ doc, plan, meets }: Planned, at: Vec, joint: Joint, word: string): Planned => {
  const { id } = edgeNear(doc, at);
  return { doc: setEdge(doc, id, { joint }), plan, meets: [...meets, { edge: id, word }] };
};

/** Each card as a version, a few minutes apart, and the plan with the last of them. */
function history(
  cards: PatternDoc[],
  plan: PlanDoc,
  start: string,
  meets: EdgeWord[] = [],
): Pick<PieceFile, 'card' | 'plan'> & { meets: EdgeWord[] } {
  const at = (i: number) => new Date(Date.parse(start) + i * 7 * 60_000).toISOString();
  const planned = plan.edges.length > 0;
  return {
    meets,
    card: {
      current: cards.length,
      versions: cards.map((doc, i) => ({ number: i + 1, parent: i, at: at(i), doc })),
    },
    plan: {
      current: planned ? 1 : 0,
      versions: planned ? [{ number: 1, parent: 0, at: at(cards.length - 1), doc: plan }] : [],
    },
  };
}

const printed = (at: string): Pick<PieceFile, 'prints'> => ({
  prints: [{ at, what: 'blank.pdf', revision: 3, digest: null }],
});

function fitAlong(
  doc: PatternDoc,
  edge: Edge,
  thicknessMm: number,
  gap: (share: number) => number,
  flush = 0.1,
): FitRecord['edges'][number] {
  const target = gapTarget(
    edge.joint.kind,
    weldOf(emptyPlan(), edge, thicknessMm)?.process ?? null,
    thicknessMm,
  );
  const length = edgeLength(doc, edge);
  const tenth = (x: number) => Math.round(x * 10) / 10;
  return {
    edge: edge.id,
    turned: false,
    own: false,
    targetMm: target.gapMm,
    toleranceMm: target.toleranceMm,
    flushMm: target.flushMm,
    stations: evenStations(length).map((atMm, i) => ({
      atMm,
      gapMm: tenth(gap(atMm / length)),
      flushMm: tenth(i % 2 === 0 ? flush : -flush),
    })),
  };
}

/** Where the tacks or plugs of these numbers were put. */
function madeAt(
  doc: PatternDoc,
  plan: PlanDoc,
  edge: Edge,
  t: number,
  from: number,
  to: number,
): WeldRecord['made'] {
  const planned = weldOf(plan, edge, t)!;
  const length = edgeLength(doc, edge);
  const { plugs } = planned;
  const spots = plugs
    ? plugPositions(length, plugs.pitchMm, plugs.endMm)
    : tackOrder(length, planned.tackPitchMm, false);
  return {
    revision: 3,
    turned: false,
    placesMm: spots.ok ? spots.positionsMm.slice(from - 1, to) : [],
  };
}

const settings = { amps: null, volts: null, wireMm: null, feed: '', gas: '' };
const mig = { amps: 60, volts: 17, wireMm: 0.6, feed: '4.2 m/min', gas: 'Argon with 5 % CO₂' };

/** A piece, and what its edges meet in a word. */
type DemoPiece = PieceFile & { meets: EdgeWord[] };

/** A piece of the right side as it is begun, with what is said of it. */
const piece = (
  said: Partial<PieceFile> &
    Pick<PieceFile, 'name' | 'part' | 'metal' | 'thicknessMm' | 'thickness' | 'notes' | 'created'> &
    Pick<PieceFile, 'card' | 'plan'> & { meets: EdgeWord[] },
): DemoPiece => ({
  ...{
    survey: demoSurveyOf(said.name),
    folding: unfolded(),
    shaping: unshaped(),
    cutDown: uncut(),
  },
  ...{ kind: 'made', side: 'right', structural: false, archived: null, came: null },
  ...{ pictures: [], prints: [], fits: [], welds: [], inspections: [] },
  ...said,
});

function stepWellTray(): DemoPiece {
  const t = 1.2;
  const flat = outline([
    [0, 0],
    [0, -60],
    [12, -78],
    [408, -78],
    [420, -60],
    [420, 0],
    [480, 0],
    [480, 260],
    [420, 260],
    [420, 320],
    [408, 338],
    [12, 338],
    [0, 320],
    [0, 260],
    [-60, 260],
    [-60, 0],
  ]);
  const folded = withFolds(
    flat,
    [210, 130],
    [
      [[-0, 0], [420, 0], 90],
      [[420, 0], [420, 260], 90],
      [[420, 260], [0, 260], 90],
      [[0, 260], [0, 0], 90],
      [[0, -60], [420, -60], 90, { toward: 'back', convention: 'inside-sharp' }],
      [[0, 320], [420, 320], 90, { toward: 'back', convention: 'inside-sharp' }],
    ],
  );
  const pierced = withHoles(folded, [
    [70, 50, 14],
    [350, 50, 14],
    [210, 210, 14],
  ]);
  let all: Planned = { doc: pierced, plan: emptyPlan(), meets: [] };
  all = joined(all, [200, -78], { kind: 'free', trimMm: 0 }, 'Floor panel, on top');
  all = joined(all, [480, 130], { kind: 'butt', trimMm: 0 }, 'Old tray wall, cut line');
  all = joined(all, [-60, 130], { kind: 'lap', widthMm: 14 }, 'Chassis outrigger');
  const { doc, plan, meets } = all;
  const butt = edgeNear(doc, [480, 130]);
  const lap = edgeNear(doc, [-60, 130]);
  const weld = (
    at: string,
    edge: Edge,
    work: WeldRecord['work'],
    from: number | null,
    to: number | null,
    note: string,
  ): WeldRecord => ({
    at,
    who: 'Wenna',
    edge: edge.id,
    process: 'mig',
    work,
    from,
    to,
    made: from === null || to === null ? null : madeAt(doc, plan, edge, t, from, to),
    settings: mig,
    note,
    withdrawn: null,
  });
  const inspect = (
    at: string,
    edge: Edge,
    kind: InspectionRecord['kind'],
    sound: boolean,
    finding: string,
    remedy: string,
  ): InspectionRecord => ({
    at,
    who: 'Joss',
    edge: edge.id,
    kind,
    sound,
    readingMm: null,
    finding,
    remedy,
    withdrawn: null,
  });
  return piece({
    name: 'Step-well tray',
    folding: {
      ...unfolded(),
      brake: 'box-and-pan',
      // With its lap on, the wall that stands behind would meet the beam at the last fold: that was
      // left open and closed over a bar.
      leftOpen: [{ fold: 'f1', deg: 60 }],
      made: folded.folds.map(({ id }) => id),
      closed: ['f1'],
      // The step falls to the front and a little outward.
      lies: { fold: null, alongDeg: 2.5, acrossDeg: -1.5, faceUp: true },
      drains: pierced.holes.map(({ id }) => id),
    },
    part: 'Entry step, well under the driver’s door',
    metal: 'dc01',
    thicknessMm: t,
    thickness: { by: 'micrometer' },
    notes:
      'Old tray gone along the outrigger. Water must run to the three drains; keep them clear of the seam.',
    created: '2026-10-02T08:10:00.000Z',
    ...history([flat, folded, doc], plan, '2026-10-02T08:20:00.000Z', meets),
    ...printed('2026-10-02T09:00:00.000Z'),
    fits: [
      {
        at: '2026-10-05T09:30:00.000Z',
        who: 'Wenna',
        held: 'clamps',
        notes: 'Rocks on the outrigger: dressed the old weld down.',
        revision: 3,
        withdrawn: null,
        edges: [
          fitAlong(doc, butt, t, (s) => 0.3 + 1.6 * s),
          fitAlong(doc, lap, t, (s) => 0.9 - 0.6 * s),
        ],
      },
      {
        at: '2026-10-05T11:05:00.000Z',
        who: 'Joss',
        held: 'sheet-pins',
        notes: 'Turned 0.5 mm at the rear and filed edge J. Lies flat.',
        revision: 3,
        withdrawn: null,
        edges: [fitAlong(doc, butt, t, (s) => 0.5 + 0.3 * s), fitAlong(doc, lap, t, () => 0.2)],
      },
    ],
    welds: [
      weld(
        '2026-10-06T09:00:00.000Z',
        butt,
        'tacks',
        1,
        7,
        'Ends, middle, halves. Waited between.',
      ),
      weld(
        '2026-10-06T10:20:00.000Z',
        butt,
        'seam',
        null,
        null,
        'Filled 20 mm at a time, opposite ends in turn.',
      ),
      weld(
        '2026-10-06T11:15:00.000Z',
        lap,
        'plugs',
        1,
        6,
        'Clamped on both sides of each. Weld-through primer scraped back at the holes.',
      ),
    ],
    inspections: [
      inspect(
        '2026-10-06T13:00:00.000Z',
        butt,
        'lamp',
        false,
        'One pinhole 140 mm from the front.',
        'Drilled out, filled, dressed. No light now.',
      ),
      inspect(
        '2026-10-06T13:20:00.000Z',
        butt,
        'penetration',
        true,
        'Bead through along the whole back.',
        '',
      ),
      inspect('2026-10-06T13:30:00.000Z', lap, 'tap', true, 'All six ring alike.', ''),
    ],
  });
}

function batteryShelf(): DemoPiece {
  const t = 1.5;
  const flat = outline([
    [0, 0],
    [300, 0],
    [300, 190],
    [300, 225],
    [285, 240],
    [15, 240],
    [0, 225],
    [0, 190],
    [-28, 180],
    [-28, 10],
  ]);
  const folded = withFolds(
    flat,
    [150, 95],
    [
      [[300, 190], [0, 190], 90],
      [[0, 190], [0, 0], 90],
    ],
  );
  const bored = withHoles(folded, [
    [75, 95, 38],
    [150, 95, 38],
    [225, 95, 38],
    [60, 218, 8.5],
    [240, 218, 8.5],
  ]);
  const flare = { heightMm: 7, radiusMm: null, toward: 'back', made: 'drilled' } as const;
  const pierced = {
    ...bored,
    holes: bored.holes.map((hole) => (hole.diameterMm === 38 ? { ...hole, flare } : hole)),
  };
  let all: Planned = { doc: pierced, plan: emptyPlan(), meets: [] };
  all = joined(all, [150, 0], { kind: 'hem', widthMm: 10, gapMm: 0 }, '');
  all = joined(all, [300, 95], { kind: 'plug-flange', widthMm: 18, turnDeg: 0 }, 'Bulkhead rail');
  all = joined(all, [-28, 95], { kind: 'butt', trimMm: 2 }, 'Inner wing');
  const { doc, plan, meets } = all;
  const rail = edgeNear(doc, [300, 95]);
  const wing = edgeNear(doc, [-28, 95]);
  return piece({
    name: 'Battery shelf',
    folding: { ...unfolded(), made: ['f1', 'f2'] },
    part: 'Shelf on the bulkhead, under the bonnet',
    side: 'left',
    metal: 'cr1008',
    thicknessMm: 1.51892,
    thickness: { by: 'gauge', system: 'msg', gauge: 16 },
    notes: 'Three flared holes to stiffen and let acid drain. Flare before folding.',
    created: '2026-10-12T07:45:00.000Z',
    ...history([flat, folded, doc], plan, '2026-10-12T08:00:00.000Z', meets),
    ...printed('2026-10-12T08:40:00.000Z'),
    fits: [
      {
        at: '2026-10-14T15:40:00.000Z',
        who: 'Joss',
        held: 'magnets',
        notes: 'First offer-up. Wide at the top along the wing.',
        revision: 3,
        withdrawn: null,
        edges: [
          fitAlong(doc, wing, t, (s) => 0.4 + 2.4 * s, 0.2),
          fitAlong(doc, rail, t, (s) => (s < 0.6 ? 0.2 : 0.3)),
        ],
      },
    ],
  });
}

function scuttleDrainPlate(): DemoPiece {
  let flat = outline([
    [0, 0],
    [180, 0],
    [180, 90],
    [90, 110],
    [0, 90],
  ]);
  flat = reshapeSide(flat, flat.sides[2]!.id, 0.12);
  flat = reshapeSide(flat, flat.sides[3]!.id, 0.12);
  const folded = withFolds(
    flat,
    [90, 60],
    [[[180, 25], [0, 25], 12, { toward: 'back', convention: 'outside-rolled' }]],
  );
  const doc = withHoles(folded, [
    [30, 34, 10],
    [150, 34, 10],
    [90, 85, 22],
  ]);
  return piece({
    name: 'Scuttle drain plate',
    folding: {
      ...unfolded(),
      lies: { fold: null, alongDeg: 0, acrossDeg: -6, faceUp: true },
      drains: ['h3'],
    },
    part: 'Sloped plate under the scuttle vent',
    side: 'centre',
    metal: 'dc04',
    thicknessMm: 0.8,
    thickness: { by: 'mm' },
    notes: 'Slope to the middle drain. Prime before it is closed in.',
    created: '2026-10-20T09:00:00.000Z',
    ...history([flat, folded, doc], emptyPlan(), '2026-10-20T09:10:00.000Z'),
  });
}

function sillClosingPlate(): DemoPiece {
  const t = 2;
  const flat = outline([
    [0, 0],
    [640, 0],
    [640, 120],
    [0, 120],
  ]);
  const folded = withFolds(flat, [320, 40], [[[640, 80], [0, 80], 78]]);
  let all: Planned = { doc: folded, plan: emptyPlan(), meets: [] };
  all = joined(
    all,
    [320, 0],
    { kind: 'plug-flange', widthMm: 16, turnDeg: 0 },
    'Sill, lower flange',
  );
  all = joined(all, [320, 120], { kind: 'plug-flange', widthMm: 16, turnDeg: 0 }, 'Floor edge');
  all = joined(all, [0, 40], { kind: 'backed-butt', trimMm: 0 }, 'Old sill, sound end');
  const { doc, plan, meets } = all;
  const lower = edgeNear(doc, [320, 0]);
  return piece({
    name: 'Sill closing plate',
    survey: {
      ...demoSurveyOf('Sill closing plate'),
      layerCuts: [
        { layer: 'inner', edge: lower.id, inMm: 30 },
        { layer: 'structural', edge: lower.id, inMm: 95 },
      ],
    },
    folding: { ...unfolded(), brake: 'folder', made: ['f1'] },
    part: 'Closes the sill box behind the step',
    metal: 'dc01',
    thicknessMm: t,
    thickness: { by: 'mm' },
    structural: true,
    notes:
      'Structural. Door hung and shell braced before the old plate came out. To be looked at by the inspector before it is closed.',
    created: '2026-11-02T08:00:00.000Z',
    ...history([flat, folded, doc], plan, '2026-11-02T08:15:00.000Z', meets),
    ...printed('2026-11-02T09:00:00.000Z'),
    fits: [
      {
        at: '2026-11-04T10:10:00.000Z',
        who: 'Wenna',
        held: 'clamps',
        notes: 'Clamped both ends; still flat when let go.',
        revision: 3,
        withdrawn: null,
        edges: [fitAlong(doc, lower, t, () => 0.2, 0.2)],
      },
    ],
    welds: [
      {
        at: '2026-11-05T09:00:00.000Z',
        who: 'Wenna',
        edge: lower.id,
        process: 'mig',
        work: 'plugs',
        from: 1,
        to: 12,
        made: madeAt(doc, plan, lower, t, 1, 12),
        settings: { ...settings, amps: 90, volts: 19, wireMm: 0.8 },
        note: 'Lower flange, first half. Stopped to let it cool.',
        withdrawn: null,
      },
    ],
  });
}

/**
 * The first card of the rear arch lip, and what it was found to be at its rear end when tried in
 * place.
 */
function archLipCards(): [first: PatternDoc, now: PatternDoc] {
  let first = outline([
    [0, 0],
    [420, 0],
    [420, 85],
    [0, 85],
  ]);
  first = reshapeSide(first, first.sides[0]!.id, -0.14);
  first = reshapeSide(first, first.sides[2]!.id, 0.14);
  const lip: Flange = {
    card: 'fold',
    widthMm: 18,
    endWidthMm: null,
    turnDeg: 90,
    toward: 'back',
    radiusMm: null,
    how: 'tipped',
    landMm: 15,
  };
  first = setEdge(first, edgeNear(first, [210, 29]).id, { flange: lip });
  return [first, moveCorner(first, first.corners[3]!.id, [0, 89])];
}

/** Not cut yet: a card of it, and one reference too many that would be lost. */
function rearArchLip(): DemoPiece {
  const cards = archLipCards();
  return piece({
    name: 'Rear arch lip',
    part: 'Lip of the wheel arch, rear third',
    metal: 'dc04',
    thicknessMm: 1,
    thickness: { by: 'mm' },
    notes: 'Wired edge: keep it where it is sound.',
    created: '2026-11-06T08:00:00.000Z',
    ...history(cards, emptyPlan(), '2026-11-06T08:10:00.000Z'),
  });
}

/**
 * Turned over from the first card of the right one, with a drain hole of its own; that one has
 * changed since.
 */
function leftArchLip(): DemoPiece {
  const [first] = archLipCards();
  const { doc } = madeFrom(first, 'other-side', []);
  const own = withHoles(doc, [[60, 60, 8]]);
  return {
    ...rearArchLip(),
    name: 'Left arch lip',
    survey: demoSurveyOf('Left arch lip'),
    part: 'Lip of the wheel arch, rear third',
    side: 'left',
    notes: 'From the right one, turned over. The left side drains through a hole at the rear.',
    created: '2026-11-06T08:12:00.000Z',
    came: { piece: 4, as: 'other-side', why: '' },
    ...history([doc, own], emptyPlan(), '2026-11-06T08:12:00.000Z'),
  };
}

/** A step that was done, with its count and its time, seconds. */
const worked = (count: number, seconds: number, note: string, done: string): StepWork => ({
  ...noWork(),
  count,
  seconds,
  note,
  done,
});

/**
 * A strip with the waist bead, turned square at its rear end, where the bead has to go through the
 * fold.
 */
function waistStrip(): DemoPiece {
  const flat = outline([
    [0, 0],
    [520, 0],
    [520, 96],
    [0, 96],
  ]);
  const folded = withFolds(flat, [200, 48], [[[470, 96], [470, 0], 90]]);
  const upper = edgeNear(flat, [260, 96]);
  const bead: Bead = {
    id: 'waist',
    path: { kind: 'along', edge: upper.id, inMm: 48, startMm: 0, endMm: 0 },
    section: { kind: 'arc', widthMm: 12, heightMm: 3 },
    toward: 'face',
    drawsIn: null,
    acrossRadiusMm: 4200,
    acrossOn: 'outside',
    atFolds: 'packed',
    meets: null,
  };
  const beaded = { ...folded, beads: [bead] };
  let all: Planned = { doc: beaded, plan: emptyPlan(), meets: [] };
  all = joined(all, [260, 0], { kind: 'butt', trimMm: 1.5 }, 'Lower side panel');
  all = joined(all, [260, 96], { kind: 'butt', trimMm: 1.5 }, 'Upper side panel');
  const { doc, plan, meets } = all;
  return piece({
    name: 'Waist-bead closing strip',
    // The bead is rolled; next it is packed and folded.
    shaping: {
      ...unshaped(),
      work: {
        'test-bead waist': worked(0, 540, 'Drew in 1.4 of 1.9.', '2026-11-09T09:10:00.000Z'),
        'test-bend f1': worked(0, 300, '', '2026-11-09T09:20:00.000Z'),
        rough: worked(0, 700, '', '2026-11-09T09:40:00.000Z'),
        'bead waist': {
          ...worked(3, 930, 'Fence slipped on the first, run again.', '2026-11-09T10:05:00.000Z'),
          before: [
            { count: 1, seconds: 260, note: 'Fence slipped', at: '2026-11-09T09:48:00.000Z' },
          ],
        },
      },
    },
    part: 'Closes the waist behind the cab door',
    metal: 'dc04',
    thicknessMm: 1,
    thickness: { by: 'mm' },
    notes: 'The bead must carry on the door’s. Bead first, pack it, then fold.',
    created: '2026-11-09T08:00:00.000Z',
    ...history([flat, folded, doc], plan, '2026-11-09T08:10:00.000Z', meets),
  });
}

/** The crowned corner behind the wheel: cut with metal over, its middle half raised. */
function lowerRearCorner(): DemoPiece {
  const card = cornerCard();
  let all: Planned = { doc: card, plan: emptyPlan(), meets: [] };
  const [upper, ...others] = byLetter(card.edges);
  const meets = ['Side panel above', 'Rear panel', 'Sill end', 'Wheel arch'];
  [upper!, ...others].forEach((edge, i) => {
    all = {
      doc: setEdge(all.doc, edge.id, { joint: { kind: 'butt', trimMm: 3 } }),
      plan: all.plan,
      meets: [...all.meets, { edge: edge.id, word: meets[i]! }],
    };
  });
  return piece({
    name: 'Lower rear corner',
    shaping: {
      ...unshaped(),
      work: {
        rough: worked(0, 600, '', '2026-11-20T09:30:00.000Z'),
        raise: { ...noWork(), count: 4, seconds: 2400, note: 'Half way by strip 2.' },
      },
    },
    part: 'Corner of the body under the tail lamp',
    metal: 'dc04',
    thicknessMm: 1,
    thickness: { by: 'mm' },
    notes:
      'Taken from the left corner with three strips. Raise first, gather the long edges after.',
    created: '2026-11-20T08:00:00.000Z',
    ...history([card, all.doc], all.plan, '2026-11-20T08:20:00.000Z', all.meets),
  });
}

/** A piece that was not made here: its edges by length, what each meets, and how it is joined. */
function fromLengths(edges: [lengthMm: number, meets: string, joint: Joint][]): Planned {
  const made = cardFromLengths(
    edges.map(([lengthMm, , joint], i) => ({
      ...{ id: `e${i + 1}`, letter: letterAt(i) },
      ...{ lengthMm, joint },
    })),
    countingIds('s'),
  );
  if (!made.ok) throw new Error('The edges of a demo piece cannot go round');
  const meets = edges.map(([, word], i) => ({ edge: `e${i + 1}`, word }));
  return { doc: made.doc, plan: emptyPlan(), meets };
}

const BUTT: Joint = { kind: 'butt', trimMm: 0 };

/** A bought panel, 8 mm too wide: a band was taken out of it, and it was tried once. */
function boughtCornerPanel(): DemoPiece {
  const t = 0.9;
  const { doc, plan, meets } = fromLengths([
    [520, 'Door pillar, outer edge', { kind: 'lap', widthMm: 12 }],
    [340, 'Scuttle side', BUTT],
    [515, 'Headlamp panel', BUTT],
    [356, 'Sill, upper flange', { kind: 'plug-flange', widthMm: 15, turnDeg: 90 }],
  ]);
  const [scuttle, lamp] = ['e2', 'e3'].map((id) => doc.edges.find((edge) => edge.id === id)!);
  return piece({
    name: 'Front corner panel',
    kind: 'bought',
    part: 'Corner behind the headlamp, from scuttle to sill',
    metal: 'dc04',
    thicknessMm: t,
    thickness: { by: 'micrometer' },
    notes: 'Primed black. Keep the primer until it fits.',
    created: '2026-11-23T08:00:00.000Z',
    cutDown: {
      readingsMm: [0.9, 0.91, 0.89],
      received: {
        ...{ at: '2026-11-23T08:20:00.000Z', laidOn: 'old-panel', verdict: 'kept' },
        note: 'Crease lies right when the upper edge does. Too wide, and no hole for the lamp loom.',
      },
      faults: [
        {
          ...{ id: 'wide', kind: 'too-long', edge: 'e2', by: 8, note: 'Across, at the scuttle.' },
          mendedAt: '2026-11-23T14:30:00.000Z',
          how: 'A band of 8 mm taken out beside the crease and butted on the bench.',
          hours: 3.5,
        },
        {
          ...{ id: 'loom', kind: 'hole-missing', edge: 'e3', by: null, note: 'Lamp loom, 22 mm.' },
          ...{ mendedAt: null, how: '', hours: null },
        },
      ],
      works: [
        {
          ...{ id: 'flange', kind: 'flange', edge: 'e4', byMm: 4, note: 'To the old spots.' },
          doneAt: '2026-11-24T08:30:00.000Z',
        },
        {
          ...{ id: 'loomhole', kind: 'hole-made', edge: 'e3', diameterMm: 22, note: '' },
          doneAt: null,
        },
      ],
    },
    ...history([doc], plan, '2026-11-23T08:40:00.000Z', meets),
    fits: [
      {
        ...{ at: '2026-11-24T10:00:00.000Z', who: 'Joss', held: 'clamps', revision: 1 },
        notes: 'Upper edge first. Clear of the lamp panel at the foot.',
        withdrawn: null,
        edges: [
          fitAlong(doc, scuttle!, t, (s) => 0.4 + 0.5 * s),
          fitAlong(doc, lamp!, t, (s) => 0.6 + 2.1 * s),
        ],
      },
    ],
  });
}

/** The end of a sill from a donor: drilled off, cut with metal over, still to be trimmed. */
function donorSillEnd(): DemoPiece {
  const { doc, plan, meets } = fromLengths([
    [210, 'Wheel arch, front', BUTT],
    [640, 'Floor edge', { kind: 'plug-flange', widthMm: 18, turnDeg: 0 }],
    [210, 'Sill, cut line', { kind: 'backed-butt', trimMm: 0 }],
    [640, 'Outer sill', { kind: 'plug-flange', widthMm: 15, turnDeg: 0 }],
  ]);
  return piece({
    name: 'Inner sill, front end',
    kind: 'donor',
    part: 'From the second van, right side',
    metal: 'dc01',
    thicknessMm: 1.5,
    thickness: { by: 'micrometer' },
    structural: true,
    notes: 'Brace the door opening before the old one comes out.',
    created: '2026-11-25T08:00:00.000Z',
    cutDown: {
      readingsMm: [1.5, 1.48, 1.51, 1.5],
      received: null,
      faults: [],
      works: [
        {
          ...{ id: 'spots', kind: 'spots', edge: 'e2', count: 22, holed: 'other' },
          note: 'Holes in the donor’s floor: the flange is whole.',
          doneAt: '2026-11-25T11:10:00.000Z',
        },
        {
          ...{ id: 'cut', kind: 'cut', edge: 'e3', leftMm: 6, note: 'Stagger it to the outer.' },
          doneAt: null,
        },
      ],
    },
    ...history([doc], plan, '2026-11-25T11:30:00.000Z', meets),
  });
}

const DEMO_NAME = 'Mobile library van';

/** The whole demo job as a job file. */
export function demoJob(): JobFile {
  const told = [
    stepWellTray(),
    batteryShelf(),
    scuttleDrainPlate(),
    sillClosingPlate(),
    rearArchLip(),
    leftArchLip(),
    waistStrip(),
    lowerRearCorner(),
    boughtCornerPanel(),
    donorSillEnd(),
  ];
  const created = '2026-10-01T08:00:00.000Z';
  return {
    format: 'patrone-job',
    version: 12,
    job: {
      name: DEMO_NAME,
      vehicle: '1953 Marlpit, coach-built',
      owner: 'The village trust',
      notes:
        'Tallow Yard Bodyworks. Right side first; the left side is the pattern until it is done.',
      created,
      archived: null,
    },
    survey: demoSurvey(),
    pictures: [],
    structure: structureOfWords(
      told.map(({ meets }) => meets),
      created,
    ),
    pieces: told.map(({ meets: _, ...piece }) => piece),
  };
}
