import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import { outlineFromPoints } from '#core/card/legs';
import { patternParts, spotNearest } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { Vec } from '#core/measure/vector';

/** A long card with wavy long edges: `folds` folds across it, `corners` corners in all. */
export function foldedStrip(folds: number, corners: number): PatternDoc {
  const half = corners / 2;
  const pitch = 10;
  const wave = (i: number) => 2.5 * Math.sin(i * 0.9);
  const lower = Array.from({ length: half }, (_, i): Vec => [i * pitch, wave(i)]);
  const upper = Array.from({ length: half }, (_, i): Vec => [
    (half - 1 - i) * pitch,
    120 + wave(i * 1.7),
  ]);
  const built = outlineFromPoints([...lower, ...upper]);
  if (!built.ok) throw new Error('the bench card has no outline');
  const doc: PatternDoc = { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
  const at = (p: Vec) => {
    const { side, at: share } = spotNearest(doc, p)!.spot;
    return { side, share };
  };
  const length = (half - 1) * pitch;
  for (let i = 1; i <= folds; i++) {
    const x = (length * i) / (folds + 1) + 1.3;
    doc.folds.push({
      id: `f${i}`,
      path: { kind: 'between', from: at([x, 0]), to: at([x, 120]) },
      angleDeg: 30 + (i % 4) * 15,
      toward: i % 2 === 0 ? 'face' : 'back',
      radiusMm: null,
      convention: 'outside-sharp',
    });
  }
  return doc;
}
