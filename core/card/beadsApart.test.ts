import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { beadsApart } from './beadsApart';
import type { Bead } from './pattern';

const section: fc.Arbitrary<Bead['section']> = fc.oneof(
  fc.record({ kind: fc.constant('arc' as const), widthMm: spread(6, 20), heightMm: spread(1, 3) }),
  fc.record({ kind: fc.constant('v' as const), widthMm: spread(6, 20), heightMm: spread(1, 3) }),
  fc.record({
    kind: fc.constant('step' as const),
    depthMm: spread(1, 3),
    radiusMm: fc.constant(null),
  }),
);
const path: fc.Arbitrary<Bead['path']> = fc.oneof(
  fc.record({
    kind: fc.constant('along' as const),
    edge: fc.constantFrom('a', 'b'),
    inMm: spread(5, 60),
    startMm: spread(0, 20),
    endMm: spread(0, 20),
  }),
  fc.constant({ kind: 'line', from: [0, 0], to: [100, 0] } as unknown as Bead['path']),
);
const beads = fc
  .record({ section, path, toward: fc.constantFrom('face' as const, 'back' as const) })
  .map((one): Bead => ({
    id: 'b',
    ...one,
    drawsIn: null,
    acrossRadiusMm: null,
    acrossOn: null,
    atFolds: null,
    meets: null,
  }));

test('two beads differ by as much as the other way round, and a bead not from itself, wherever it begins and ends', () => {
  fc.assert(
    fc.property(beads, beads, spread(0, 30), (one, other, startMm) => {
      const moved = {
        ...one,
        id: 'c',
        path: one.path.kind === 'along' ? { ...one.path, edge: 'z', startMm } : one.path,
      } as Bead;
      expect(beadsApart(one, moved)).toBeNull();
      const [there, back] = [beadsApart(one, other), beadsApart(other, one)];
      expect(there === null).toBe(back === null);
      if (!there || !back) return;
      expect([there.kind, there.toward]).toEqual([back.kind, back.toward]);
      for (const name of ['widthMm', 'heightMm', 'inMm'] as const)
        if (there[name] === null) expect(back[name]).toBeNull();
        else expect(there[name]!).toBeCloseTo(-back[name]!, 12);
      expect(there.inMm === null).toBe(one.path.kind !== 'along' || other.path.kind !== 'along');
    }),
  );
});

test('a twentieth of a millimetre is none; what is more is told by how much', () => {
  fc.assert(
    fc.property(beads, spread(-3, 3), (one, by) => {
      const { path } = one;
      if (path.kind !== 'along' || Math.abs(Math.abs(by) - 0.05) < 1e-6) return;
      const found = beadsApart({ ...one, path: { ...path, inMm: path.inMm + by } }, one);
      if (Math.abs(by) < 0.05) expect(found).toBeNull();
      else {
        expect(found).toMatchObject({ kind: false, toward: false, widthMm: 0, heightMm: 0 });
        expect(found!.inMm).toBeCloseTo(by, 9);
      }
    }),
  );
});
