import fc from 'fast-check';
import { awkwardCard } from '../blank/fold/awkward.arbitrary';
import { develop } from '../blank/fold/develop';
import { DEFAULT_SHOP } from '../blank/fold/practice';
import { metalById } from '../metal/metals';
import type { Shop } from '../blank/shopSchema';
import { brokenIn, shapeOrder } from './shapeOrder';
import { inOwnOrder, madeAgain, noWork, workedSeconds } from './shaping';
import { biteLearnt, bitesOver } from './biteStrips';

const metal = metalById('dc04');
const stepsOf = (
  card: typeof awkwardCard extends fc.Arbitrary<infer T> ? T : never,
  shop: Shop = DEFAULT_SHOP,
) => {
  const { doc, sheet, practice } = card;
  const found = develop(doc, { ...sheet, forming: undefined }, practice);
  if (!found.ok) return null;
  const { development } = found;
  return shapeOrder({
    pattern: doc,
    development,
    metal,
    thicknessMm: sheet.thicknessMm,
    shop,
    foldOrder: [],
    turnedAfter: [],
    gaps: [],
  });
};

test('the order of any card keeps every rule, names every step once, and does every bead, fold and flange', () => {
  let many = 0;
  fc.assert(
    fc.property(awkwardCard, (card) => {
      const steps = stepsOf(card);
      if (!steps) return;
      if (steps.length > 6) many++;
      expect(brokenIn(steps)).toEqual([]);
      const keys = steps.map(({ key }) => key);
      expect(new Set(keys).size).toBe(keys.length);
      const done = new Set(steps.flatMap(({ about }) => about));
      for (const { id } of card.doc.folds) expect(done).toContain(id);
      for (const { id, flange } of card.doc.edges) if (flange) expect(done).toContain(id);
    }),
    { numRuns: 300 },
  );
  expect(many).toBeGreaterThan(40);
});

test('a step moved before what it needs breaks a rule, and the rule names both', () => {
  fc.assert(
    fc.property(awkwardCard, fc.nat(1000), fc.nat(1000), (card, from, to) => {
      const steps = stepsOf(card);
      if (!steps || steps.length < 2) return;
      const moved = [...steps];
      const [one] = moved.splice(from % steps.length, 1);
      moved.splice(to % steps.length, 0, one!);
      const place = (key: string) => moved.findIndex((step) => step.key === key);
      for (const { rule, first, then } of brokenIn(moved)) {
        expect(place(then)).toBeLessThan(place(first));
        expect(rule.first).toContain(moved[place(first)]!.what);
        expect(rule.then).toContain(moved[place(then)]!.what);
      }
      // Moved back, nothing is broken.
      expect(brokenIn(inOwnOrder(moved, { steps: steps.map(({ key }) => key) }))).toEqual([]);
    }),
    { numRuns: 150 },
  );
});

test('what was tried once counts and is still asked for; tried twice it is proven', () => {
  const bites = [-1, 1].map((sign) => ({
    metal: 'dc04' as const,
    thicknessMm: 1,
    tool: null,
    piece: null,
    at: '',
    widthMm: 25,
    lengthMm: 100,
    bites: 10,
    afterMm: 100 * (1 + sign * 0.04),
    uMm: 0.5,
  }));
  const once = { ...DEFAULT_SHOP, bites };
  const learnt = { ...DEFAULT_SHOP, bites: [...bites, ...bites] };
  fc.assert(
    fc.property(awkwardCard, (card) => {
      const thin = { ...card, sheet: { ...card.sheet, thicknessMm: 1 } };
      const [before, after] = [stepsOf(thin), stepsOf(thin, learnt)];
      if (!before || !after) return;
      expect(after.filter(({ what }) => what === 'test-strip')).toEqual([]);
      const strips = (steps: typeof before) => steps.filter(({ what }) => what === 'test-strip');
      expect(strips(stepsOf(thin, once)!)).toEqual(strips(before));
      for (const step of after.filter(({ what }) => what === 'strain')) {
        expect(before.map(({ key }) => key)).toContain(step.key);
        // One bite after the other they bring the change about, to a bite.
        const one = biteLearnt(learnt, metal, 1, step.figures.strain! > 0 ? 'stretch' : 'shrink')!;
        const made =
          step.figures.freeMm! *
          Math.expm1((step.counts!.wanted! * one.perBiteMm) / step.figures.freeMm!);
        // A bite of an edge that is longer by then does more in proportion.
        const longest = Math.max(Math.abs(step.figures.changeMm!), Math.abs(made));
        const bite = Math.abs(one.perBiteMm) * (1 + longest / step.figures.freeMm!);
        expect(Math.abs(made - step.figures.changeMm!)).toBeLessThan(bite + 1e-9);
      }
    }),
    { numRuns: 150 },
  );
  expect(
    bitesOver(0.1, 100, { perBiteMm: (Math.log(1.04) * 100) / 10, uMm: 0.1, strips: 1, tools: [] })
      .bites,
  ).toBe(24);
});

test('an order of one’s own goes on where new steps come in, and loses none', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.string({ minLength: 1, maxLength: 4 }), { maxLength: 12 }),
      fc.array(fc.nat(12)),
      (keys, picked) => {
        const steps = keys.map((key) => ({ key }));
        const order = {
          steps: [...new Set(picked.map((i) => keys[i % Math.max(1, keys.length)] ?? 'gone'))],
        };
        const found = inOwnOrder(steps, order).map(({ key }) => key);
        expect([...found].sort()).toEqual([...keys].sort());
        expect(found.filter((key) => order.steps.includes(key))).toEqual(
          order.steps.filter((key) => keys.includes(key)),
        );
      },
    ),
  );
});

test('the watch runs on while nobody looks; made again, the first count stays', () => {
  const at = Date.parse('2026-11-26T10:00:00.000Z');
  const running = { ...noWork(), count: 7, seconds: 30, since: '2026-11-26T09:59:00.000Z' };
  expect(workedSeconds(running, at)).toBe(90);
  expect(workedSeconds({ ...running, since: '2026-11-26T10:05:00.000Z' }, at)).toBe(30);
  const again = madeAgain(running, '2026-11-26T10:00:00.000Z');
  expect(again).toMatchObject({
    count: 0,
    seconds: 0,
    since: null,
    before: [{ count: 7, seconds: 90 }],
  });
});
