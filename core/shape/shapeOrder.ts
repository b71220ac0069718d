import { byDie, dieFor, packingStrip } from '../blank/bead/byDie';
import { outlinePath } from '../blank/blank';
import type { SheetMetal } from '../blank/fold/practice';
import { sheetMetal } from '../blank/fold/practice';
import type { FlangeAlong } from '../blank/flange/along';
import { alongFlange, remediesOf } from '../blank/flange/along';
import { beadLine, foldsAcross } from '../card/beadPath';
import { segmentsOfEdge } from '../card/outline';
import type { Edge, PatternDoc } from '../card/pattern';
import { biteLearnt, bitesOver } from './biteStrips';
import { brokenRules, inOrder } from './rules';
import type { BrokenRule } from './rules';
import { crownSteps } from './crownSteps';
import { beadsProven, bendsProven, bitesProven } from './proven';
import { foldLeftForGap } from './leaveFold';
import type { ShapeStep } from './shapeStep';
import type { ShapeGiven } from './stepMaking';
import { STRIP, step } from './stepMaking';

/** Allowance of a rough cut where figures are not proven yet, mm (common practice). */
const ROUGH_MM = 25;
/**
 * A test piece for a bead: width either side of it, in bead widths, and length, mm (common
 * practice).
 */
const TEST_BEAD = { widths: 6, longMm: 150 };
/** A hem is folded this far, degrees. */
const HEM_DEG = 180;
/** Angle to which a flange is first turned over, degrees (common practice). */
const START_DEG = 30;

/**
 * The working order of a piece, each step with its reason: what is not proven in this shop is tried
 * first; then cut, holes, beads, flanges round curves, folds, and last what can only be done or
 * adjusted at the end. Rules are in `rules.ts`.
 */
export function shapeOrder(given: ShapeGiven): ShapeStep[] {
  const sheet = sheetMetal(given.metal, given.thicknessMm, given.shop);
  const steps = [
    ...beadSteps(given),
    ...crownSteps(given),
    ...flangeSteps(given, sheet),
    ...turnSteps(given),
    ...holeSteps(given),
    ...foldSteps(given, sheet),
  ];
  const tests = steps.filter(({ what }) => what.startsWith('test-'));
  const rest = steps.filter(({ what }) => !what.startsWith('test-'));
  const draws = rest.some(({ what }) => what === 'bead' || what === 'strain' || what === 'raise');
  // How a panel curved two ways comes out hangs on the hand: it is never cut to the line first.
  const unsure = tests.length > 0 || given.pattern.crown !== null;
  const cut =
    unsure && draws
      ? step('rough', [], 'not-proven', { overMm: ROUGH_MM })
      : step('exact', [], exactBecause(tests, draws), {});
  const strips = given.pattern.profiles.map(({ id }) => step('check', [id], 'checking-strip', {}));
  const trim = unsure && draws ? [step('trim', [], 'rough-cut', { overMm: ROUGH_MM })] : [];
  return inOrder([...tests, cut, ...rest, ...strips, ...trim], given.turnedAfter);
}

/** Why a piece is cut to the line at once. */
const exactBecause = (tests: readonly ShapeStep[], draws: boolean) =>
  draws ? 'proven' : tests.length > 0 ? 'nothing-draws-unproven' : 'nothing-draws';

/** The rules an order of steps breaks; some edges may be turned over when all folds are made. */
export const brokenIn = (
  steps: readonly ShapeStep[],
  turnedAfter: readonly string[] = [],
): BrokenRule[] => brokenRules(steps, turnedAfter);

