import fc from 'fast-check';
import { cardFromLengths } from '../card/fromLengths';
import { countingIds } from '../card/kinds';
import { mirrored } from '../card/mirror';
import type { Joint as EdgeJoint } from '../card/pattern';
import { emptyPlan } from '../weld/emptyPlan';
import { weldOf } from '../weld/planned';
import { acrossOf } from './across';
import { differsAt } from './differs';
import { structureOfWords } from './fromWords';
import { holesAt } from './holes';
import { isClosed } from './hollow';
import { newJoint } from './joint';
import type { Beyond } from './meetings';
import { joinedAs, meetingsOf, placeHere, thickSide } from './meetings';
import type { Joint, Structured } from './structure';

const BUTT: EdgeJoint = { kind: 'butt', trimMm: 0 };
const LAP: EdgeJoint = { kind: 'lap', widthMm: 14 };
const FREE: EdgeJoint = { kind: 'free', trimMm: 0 };

/** A piece of four named edges e1…e4, the first as long and joined as is said. */
function pieceOf(id: string, lengthMm: number, joint: EdgeJoint, thicknessMm = 1): Beyond {
  const made = cardFromLengths(
    [lengthMm, 300, lengthMm, 300].map((length, i) => ({
      ...{ id: `e${i + 1}`, letter: 'ABCD'[i]!, lengthMm: length },
      joint: i === 0 ? joint : FREE,
    })),
    countingIds(),
  );
  if (!made.ok) throw new Error('no card');
  const facts = { name: id, metal: 'dc04' as const, thicknessMm, archived: false };
  return { id, ...facts, pattern: made.doc, plan: emptyPlan() };
}

const edgeOf = ({ pattern }: Pick<Beyond, 'pattern'>) =>
  pattern.edges.find(({ id }) => id === 'e1')!;

const end = (piece: string, stretch: { fromMm: number; toMm: number } | null = null) => ({
  ...{ piece, edge: 'e1', turned: false },
  stretch,
});
const jointOf = (change: Partial<Joint> = {}): Structured<Joint> => ({
  id: 'j',
  ...newJoint(end('one'), end('two')),
  ...change,
});
/** The one joint, seen from either of its pieces. */
function bothSides(one: Beyond, two: Beyond, joint: Structured<Joint>) {
  const here = meetingsOf(one, [joint], [two]).get('e1')![0]!;
  const there = meetingsOf(two, [joint], [one]).get('e1')![0]!;
  return [here, there] as const;
}

const lengthMm = fc.integer({ min: 60, max: 2000 });
const stretch = fc.option(
  fc
    .tuple(fc.integer({ min: 0, max: 20 }), fc.integer({ min: 25, max: 55 }))
    .map(([fromMm, toMm]) => ({ fromMm, toMm })),
);

test('a place told across a joint and back is where it was, whichever card is turned over since', () => {
  fc.assert(
    fc.property(
      fc.tuple(lengthMm, lengthMm, stretch, stretch, fc.boolean(), fc.boolean(), fc.boolean()),
      fc.double({ min: 0, max: 1, noNaN: true }),
      ([a, b, here, there, sameWay, turnOne, turnTwo], share) => {
        const turn = (piece: Beyond, turned: boolean) =>
          turned ? { ...piece, pattern: mirrored(piece.pattern) } : piece;
        const one = turn(pieceOf('one', a, BUTT), turnOne);
        const two = turn(pieceOf('two', b, FREE), turnTwo);
        const joint = jointOf({ first: end('one', here), second: end('two', there), sameWay });
        const [from, to] = bothSides(one, two, joint);
        const { fromMm, toMm } = from.span;
        const at = fromMm + share * (toMm - fromMm);
        const across = placeHere(to, at)!;
        expect(placeHere(from, across)).toBeCloseTo(at, 6);
        // Both ends of what meets are ends at the other side too.
        const ends = [placeHere(to, fromMm)!, placeHere(to, toMm)!].sort((x, y) => x - y);
        const span = [to.span.fromMm, to.span.toMm].sort((x, y) => x - y);
        expect(ends[0]).toBeCloseTo(span[0]!, 6);
        expect(ends[1]).toBeCloseTo(span[1]!, 6);
      },
    ),
  );
});

