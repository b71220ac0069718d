import { edgeLength } from '../card/outline';
import type { Edge, Joint as EdgeJoint, PatternDoc } from '../card/pattern';
import { edgeOfRecord } from '../card/recordPlace';
import type { MetalId } from '../metal/metals';
import type { PlanDoc } from '../weld/plan';
import { weldOf } from '../weld/planned';
import { isJoined } from '../weld/start';
import type { WeldPlan } from '../weld/weldPlan';
import { endsAt, inHandOf, thicknessOf } from './joint';
import type { EndName } from './kinds';
import { otherEnd } from './kinds';
import type { Joint, Part, Structured } from './structure';

/** A piece at the other end of a joint, as far as the joint asks: its card and plan as they are now. */
export type Beyond = {
  id: string;
  name: string;
  metal: MetalId;
  thicknessMm: number;
  archived: boolean;
  pattern: PatternDoc;
  plan: PlanDoc;
};

/** Where the other end of a joint lies on another piece (or on this one). */
export type MetEdge = { piece: Beyond; edge: Edge; lengthMm: number; span: Span };

/** Part of an edge, mm from its start; `fromMm` beyond `toMm` where it is run backward. */
export type Span = { fromMm: number; toMm: number };

/**
 * One thing that an edge meets, seen from that edge. `edge` and `part`: one of the two, or neither
 * where that edge or piece is no more. `span` is where along this edge they meet. What is said of
 * ends is said of `this` and `other`.
 */
export type Meeting = {
  id: string;
  joint: Joint;
  /** Which end of the joint this edge is. */
  end: EndName;
  span: Span;
  /** The name of what is met, as it is called; empty where it is gone. */
  name: string;
  edge: MetEdge | null;
  part: Structured<Part> | null;
  /** Metal and thickness (mm) of what is met; null where nobody knows. */
  metal: MetalId | null;
  thicknessMm: number | null;
  over: Whose;
  stepped: Whose;
  waterFrom: Whose;
};

export type Whose = 'this' | 'other' | null;

const whose = (named: EndName | null, end: EndName): Whose =>
  named === null ? null : named === end ? 'this' : 'other';

type PieceEnd = Extract<Joint['first'], { piece: string }>;

/**
 * Where an end lies on the card as it is now, in the direction that was meant: on a card turned over
 * since, from the end of the edge to its start. Null where the edge is no more.
 */
function endNow(pattern: PatternDoc, { edge: id, turned, stretch }: PieceEnd) {
  const found = edgeOfRecord(pattern, { edge: id, turned });
  if (!found) return null;
  const { edge, along } = found;
  const own = edge.id === id;
  const lengthMm = own
    ? edgeLength(pattern, edge)
    : edge.was?.find((old) => old.id === id)?.span?.lengthMm;
  // Where an edge that was taken in lies is not always known: it is then somewhere along all of it.
  const place = (mm: number) => (lengthMm === undefined ? null : along(Math.min(mm, lengthMm)));
  const fromMm = place(stretch?.fromMm ?? 0);
  const toMm = place(stretch?.toMm ?? lengthMm ?? 0);
  return {
    edge,
    span:
      fromMm === null || toMm === null || fromMm === toMm
        ? { fromMm: 0, toMm: edgeLength(pattern, edge) }
        : { fromMm, toMm },
  };
}

/**
 * What each edge of a piece meets, by the id of the edge, in the order the joints were written down.
 * `structure` is the job's, `beyond` the pieces at the other ends by their ids; `own` is this piece.
 */
export function meetingsOf(
  own: Beyond,
  structure: readonly Structured[],
  beyond: readonly Beyond[],
): Map<string, Meeting[]> {
  const pieces = new Map([...beyond, own].map((piece) => [piece.id, piece]));
  const parts = new Map(inHandOf(structure, 'part').map((part) => [part.id, part]));
  const found = new Map<string, Meeting[]>();
  for (const { id, ...joint } of inHandOf(structure, 'joint')) {
    for (const end of endsAt(joint, own.id)) {
      const at = joint[end];
      if (!('piece' in at)) continue;
      const here = endNow(own.pattern, at);
      if (!here) continue;
      const there = joint[otherEnd(end)];
      const piece = 'piece' in there ? pieces.get(there.piece) : undefined;
      const part = 'part' in there ? (parts.get(there.part) ?? null) : null;
      const on = piece && 'piece' in there ? endNow(piece.pattern, there) : null;
      const edge: MetEdge | null =
        piece && on
          ? { piece, edge: on.edge, lengthMm: edgeLength(piece.pattern, on.edge), span: on.span }
          : null;
      found.set(here.edge.id, [
        ...(found.get(here.edge.id) ?? []),
        {
          id,
          joint,
          end,
          span: here.span,
          name: edge ? `${piece!.name}, ${edge.edge.letter}` : (part?.name ?? piece?.name ?? ''),
          edge,
          part,
          metal: piece?.metal ?? part?.metal ?? null,
          thicknessMm: piece?.thicknessMm ?? (part ? thicknessOf(part) : null),
          over: whose(joint.over, end),
          stepped: whose(joint.stepped, end),
          waterFrom: whose(joint.waterFrom, end),
        },
      ]);
    }
  }
  return found;
}

