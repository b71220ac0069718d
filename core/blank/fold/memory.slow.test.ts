import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { countingIds } from '../../card/kinds';
import { cardOfShape, shaped } from '../../card/shape/figures';
import { metalById } from '../../metal/metals';
import { develop } from './develop';
import { DEFAULT_SHOP, sheetMetal } from './practice';

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;

/** What is held after all that can be let go was, MB. */
const heldMb = (): number => {
  collect();
  return process.memoryUsage().heapUsed / 2 ** 20;
};

test('a thousand cards are developed and let go: what is remembered of them does not add up', () => {
  const sheet = sheetMetal(metalById('dc04'), 1, DEFAULT_SHOP);
  const developSome = (from: number, count: number) => {
    for (let i = from; i < from + count; i++) {
      const made = shaped('hat', { longMm: 200 + i, topMm: 40 + (i % 30) });
      if (!made.ok) throw new Error(made.problems[0]!.code);
      const found = develop(cardOfShape(made, countingIds('s')), sheet, DEFAULT_SHOP);
      expect(found.ok).toBe(true);
    }
  };
  developSome(0, 100);
  const before = heldMb();
  developSome(100, 1000);
  // A developed card is about 50 kB: kept, they would be 50 MB.
  expect(heldMb() - before).toBeLessThan(5);
});