function beadSteps({ pattern, development, metal, thicknessMm, shop }: ShapeGiven): ShapeStep[] {
  const tested = new Set<string>();
  return pattern.beads.flatMap((bead): ShapeStep[] => {
    const blank = development.beads.find(({ id }) => id === bead.id);
    if (!blank) return [];
    const { size } = blank;
    const die = dieFor(bead.section, shop.beadTools);
    const run = die && byDie(blank, die, outlinePath(development));
    const proven = beadsProven(shop, bead.section.kind, { metal, thicknessMm });
    const same = JSON.stringify(bead.section);
    const figures = {
      widthMm: size.widthMm,
      heightMm: size.heightMm,
      addsMm: blank.addsMm,
      ...(bead.path.kind === 'along' && { inMm: bead.path.inMm }),
    };
    const found: ShapeStep[] = [];
    if (!proven && !tested.has(same)) {
      tested.add(same);
      found.push(
        step('test-bead', [bead.id], 'bead-not-proven', {
          wideMm: Math.ceil(size.widthMm * TEST_BEAD.widths),
          longMm: TEST_BEAD.longMm,
          takeUpMm: size.takeUpMm,
        }),
      );
    }
    const perPass: Record<string, number> = die ? { depthPerPassMm: die.depthPerPassMm } : {};
    found.push(
      step(
        'bead',
        [bead.id],
        run ? 'bead' : 'bead-by-hand',
        { ...figures, ...perPass },
        { of: 'passes', wanted: run ? run.passes : null },
      ),
    );
    const line = beadLine(pattern, bead);
    const crossed = line ? foldsAcross(pattern, line).map(({ fold }) => fold) : [];
    if (crossed.length > 0 && (bead.atFolds === 'packed' || bead.atFolds === null)) {
      const strip = packingStrip(bead.section, thicknessMm);
      found.push(
        step(
          'pack',
          [bead.id, ...crossed],
          'pack',
          strip ? { thickMm: strip.thickMm, wideMm: strip.wideMm } : {},
        ),
      );
    }
    return found;
  });
}

function flangeSteps(given: ShapeGiven, sheet: SheetMetal): ShapeStep[] {
  const { pattern, development, metal, thicknessMm, shop } = given;
  const tested = new Set<string>();
  return pattern.edges.flatMap((edge, i): ShapeStep[] => {
    const flange = development.edges[i]?.allowance.flange;
    if (!flange || !edge.flange) return [];
    const along = alongFlange(segmentsOfEdge(pattern, edge), flange, edge.flange.landMm);
    const turned = { angleDeg: flange.bend.angleDeg, widthMm: edge.flange.widthMm };
    if (along.way === 'lip')
      return [step('lip', [edge.id], 'lip-apart', { ...turned, lengthMm: along.lengthMm })];
    const found: ShapeStep[] = [];
    const strains = along.stretches.filter(({ kind }) => kind !== 'plain');
    for (const way of ['stretch', 'shrink'] as const) {
      if (
        !strains.some(({ kind }) => kind === way) ||
        bitesProven(biteLearnt(shop, metal, thicknessMm, way)) ||
        tested.has(way)
      )
        continue;
      tested.add(way);
      found.push(
        step(
          'test-strip',
          [edge.id],
          `${way}-not-proven`,
          { lengthMm: STRIP.longMm, widthMm: STRIP.wideMm, bites: STRIP.bites },
          null,
          way,
        ),
      );
    }
    found.push(
      along.way === 'pulled'
        ? step('angle', [edge.id], 'straight-angle', {
            ...turned,
            lengthMm: along.lengthMm,
            landMm: edge.flange.landMm,
          })
        : step('tip-start', [edge.id], strains.length > 0 ? 'tip-a-little' : 'tip-straight', {
            ...turned,
            startDeg: strains.length > 0 ? Math.min(START_DEG, turned.angleDeg) : turned.angleDeg,
          }),
    );
    if (flange.made === 'notched') found.push(...notchSteps(edge, along, sheet));
    found.push(...strains.map((s) => strainStep(given, edge, s)));
    if (along.way === 'pulled')
      found.push(step('lip', [edge.id], 'weld-angle', { lengthMm: along.lengthMm }));
    else if (strains.length > 0) found.push(step('tip-home', [edge.id], 'tip-home', turned));
    return found;
  });
}