/** What an edge meets, in words; empty where nothing is said. */
export const meetsWords = (meetings: readonly Meeting[] | undefined): string =>
  (meetings ?? []).flatMap(({ name }) => (name === '' ? [] : [name])).join(' and ');

/**
 * Where a place along the other edge lies along this one, mm; null beyond what meets. Ends are
 * laid on ends: where the two spans are not of one length the place keeps its share.
 */
export function placeHere({ joint, span, edge }: Meeting, otherMm: number): number | null {
  if (!edge) return null;
  const { fromMm, toMm } = edge.span;
  const share = (otherMm - fromMm) / (toMm - fromMm);
  if (!Number.isFinite(share) || share < -BEYOND || share > 1 + BEYOND) return null;
  const along = joint.sameWay ? share : 1 - share;
  return span.fromMm + along * (span.toMm - span.fromMm);
}

/** Past the end of what meets by this share a place still counts: readings are taken by eye. */
const BEYOND = 0.02;

/**
 * Which end's card and plan say how a joint is made: the first whose card asks for a joint at all;
 * null where neither does, or there is no card beyond.
 */
export function leads(edge: Edge, { end, edge: met }: Meeting): Whose {
  const here = isJoined(edge.joint);
  const there = met !== null && isJoined(met.edge.joint);
  if (here && there) return end === 'first' ? 'this' : 'other';
  return here ? 'this' : there ? 'other' : null;
}

/**
 * The pattern and the plan of a piece as its joints have them: an edge is joined and welded as the
 * end that leads says, so that both ends say the same; what is hemmed, bolted or riveted is not
 * welded. Nothing is cut by these: blanks go by the card itself.
 */
export function joinedAs(
  { pattern, plan }: Pick<Beyond, 'pattern' | 'plan'>,
  meetings: ReadonlyMap<string, readonly Meeting[]>,
): { pattern: PatternDoc; plan: PlanDoc } {
  const joints = new Map<string, EdgeJoint>();
  const welds = new Map<string, WeldPlan | null>();
  for (const edge of pattern.edges) {
    for (const meeting of meetings.get(edge.id) ?? []) {
      const { edge: met, joint } = meeting;
      if (met && leads(edge, meeting) === 'other') {
        joints.set(edge.id, met.edge.joint);
        welds.set(edge.id, weldOf(met.piece.plan, met.edge, met.piece.thicknessMm));
      }
      if (joint.fastened !== null) welds.set(edge.id, null);
    }
  }
  if (joints.size === 0 && welds.size === 0) return { pattern, plan };
  return {
    pattern: {
      ...pattern,
      edges: pattern.edges.map((edge) => ({ ...edge, joint: joints.get(edge.id) ?? edge.joint })),
    },
    plan: {
      ...plan,
      edges: [
        ...plan.edges.filter(({ edge }) => !welds.has(edge)),
        ...[...welds].map(([edge, weld]) => ({ edge, weld })),
      ],
    },
  };
}

/** The thinner of the two sheets along an edge, mm: `ownMm` where what it meets is not known. */
export const thinnerAt = (meetings: readonly Meeting[] | undefined, ownMm: number): number =>
  Math.min(ownMm, ...(meetings ?? []).flatMap(({ thicknessMm }) => thicknessMm ?? []));

/** From this factor on two sheets want telling apart: the heat goes to the thick one. */
const UNLIKE = 2;

/**
 * Whether what an edge meets is so much thicker or thinner that the heat must be held to the thick
 * side, and which side that is; null where they are near each other, or it is not known.
 */
export function thickSide(
  meetings: readonly Meeting[] | undefined,
  ownMm: number,
): { side: 'this' | 'other'; thinMm: number; thickMm: number } | null {
  const unlike = (meetings ?? []).flatMap(({ thicknessMm: other }) => {
    if (other === null) return [];
    const [thinMm, thickMm] = [Math.min(ownMm, other), Math.max(ownMm, other)];
    const side = ownMm > other ? ('this' as const) : ('other' as const);
    return thickMm >= UNLIKE * thinMm * (1 - 1e-9) ? [{ side, thinMm, thickMm }] : [];
  });
  return unlike.sort((a, b) => b.thickMm / b.thinMm - a.thickMm / a.thinMm)[0] ?? null;
}
