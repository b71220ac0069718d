import type { BeadLine } from '../../card/beadPath';
import { beadLine, foldsAcross, meetings } from '../../card/beadPath';
import { facesOf } from '../../card/faces';
import { endsOfFold } from '../../card/foldPlace';
import type { Bead, PatternDoc } from '../../card/pattern';
import { points, polygonCentre } from '../../measure/path';
import { even } from '../../measure/ramp';
import { partOfRun, runLength, besideRun } from '../../measure/run';
import type { Problem } from '../../measure/result';
import { care } from '../../measure/result';
import type { Segment } from '../../measure/segment';
import { flattened, isStraight, line, part, pointAt, segmentLength } from '../../measure/segment';
import { SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { along, cross, distance, dot, left, sub, unit } from '../../measure/vector';
import { carriedRun, enlarged } from '../bead/enlarge';
import type { BeadSection } from '../bead/section';
import { beadSize, sectionIn } from '../bead/section';
import type { BeadSize, BlankBead, BlankLine } from '../blank';
import { markOnBlank } from './markLine';
import type { SheetMetal } from './practice';

/**
 * Share of a bead's take-up that draws the edges in, where nothing is known of it (common practice,
 * from memory).
 */
const USUAL_DRAW = {
  /** It runs right out over the rim at both ends. */
  across: 0.8,
  /** It stops inside the panel. */
  inside: 0.2,
};

/** A bead of the card with all that is reckoned of it before the blank is. */
export type PlannedBead = {
  bead: Bead;
  line: BeadLine;
  size: BeadSize;
  drawsIn: number;
  by: BlankBead['by'];
  addsMm: number;
};

/** The section of a bead in figures, a step with the radius and sheet it is made with. */
export const sectionOf = (
  { section }: Pick<Bead, 'section'>,
  sheet: Pick<SheetMetal, 'thicknessMm' | 'usualRadiusMm'>,
): BeadSection => sectionIn(section, sheet.thicknessMm, sheet.usualRadiusMm);

/**
 * The beads of a card that can be made. What cannot be is told: `bead-figures`, `bead-too-high`,
 * `bead-top-wide` (stop; about: the bead), `bead-off-card` (care).
 */
export function plannedBeads(
  doc: PatternDoc,
  sheet: SheetMetal,
): { beads: PlannedBead[]; problems: Problem[] } {
  const problems: Problem[] = [];
  const beads = doc.beads.flatMap((bead): PlannedBead[] => {
    const size = beadSize(sectionOf(bead, sheet));
    if (!size.ok) {
      problems.push(
        ...size.problems.map((p): Problem => ({ ...p, about: [bead.id], severity: 'stop' })),
      );
      return [];
    }
    const line = beadLine(doc, bead);
    if (!line) {
      problems.push(care('bead-off-card', [bead.id]));
      return [];
    }
    const across = line.out[0] && line.out[1];
    // Test pieces are beaded right across: they say nothing of a bead that stops inside a panel.
    const tested = across ? sheet.drawsIn : undefined;
    const drawsIn = bead.drawsIn ?? tested ?? (across ? USUAL_DRAW.across : USUAL_DRAW.inside);
    const by = bead.drawsIn !== null ? 'bead' : tested !== undefined ? 'shop' : 'usual';
    return [{ bead, line, size, drawsIn, by, addsMm: drawsIn * size.takeUpMm }];
  });
  return { beads, problems };
}

/**
 * The card with the metal in it that its beads draw in, seen from the middle of the face that stays
 * put.
 */
export function withDrawnIn(
  doc: PatternDoc,
  planned: readonly PlannedBead[],
): { doc: PatternDoc; carry: (p: Vec) => Vec } {
  if (planned.length === 0) return { doc, carry: (p) => p };
  const tree = facesOf(doc);
  const face = tree.ok ? tree.faces[tree.base] : undefined;
  const stays =
    doc.base ??
    (face
      ? polygonCentre(
          points(
            face.bounds.map((b) => b.segment),
            0.1,
          ),
        )
      : [0, 0]);
  const draws = planned.map(({ bead, line, size, addsMm }) => ({
    bead: bead.id,
    line,
    widthMm: size.widthMm,
    addsMm,
  }));
  return enlarged(doc, draws, stays);
}

/**
 * A bead on the blank, with its middle and creases to scribe. Where it stops short of folds it is
 * cut off its own width before the bend begins (common practice).
 *
 * @param grown the card with what beads draw in
 * @param carry where a place of the card comes to on that
 * @param fromGrown where a place of that comes to on the blank
 */
export function beadOnBlank(
  doc: PatternDoc,
  grown: PatternDoc,
  { bead, line, size, drawsIn, by, addsMm }: PlannedBead,
  setbacks: readonly number[],
  carry: (p: Vec) => Vec,
  fromGrown: (p: Vec) => Vec,
  name: string,
): { bead: BlankBead; lines: BlankLine[] } {
  const flatMm = size.widthMm + addsMm;
  const stretches =
    bead.atFolds === 'stopped' ? shortOfFolds(doc, line, setbacks, size.widthMm) : [line.run];
  const onCard = stretches.map((run) => carriedRun(run, carry));
  const onBlank = (run: readonly Segment[]) => runOnBlank(grown, run, setbacks, fromGrown);
  const runs = onCard.flatMap(onBlank);
  const of = { kind: 'bead' as const, id: bead.id };
  const creases = onCard.flatMap((run) =>
    [1, -1].flatMap((side) => onBlank(besideRun(run, even((side * flatMm) / 2)))),
  );
  return {
    bead: {
      id: bead.id,
      runs,
      toward: bead.toward,
      size,
      flatMm,
      drawsIn,
      by,
      addsMm,
      stretch: size.developedMm / flatMm - 1,
    },
    lines: [
      ...runs.map((path): BlankLine => ({ role: 'bead', of, path, name })),
      ...creases.map((path): BlankLine => ({ role: 'crease', of, path })),
    ],
  };
}

/** The stretches of a bead between the folds that it stops short of. */
function shortOfFolds(
  doc: PatternDoc,
  found: BeadLine,
  setbacks: readonly number[],
  runOutMm: number,
): Segment[][] {
  const index = new Map(doc.folds.map(({ id }, i) => [id, i]));
  const crossed = foldsAcross(doc, found).sort((a, b) => a.alongMm - b.alongMm);
  const gaps = crossed.map(({ fold, alongMm }) => ({
    alongMm,
    short: setbacks[index.get(fold)!]! + runOutMm,
  }));
  let from = 0;
  const long = runLength(found.run);
  const stretches = [...gaps, { alongMm: long, short: 0 }].map(({ alongMm, short }) => {
    const run = partOfRun(found.run, from, alongMm - short);
    from = alongMm + short;
    return run;
  });
  return stretches.filter((run) => run.length > 0);
}

/**
 * A run of the card on the blank, in as many parts as there are stretches of it that lie together.
 */
function runOnBlank(
  doc: PatternDoc,
  run: readonly Segment[],
  setbacks: readonly number[],
  fromCard: (p: Vec) => Vec,
): Segment[][] {
  if (doc.folds.length === 0) return [[...run]];
  const folds = doc.folds.flatMap((fold, i): Bent[] => {
    const ends = endsOfFold(doc, fold);
    return ends
      ? [
          {
            a: ends[0],
            way: unit(sub(ends[1], ends[0])),
            long: distance(...ends),
            setback: setbacks[i]!,
          },
        ]
      : [];
  });
  const parts = run.flatMap((s) =>
    isStraight(s)
      ? straightOnBlank(doc, [s.a, s.b], setbacks, fromCard)
      : arcOnBlank(doc, s, folds, setbacks, fromCard),
  );
  const joined: Segment[][] = [];
  for (const piece of parts.filter((path) => path.some((s) => segmentLength(s) > SAME_PLACE_MM))) {
    const last = joined.at(-1)?.at(-1);
    if (last && distance(last.b, piece[0]!.a) < JOINED_MM) joined.at(-1)!.push(...piece);
    else joined.push([...piece]);
  }
  return joined;
}

const straightOnBlank = (
  doc: PatternDoc,
  [from, to]: readonly [Vec, Vec],
  setbacks: readonly number[],
  fromCard: (p: Vec) => Vec,
): Segment[][] =>
  markOnBlank(doc, { id: '', name: '', from: [...from], to: [...to] }, setbacks, fromCard).map(
    ({ path }) => path,
  );

/** A fold with the reach of its bend to either side. */
type Bent = { a: Vec; way: Vec; long: number; setback: number };

/** An arc goes with its face as an arc; what of it lies in a bend is followed by straight lines. */
function arcOnBlank(
  doc: PatternDoc,
  s: Segment,
  folds: readonly Bent[],
  setbacks: readonly number[],
  fromCard: (p: Vec) => Vec,
): Segment[][] {
  const cuts = folds.flatMap(({ a, way, long, setback }) =>
    [setback, 0, -setback].flatMap((mm) => {
      const from = along(a, left(way), mm);
      return meetings(s, line(from, along(from, way, long)));
    }),
  );
  const stops = [0, ...cuts.sort((p, q) => p - q), 1];
  return stops.slice(1).flatMap((to, i): Segment[][] => {
    const from = stops[i]!;
    if (to - from < 1e-9) return [];
    const piece = part(s, from, to);
    const middle = pointAt(piece, 0.5);
    const bent = folds.some(({ a, way, long, setback }) => {
      const off = sub(middle, a);
      return Math.abs(cross(way, off)) < setback && dot(way, off) > 0 && dot(way, off) < long;
    });
    if (!bent) return [carriedRun([piece], fromCard)];
    const places = [...flattened(piece, CHORD_MM), piece.b];
    return places
      .slice(1)
      .flatMap((end, k) => straightOnBlank(doc, [places[k]!, end], setbacks, fromCard));
  });
}

/**
 * How closely an arc that runs over a fold is followed, mm; parts nearer to each other than this
 * are one, mm.
 */
const CHORD_MM = 0.05;
const JOINED_MM = 1e-3;
