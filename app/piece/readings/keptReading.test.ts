import fc from 'fast-check';
import { mergedReadings } from '#core/fit/mergeReadings';
import type { EdgeRecord, KeptReading } from './keptReading';
import { disputed, disputesOf, outgoing, readOn, settled, standsOn, taken } from './keptReading';

const STATIONS = 4;
const blank: EdgeRecord = {
  edge: 'a',
  turned: false,
  own: false,
  targetMm: 1,
  toleranceMm: 0.5,
  flushMm: 0.5,
  stations: Array.from({ length: STATIONS }, (_, i) => ({
    atMm: 10 + 50 * i,
    gapMm: null,
    flushMm: null,
  })),
};
const withGap = (record: EdgeRecord, at: number, gapMm: number | null): EdgeRecord => ({
  ...record,
  stations: record.stations.map((one, i) => (i === at ? { ...one, gapMm } : one)),
});
const gaps = ({ stations }: EdgeRecord) => stations.map(({ gapMm }) => gapMm);

/** A phone that reads an edge: what it shows, and what waits on it. */
type Phone = { shows: EdgeRecord; waits: KeptReading | null };
const read = ({ shows, waits }: Phone, at: number, gapMm: number): Phone => {
  const next = withGap(shows, at, gapMm);
  const kept = readOn(waits, next, shows);
  return { shows: kept.record, waits: kept };
};
/** One sending to the server, which keeps what is not disputed. */
function send({ shows, waits }: Phone, server: EdgeRecord): [Phone, EdgeRecord] {
  const sent = waits && outgoing(waits);
  if (!sent) return [{ shows, waits }, server];
  const { merged, clashes, elsewhere } = mergedReadings(standsOn(waits), sent, server);
  if (clashes.length === 0) {
    const left = taken(waits, sent);
    return [{ shows: left?.record ?? merged, waits: left }, merged];
  }
  const kept = disputed(waits, sent, { there: merged, disputed: clashes, elsewhere, by: '' });
  return [{ shows: kept.record, waits: kept }, elsewhere ? server : merged];
}

const act = fc.oneof(
  fc.record({
    kind: fc.constant('read' as const),
    phone: fc.nat(1),
    at: fc.nat(STATIONS - 1),
    gapMm: fc.integer({ min: 1, max: 4 }),
  }),
  fc.record({ kind: fc.constant('send' as const), phone: fc.nat(1) }),
);

test('two phones read the same stations in any order: undisputed readings go in, the disputed wait, none is lost', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 20 }), fc.boolean(), (acts, mineStands) => {
      const phones: [Phone, Phone] = [
        { shows: blank, waits: null },
        { shows: blank, waits: null },
      ];
      let server = blank;
      const lastRead = [new Map<number, number>(), new Map<number, number>()];
      for (const one of acts) {
        const before = phones[one.phone]!;
        if (one.kind === 'read') {
          lastRead[one.phone]!.set(one.at, one.gapMm);
          phones[one.phone] = read(before, one.at, one.gapMm);
        } else [phones[one.phone], server] = send(before, server);
      }
      for (const k of [0, 1] as const) [phones[k], server] = send(phones[k], server);
      for (const k of [0, 1] as const) [phones[k], server] = send(phones[k], server);
      // Every station that anybody read is on the server; what a phone read last is there, or a
      // dispute says both, or the other phone has read it anew since.
      const both = [...lastRead[0]!.keys(), ...lastRead[1]!.keys()];
      for (const at of both) expect(gaps(server)[at]).not.toBeNull();
      for (const k of [0, 1] as const) {
        const waits = phones[k].waits;
        for (const { hereMm, thereMm } of waits ? disputesOf(waits) : [])
          expect(hereMm).not.toBe(thereMm);
        for (const [at, gapMm] of lastRead[k]!) {
          const told = waits && disputesOf(waits).some(({ atMm }) => atMm === 10 + 50 * at);
          if (!told) expect([gapMm, lastRead[1 - k]!.get(at)]).toContain(gaps(server)[at]);
          else expect(gaps(waits.record)[at]).toBe(gapMm);
        }
      }
      // Once decided, all is at one, and as it was decided.
      for (const k of [0, 1] as const) {
        const waits = phones[k].waits;
        if (!waits?.quarrel) continue;
        const wanted = disputesOf(waits).map(({ atMm, hereMm, thereMm }) => [
          (atMm - 10) / 50,
          mineStands ? hereMm : thereMm,
        ]);
        const left = settled(waits, null, mineStands);
        const decided: Phone = { shows: left?.record ?? waits.quarrel.there, waits: left };
        // The other phone may have read meanwhile: then it is asked once more, never overwritten.
        const stood =
          JSON.stringify(waits.quarrel.there.stations) === JSON.stringify(server.stations);
        [phones[k], server] = send(decided, server);
        if (!stood) continue;
        expect(phones[k].waits).toBeNull();
        for (const [at, gapMm] of wanted) expect(gaps(server)[at!]).toBe(gapMm);
      }
    }),
    { numRuns: 1000 },
  );
});

test('a place decided by itself leaves the others to be decided', () => {
  const mine = withGap(withGap(withGap(blank, 0, 2.5), 1, 1), 2, 4);
  const there = withGap(withGap(blank, 0, 3.5), 2, 3);
  const [phone, server] = send({ shows: mine, waits: readOn(null, mine, blank) }, there);
  expect(gaps(server)).toEqual([3.5, 1, 3, null]);
  expect(disputesOf(phone.waits!)).toMatchObject([
    { atMm: 10, hereMm: 2.5, thereMm: 3.5 },
    { atMm: 110, hereMm: 4, thereMm: 3 },
  ]);
  expect(outgoing(phone.waits!)).toBeNull();
  const decided = settled(phone.waits!, { atMm: 10, of: 'gap' }, true)!;
  expect(disputesOf(decided)).toHaveLength(1);
  const [, after] = send({ shows: decided.record, waits: decided }, server);
  expect(gaps(after)).toEqual([2.5, 1, 3, null]);
});

test('what is read on beside a dispute goes in', () => {
  const mine = withGap(blank, 0, 2.5);
  let [phone, server] = send(
    { shows: mine, waits: readOn(null, mine, blank) },
    withGap(blank, 0, 3.5),
  );
  phone = read(phone, 3, 1.5);
  [phone, server] = send(phone, server);
  expect(gaps(server)).toEqual([3.5, null, null, 1.5]);
  expect(disputesOf(phone.waits!)).toHaveLength(1);
  // Reading it once more, and the same as the other: nothing is left to decide.
  expect(read(phone, 0, 3.5).waits!.quarrel).toBeUndefined();
});
