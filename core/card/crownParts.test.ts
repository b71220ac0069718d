import fc from 'fast-check';
import {
  heavyParts,
  heldParts,
  namedParts,
  namingHeld,
  namingParts,
  withParts,
} from './crownParts';

const light = { kind: 'bowl', rise: 30 };
const scan = (fill: string) => ({ kind: 'scan', vertices: fill.repeat(3000) });
const map = (x: number) => ({ lines: Array.from({ length: 400 }, (_, i) => [i, x]), marks: [] });
const parts = fc.record({
  made: fc.oneof(fc.constant<unknown>(light), fc.constantFrom('A', 'B').map(scan)),
  map: fc.oneof(fc.constant<unknown>(null), fc.constantFrom(1, 2).map(map)),
});
const one = fc.oneof(
  fc.constant({ version: 1, crown: null }),
  parts.map((crown) => ({ version: 1, crown: { balance: 0.5, ...crown } })),
);
/** A card, alone or made from another. */
const cards = fc.record({
  crown: one.map(({ crown }) => crown),
  linkedFrom: fc.option(fc.record({ card: one, here: fc.option(one) })),
});
/** Stored: the card with its heavy parts named, and those by their names. */
const stored = (card: unknown) => {
  const heavy = heavyParts(card);
  const idOf = (json: string) => json.slice(0, 40);
  const ids = Object.fromEntries(heavy.map(({ place, json }) => [place, idOf(json)]));
  const kept = Object.fromEntries(heavy.map(({ json }) => [idOf(json), JSON.parse(json)]));
  return { body: namingParts(card, ids), ids, kept };
};

test('a card with its heavy parts apart is the card again with them, and light without', () => {
  fc.assert(
    fc.property(cards, (card) => {
      const { body, ids, kept } = stored(card);
      expect(JSON.stringify(body).length).toBeLessThan(4000);
      expect(namedParts(body)).toEqual(ids);
      expect(heavyParts(body)).toEqual([]);
      expect(withParts(body, kept)).toEqual(card);
      // A part that is not there stays named, and no card can be read with that.
      expect(withParts(body, {})).toEqual(body);
    }),
  );
});

test('only what is as the other side holds it is named; whatever comes of it is the card that was meant', () => {
  fc.assert(
    fc.property(cards, cards, (mine, theirs) => {
      const held = { doc: theirs, parts: stored(theirs).ids };
      const sent = namingHeld(mine, held);
      expect(withParts(sent, heldParts(held))).toEqual(mine);
      // A copy, as it comes out of the browser's store, is as good as the same object.
      expect(namingHeld(structuredClone(mine), held)).toEqual(sent);
      if (JSON.stringify(mine) === JSON.stringify(theirs))
        expect(namedParts(sent)).toEqual(held.parts);
    }),
  );
});

test('what is no card is left as it is', () => {
  for (const body of [
    null,
    3,
    'card',
    [],
    {},
    { crown: [] },
    { crown: { made: null } },
    { crown: {} },
  ]) {
    expect(heavyParts(body)).toEqual([]);
    expect(namedParts(body)).toEqual({});
    expect(namingHeld(body, { doc: null, parts: { 'crown.made': 'x' } })).toEqual(body);
    expect(withParts(body, { x: 1 })).toEqual(body);
  }
  // An object of the same key and more is not a name.
  expect(namedParts({ crown: { made: { surface: 'x', kind: 'bowl' } } })).toEqual({});
  expect(withParts({ crown: { made: { surface: 'toString' } } }, {})).toEqual({
    crown: { made: { surface: 'toString' } },
  });
});
