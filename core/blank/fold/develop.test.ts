import fc from 'fast-check';
import { mirrored } from '../../card/mirror';
import type { FoldMeeting } from '../../card/pattern';
import { radians } from '../../measure/angle';
import { box, polygonArea } from '../../measure/path';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { add, along, distance, dot, scale, sub } from '../../measure/vector';
import { cardOf, cardTree, developed, given } from './cardTree.arbitrary';
import { develop } from './develop';
import type { PlainCard } from './plain';
import type { Vec3 } from './refold';
import { bendSkin, foldedFrames, placed } from './refold';

const refusal = (plain: PlainCard) => {
  const { doc, sheet, practice } = given(plain);
  const found = develop(doc, sheet, practice);
  return found.ok ? 'ok' : found.problems[0]!.code;
};

const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

describe('any tree of folds, any angles, any of the four ways a card is made', () => {
  test('refolded in space, the card’s dimensions come back on the face it was measured on', () => {
    fc.assert(
      fc.property(cardTree, (t) => {
        const card = cardOf(t);
        const d = developed(card);
        const frames = foldedFrames(d);
        for (const [i, fold] of d.folds.entries()) {
          const { radiusMm: r, thicknessMm: thick, angleDeg } = fold.bend;
          const outside = fold.convention.startsWith('outside');
          // The back is the outside of a bend toward the face.
          const height = outside === (fold.toward === 'face') ? -thick : 0;
          const parent = frames[fold.parent]!;
          const child = frames[fold.child]!;
          const mark = card.folds![i]!.from as Vec;
          const legs = [
            {
              frame: child,
              face: fold.child,
              way: 1 as const,
              other: parent,
              otherFace: fold.parent,
            },
            {
              frame: parent,
              face: fold.parent,
              way: -1 as const,
              other: child,
              otherFace: fold.child,
            },
          ];
          for (const leg of legs) {
            const onCard = 17.5;
            const cardPoint = along(mark, fold.across, leg.way * onCard);
            const blankPoint = add(cardPoint, d.faces[leg.face]!.placement.shift);
            const inSpace = placed(leg.frame, blankPoint, height);
            const tangent = fold.tangents[leg.way === 1 ? 1 : 0][0];
            const flatPart = leg.way * dot(sub(blankPoint, tangent), fold.across);
            let measured: number;
            if (fold.convention.endsWith('rolled')) {
              measured = flatPart + (radians(angleDeg) / 2) * (r + (outside ? thick : 0));
            } else if (angleDeg > 90) {
              // To the plane that touches the bend, square to this leg: the bend's axis less its
              // radius.
              const up = fold.toward === 'face' ? r : -thick - r;
              const axis = placed(leg.other, fold.tangents[leg.way === 1 ? 0 : 1][0], up);
              const [nx, ny] = scale(fold.across, leg.way);
              const direction = minus(placed(leg.frame, [nx, ny], 0), placed(leg.frame, [0, 0], 0));
              measured = dot3(minus(inSpace, axis), direction) + r + (outside ? thick : 0);
            } else {
              // Along the leg to the line where the two faces, carried on, meet in a sharp corner.
              const onOther = placed(
                leg.other,
                add(mark, d.faces[leg.otherFace]!.placement.shift),
                height,
              );
              measured =
                Math.abs(dot3(minus(inSpace, onOther), leg.other.z)) / Math.sin(radians(angleDeg));
            }
            expect(Math.abs(measured - onCard)).toBeLessThan(1e-6);
          }
        }
      }),
      { numRuns: 120 },
    );
  });

  test('the area of the blank is faces, bend zones and allowances; it is one closed outline', () => {
    fc.assert(
      fc.property(cardTree, (t) => {
        const d = developed({ ...cardOf(t), relief: 'none' });
        const zones = d.folds.reduce((sum, { tangents: [near, far] }) => {
          return sum + Math.abs(polygonArea([near[0], near[1], far[1], far[0]]));
        }, 0);
        expect(d.size.parts.zonesMm2).toBeCloseTo(zones, 6);
        expect(d.size.areaMm2).toBeCloseTo(d.size.parts.facesMm2 + zones, 6);
        d.outline.forEach((p, i) => {
          expect(
            distance(p.segment.b, d.outline[(i + 1) % d.outline.length]!.segment.a),
          ).toBeLessThan(1e-9);
        });
      }),
      { numRuns: 60 },
    );
  });

  test('the order in which folds are listed makes no difference', () => {
    fc.assert(
      fc.property(cardTree, fc.func(fc.integer()), (t, key) => {
        const card = cardOf(t);
        const shuffled = [...card.folds!]
          .map((f, i) => ({ f, k: key(i) }))
          .sort((a, b) => a.k - b.k);
        const one = developed(card);
        const other = developed({ ...card, folds: shuffled.map(({ f }) => f) });
        expect(other.size.areaMm2).toBeCloseTo(one.size.areaMm2, 6);
        expect(other.outline.length).toBe(one.outline.length);
        for (const p of one.outline) {
          const near = Math.min(...other.outline.map((q) => distance(q.segment.a, p.segment.a)));
          expect(near).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('a mirrored card gives the mirrored blank', () => {
    fc.assert(
      fc.property(cardTree, (t) => {
        const { doc, sheet, practice } = given(cardOf(t));
        const one = develop(doc, sheet, practice);
        const other = develop(mirrored(doc), sheet, practice);
        if (!one.ok || !other.ok) throw new Error('a good card was refused');
        expect(other.development.size.areaMm2).toBeCloseTo(one.development.size.areaMm2, 5);
        const xs = doc.corners.map((c) => c.x);
        const flip = Math.min(...xs) + Math.max(...xs);
        const ends = other.development.outline.map((p) => p.segment.a);
        for (const p of one.development.outline) {
          const [x, y] = p.segment.a;
          expect(Math.min(...ends.map((e) => distance(e, [flip - x, y])))).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 60 },
    );
  });

  test('with no radius and the neutral line on the inside, the blank is the card measured inside', () => {
    fc.assert(
      fc.property(cardTree, (t) => {
        const card = cardOf(t);
        const folds = card.folds!.map((f) => ({
          ...f,
          radiusMm: 0,
          convention: 'inside-sharp' as const,
        }));
        // Walls that meet are left as the card has them: their corners have checks of their own.
        const plain = given({ ...card, folds, rule: { kind: 'k', k: 0 }, relief: 'none' });
        const meetings = plain.doc.folds.flatMap(({ id: first }, i) =>
          plain.doc.folds.slice(i + 1).map(({ id: second }): FoldMeeting => ({
            folds: [first, second],
            kind: 'as-drawn',
            over: null,
            gapMm: 0,
          })),
        );
        const found = develop(
          { ...plain.doc, meetings: meetings.slice(0, 400) },
          plain.sheet,
          plain.practice,
        );
        if (!found.ok) throw new Error('refused');
        const d = found.development;
        expect(d.size.areaMm2).toBeCloseTo(Math.abs(polygonArea(card.outline as Vec[])), 6);
        expect(d.size.differenceMm).toBeLessThan(1e-9);
      }),
      { numRuns: 60 },
    );
  });

  test('half folded, every bend still joins the faces it lies between', () => {
    fc.assert(
      fc.property(cardTree, spread(0, 1), (t, share) => {
        const d = developed(cardOf(t));
        const angles = d.folds.map((fold) => fold.bend.angleDeg * share);
        const frames = foldedFrames(d, angles);
        for (const [i, fold] of d.folds.entries()) {
          const skin = bendSkin(fold, frames[fold.parent]!, angles[i]!, 4);
          for (const end of [0, 1] as const) {
            const near = placed(frames[fold.parent]!, fold.tangents[0][end], 0);
            const far = placed(frames[fold.child]!, fold.tangents[1][end], -fold.bend.thicknessMm);
            expect(Math.hypot(...minus(skin.face[0]![end], near))).toBeLessThan(1e-6);
            expect(Math.hypot(...minus(skin.back[4]![end], far))).toBeLessThan(1e-6);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
});

const strip = (folds: PlainCard['folds'], more: Partial<PlainCard> = {}): PlainCard => ({
  thicknessMm: 2,
  rule: { kind: 'din6935' },
  outline: [
    [0, 0],
    [60, 0],
    [60, 30],
    [0, 30],
  ],
  folds,
  base: [5, 5],
  ...more,
});
const across = (x: number, more: object = {}) => ({
  from: [x, 0] as [number, number],
  to: [x, 30] as [number, number],
  angleDeg: 90,
  radiusMm: 4,
  ...more,
});

test('table-book example: 25 / 20 / 15, T 2, R 4 → a flat of 51', () => {
  const d = developed(strip([across(25), across(45)]));
  expect(Math.round(d.size.widthMm)).toBe(51);
  expect(d.size.heightMm).toBeCloseTo(30, 9);
  expect(d.folds[0]!.tangents[0][0][0]).toBeCloseTo(25 - 6, 9);
});

test('FAA channel 1.00 / 2.00 / 1.25 in, T .040, R .16: flats of .80, 1.60 and 1.05 between the bends', () => {
  const inch = (n: number) => n * 25.4;
  const at = (x: number) => across(inch(x), { radiusMm: inch(0.16) });
  const d = developed({
    ...strip([at(1), at(3)], { thicknessMm: inch(0.04), rule: { kind: 'faa' } }),
    outline: [
      [0, 0],
      [inch(4.25), 0],
      [inch(4.25), 30],
      [0, 30],
    ],
  });
  const flats = d.faces.map((face) => {
    const b = box(face.pieces.map((p) => p.segment));
    return (b.maxX - b.minX) / 25.4;
  });
  const inOrder = [d.folds[0]!.parent, d.folds[0]!.child, d.folds[1]!.child].map(
    (face) => flats[face]!,
  );
  expect(inOrder).toEqual([0.8, 1.6, 1.05].map((flat) => expect.closeTo(flat, 9)));
});

describe('corners and joints', () => {
  // A tray: 100 × 60 inside the folds, 20 mm walls, folds meeting at every corner.
  const tray = (relief: 'round' | 'square' | 'none'): PlainCard => ({
    thicknessMm: 1,
    rule: { kind: 'din6935' },
    relief,
    outline: [
      [0, 0],
      [0, -20],
      [100, -20],
      [100, 0],
      [120, 0],
      [120, 60],
      [100, 60],
      [100, 80],
      [0, 80],
      [0, 60],
      [-20, 60],
      [-20, 0],
    ],
    folds: [
      { from: [0, 0], to: [100, 0], angleDeg: 90, radiusMm: 1 },
      { from: [100, 0], to: [100, 60], angleDeg: 90, radiusMm: 1 },
      { from: [100, 60], to: [0, 60], angleDeg: 90, radiusMm: 1 },
      { from: [0, 60], to: [0, 0], angleDeg: 90, radiusMm: 1 },
    ],
  });

  test('a tray loses one deduction at each wall, whatever its reliefs', () => {
    for (const relief of ['round', 'square', 'none'] as const) {
      const d = developed(tray(relief));
      const deduction = d.folds[0]!.allowance.deductionMm;
      expect([d.size.widthMm, d.size.heightMm]).toEqual(
        [140 - 2 * deduction, 100 - 2 * deduction].map((v) => expect.closeTo(v, 9)),
      );
      expect(d.warnings).toEqual([]);
    }
  });

  test('a relief reaches one thickness beyond both tangents and takes metal off', () => {
    const plain = developed(tray('none'));
    for (const relief of ['round', 'square'] as const) {
      const d = developed(tray(relief));
      expect(d.size.areaMm2).toBeLessThan(plain.size.areaMm2);
      const path = d.outline.filter((p) => p.kind === 'relief').map((p) => p.segment);
      // Outside setback R + T = 2 inside the card's corner at 0, 0: the tangents meet at 2, 2.
      const reach = box(path.filter((s) => s.a[0] < 10 && s.a[1] < 10));
      expect(reach.maxX).toBeGreaterThanOrEqual(3 - 1e-9);
      expect(reach.maxY).toBeGreaterThanOrEqual(3 - 1e-9);
    }
  });

  test('a tab narrower than its base gets a slot on either side, as wide as the sheet and past the tangent', () => {
    const d = developed({
      thicknessMm: 1,
      rule: { kind: 'k', k: 0.4 },
      relief: 'square',
      outline: [
        [0, 0],
        [100, 0],
        [100, 40],
        [70, 40],
        [70, 60],
        [30, 60],
        [30, 40],
        [0, 40],
      ],
      folds: [{ from: [70, 40], to: [30, 40], angleDeg: 90, radiusMm: 2 }],
    });
    const slots = d.outline.filter((p) => p.kind === 'relief').map((p) => p.segment);
    const reach = box(slots);
    expect(reach.minX).toBeCloseTo(29, 9);
    expect(reach.maxX).toBeCloseTo(71, 9);
    expect(reach.minY).toBeCloseTo(40 - 3 - 1, 9);
    expect(d.size.parts.jointsMm2).toBeCloseTo(-2 * 1 * (3 + 1), 9);
    expect(d.warnings).toEqual([]);
  });

  test('a fold beside a notch takes only what lies beside it: the metal beyond the notch stays', () => {
    // A corner turned up across, its fold ending 8 mm short of a notch; the rim leaves the fold at
    // a flat angle there.
    const outline: [number, number][] = [
      [0, 0],
      [120, 0],
      [120, 30],
      [80, 30],
      [80, 60],
      [120, 60],
      [120, 90],
      [0, 90],
    ];
    const d = developed({
      thicknessMm: 2,
      rule: { kind: 'din6935' },
      relief: 'none',
      outline,
      folds: [{ from: [88, 60], to: [120, 73.3], angleDeg: 90, radiusMm: 2 }],
      base: [30, 30],
    });
    const card = Math.abs(polygonArea(outline));
    // What a fold can take: its deduction over its own length, no more.
    expect(card - d.size.areaMm2).toBeGreaterThan(0);
    expect(card - d.size.areaMm2).toBeLessThan(d.folds[0]!.allowance.deductionMm * 36);
    expect(d.net.filter((piece) => piece.kind === 'slit')).toHaveLength(1);
  });

  test('a lap adds its width square to the edge and is mitred into its neighbours', () => {
    const { doc, sheet, practice } = given(strip([]));
    doc.edges[0]!.joint = { kind: 'lap', widthMm: 12 };
    doc.edges[1]!.joint = { kind: 'lap', widthMm: 12 };
    const found = develop(doc, sheet, practice);
    expect(found.ok && found.development.size.areaMm2).toBeCloseTo(72 * 42, 9);
  });

  test('a hem takes its width less a closed bend; its ends are square where nothing is in the way', () => {
    const { doc, sheet, practice } = given(
      strip([], { rule: { kind: 'machinery', temper: 'half' } }),
    );
    doc.edges[0]!.joint = { kind: 'hem', widthMm: 10, gapMm: 0 };
    const found = develop(doc, sheet, practice);
    if (!found.ok) throw new Error('refused');
    // Width less 2(R+T), plus a closed bend of length 2·c·T at R 0.
    const add = 10 - 2 * 2 + 2 * 0.64 * 2;
    expect(found.development.size.heightMm).toBeCloseTo(30 + add, 9);
    expect(found.development.size.parts.jointsMm2).toBeCloseTo(60 * add, 9);
  });
});

test('what has no blank is refused with its reason', () => {
  expect(refusal(strip([across(57)]))).toBe('flange-shorter-than-setback');
  expect(refusal(strip([across(25), across(27)]))).toMatch(
    /flange-shorter-than-setback|folds-too-close/,
  );
  expect(refusal(strip([across(25), { ...across(25), from: [20, 0], to: [30, 30] }]))).toBe(
    'folds-cross',
  );
  expect(refusal(strip([across(25, { angleDeg: 0 })]))).toBe('angle-out-of-range');
  expect(
    refusal(
      strip([], {
        outline: [
          [0, 0],
          [60, 30],
          [60, 0],
          [0, 30],
        ],
      }),
    ),
  ).toBe('outline-crosses');
});

test('what wants care is said with its figures', () => {
  const d = developed(
    strip([across(25)], {
      holes: [
        { at: [35, 15], diameterMm: 6 },
        { at: [24, 8], diameterMm: 4 },
      ],
    }),
  );
  expect(d.warnings.map((w) => w.code)).toEqual(['hole-near-fold', 'hole-in-bend']);
  // Hole edge at 7 mm from the mark, tangent at 6: 1 mm clear where 2.5·2 + 4 = 9 is wanted.
  expect(d.warnings[0]!.numbers).toEqual({ clearMm: expect.closeTo(1, 9), neededMm: 9 });
});