/** What a joint turns over along its edge: a hem, or the lip that plugs go through. */
const turnSteps = ({ pattern, development }: ShapeGiven): ShapeStep[] =>
  pattern.edges.flatMap((edge, i) => {
    const { joint } = edge;
    const turn = development.edges[i]?.allowance.turn;
    if (!turn || (joint.kind !== 'hem' && !(joint.kind === 'plug-flange' && joint.turnDeg > 0)))
      return [];
    return [
      step('turn', [edge.id], joint.kind === 'hem' ? 'hem' : 'turned-lip', {
        angleDeg: joint.kind === 'hem' ? HEM_DEG : joint.turnDeg,
        widthMm: joint.widthMm,
        ...(joint.kind === 'hem' && { gapMm: joint.gapMm }),
      }),
    ];
  });

function strainStep(
  { metal, thicknessMm, shop }: ShapeGiven,
  edge: Edge,
  s: FlangeAlong['stretches'][number],
): ShapeStep {
  const learnt = biteLearnt(shop, metal, thicknessMm, s.strain > 0 ? 'stretch' : 'shrink');
  const bites = learnt && bitesOver(s.changeMm / s.freeMm, s.freeMm, learnt).bites;
  const figures = {
    fromMm: s.fromMm,
    toMm: s.toMm,
    strain: s.strain,
    changeMm: s.changeMm,
    freeMm: s.freeMm,
    ...(bites && { apartMm: s.freeMm / bites }),
  };
  return step(
    'strain',
    [edge.id],
    s.strain > 0 ? 'stretch-evenly' : 'shrink-evenly',
    figures,
    { of: 'bites', wanted: bites ?? null },
    `${Math.round(s.fromMm)}`,
  );
}

const notchSteps = (edge: Edge, along: FlangeAlong, { forming }: SheetMetal): ShapeStep[] =>
  along.stretches.flatMap((s) => {
    const limit = forming && (s.strain > 0 ? forming.stretch : forming.shrink);
    const notches = limit && remediesOf(s, along, limit)?.notches;
    return notches
      ? [
          step(
            'notch',
            [edge.id],
            'notch',
            { deepMm: notches.deepMm, apartMm: notches.apartMm, opensMm: notches.opensMm },
            { of: 'cuts', wanted: notches.count },
            `${Math.round(s.fromMm)}`,
          ),
        ]
      : [];
  });

function holeSteps({ development }: ShapeGiven): ShapeStep[] {
  const { holes } = development;
  const flared = holes.filter(({ flare }) => flare);
  return [
    ...(holes.length > 0
      ? [step('holes', [], 'holes-flat', {}, { of: 'holes', wanted: holes.length })]
      : []),
    ...(flared.length > 0
      ? [
          step(
            'flare',
            flared.map(({ id }) => id),
            'flare-flat',
            { heightMm: Math.max(...flared.map(({ flare }) => flare!.heightMm)) },
            { of: 'holes', wanted: flared.length },
          ),
        ]
      : []),
  ];
}

function foldSteps(
  { pattern, development, metal, thicknessMm, shop, foldOrder, gaps }: ShapeGiven,
  sheet: SheetMetal,
): ShapeStep[] {
  const place = (id: string) => (foldOrder.includes(id) ? foldOrder.indexOf(id) : foldOrder.length);
  const folds = [...development.folds].sort((a, b) => place(a.id) - place(b.id));
  const proven = bendsProven(shop, { metal, thicknessMm });
  const test =
    folds.length > 0 && !proven
      ? [step('test-bend', [folds[0]!.id], 'bend-not-proven', { radiusMm: sheet.usualRadiusMm })]
      : [];
  const left = foldLeftForGap(development, gaps, foldOrder);
  return [
    ...test,
    ...folds.map((fold) =>
      left?.fold === fold.id
        ? step('leave', [fold.id, left.edge], 'leave-for-gap', { angleDeg: fold.bend.angleDeg })
        : step('fold', [fold.id, ...crossing(pattern, fold.id)], 'fold', {
            angleDeg: fold.bend.angleDeg,
          }),
    ),
  ];
}

/** Beads that a fold runs over, by id. */
const crossing = (pattern: PatternDoc, fold: string): string[] =>
  pattern.beads
    .filter((bead) => {
      const line = beadLine(pattern, bead);
      return line !== null && foldsAcross(pattern, line).some((one) => one.fold === fold);
    })
    .map(({ id }) => id);