test('whichever end asks for the joint, both are joined and welded alike, and who lies over is one and the same', () => {
  const joints = fc.constantFrom(BUTT, LAP, FREE);
  const whose = fc.constantFrom('first' as const, 'second' as const, null);
  fc.assert(
    fc.property(joints, joints, whose, lengthMm, (first, second, over, length) => {
      const [one, two] = [pieceOf('one', length, first, 2), pieceOf('two', length, second)];
      const joint = jointOf({ over });
      const [here, there] = bothSides(one, two, joint);
      const as = (own: Beyond, other: Beyond) => {
        const { pattern, plan } = joinedAs(own, meetingsOf(own, [joint], [other]));
        const edge = edgeOf({ pattern });
        return { kind: edge.joint.kind, weld: weldOf(plan, edge, own.thicknessMm) };
      };
      // A copied card has the same ids for its edges: here both are e1.
      expect(as(one, two)).toEqual(as(two, one));
      expect(as(one, two).kind).toBe(first.kind === 'free' ? second.kind : first.kind);
      const told = [here.over, there.over];
      expect(told).toEqual(
        over === null ? [null, null] : over === 'first' ? ['this', 'other'] : ['other', 'this'],
      );
      // Of the holes of an overlap one sheet has them, and never both.
      if (first.kind === 'lap' || (first.kind === 'free' && second.kind === 'lap')) {
        const holes = [holesAt(edgeOf(one), [here]), holesAt(edgeOf(two), [there])];
        expect(holes.filter((at) => at !== 'beyond')).toHaveLength(1);
      }
    }),
  );
});

test('what was read and welded beyond is at its places here: a gap at a quarter is one at three quarters', () => {
  const [one, two] = [pieceOf('one', 400, BUTT), pieceOf('two', 400, FREE)];
  const [here] = bothSides(one, two, jointOf());
  const read = { edge: 'e1', turned: false, stations: [{ atMm: 100, gapMm: 1.4, flushMm: 0.3 }] };
  const tacks = { revision: 1, placesMm: [10, 100], turned: false };
  const records = {
    fits: [{ at: '2026-11-01T00:00:00.000Z', revision: 1, withdrawn: null, edges: [read] }],
    welds: [
      { edge: 'e1', work: 'tacks', from: 1, to: 2, made: tacks, withdrawn: null },
      {
        edge: 'e1',
        work: 'seam',
        from: null,
        to: null,
        made: null,
        withdrawn: { at: '', why: '' },
      },
      { edge: 'e2', work: 'seam', from: null, to: null, made: null, withdrawn: null },
    ],
    inspections: [{ edge: 'e1', withdrawn: null }],
  };
  const found = acrossOf(here, records, { edge: 'e1', lengthMm: 400, turned: false });
  expect(found.fit?.edge.stations).toEqual([{ atMm: 300, gapMm: 1.4, flushMm: -0.3 }]);
  expect(found.welds).toHaveLength(1);
  expect(found.welds[0]!.made!.placesMm).toEqual([390, 300]);
  expect(found.inspections).toHaveLength(1);
});

test('unlike sheets, lengths, metals and water are told, and nothing where all is well', () => {
  const [one, two] = [pieceOf('one', 400, LAP, 0.9), pieceOf('two', 400, FREE, 1)];
  const codes = (a: Beyond, b: Beyond, change: Partial<Joint>) =>
    differsAt(edgeOf(a), bothSides(a, b, jointOf(change))[0], a.metal).map(({ code }) => code);
  expect(codes(one, two, { over: 'first', stepped: 'second', waterFrom: 'first' })).toEqual([]);
  expect(codes(one, two, {})).toEqual(['over-unsaid']);
  expect(codes(one, two, { over: 'first', stepped: 'first', waterFrom: 'second' })).toEqual([
    'step-on-top',
    'water-into-lap',
  ]);
  expect(codes(one, pieceOf('two', 430, LAP), { over: 'first' })).toEqual([
    'both-overlap',
    'lengths',
  ]);
  expect(codes(one, { ...two, metal: 'al3003h14' }, { over: 'first' })).toEqual(['metals']);
  const [thin] = bothSides(one, pieceOf('two', 400, FREE, 2), jointOf());
  expect(thickSide([thin], 0.9)).toEqual({ side: 'other', thinMm: 0.9, thickMm: 2 });
  expect(thickSide([thin], 1.2)).toBeNull();
});

test('words of older plans become one part each; a hollow is closed when all that closes it is made', () => {
  const found = structureOfWords(
    [
      [{ edge: 'a', word: 'Sill ' }],
      [
        { edge: 'b', word: 'Sill' },
        { edge: 'c', word: '' },
      ],
    ],
    '2026-11-01T00:00:00.000Z',
  );
  expect(found.map(({ id }) => id)).toEqual(['part1', 'joint1', 'joint2']);
  const hollow = {
    ...{ kind: 'hollow' as const, name: 'Sill', notes: '', putAway: false },
    bounds: [{ piece: 'one' }, { piece: 'two' }],
  };
  expect(isClosed(hollow, [jointOf()], new Set())).toBe(false);
  expect(isClosed(hollow, [jointOf()], new Set(['j']))).toBe(true);
  expect(isClosed(hollow, [], new Set())).toBeNull();
});
