import fc from 'fast-check';
import { outlineFromPoints } from '#core/card/legs';
import { spread } from '#core/measure/spread.arbitrary';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import type { View } from './Drawing';
import { hangTags, tagHalfWidth } from './tags';

const view: View = { scale: 1, px: ([x, y]) => [450 + x, 320 - y], width: 900, height: 640 };
const outline = fc
  .array(spread(60, 190), { minLength: 4, maxLength: 14 })
  .map((radii) =>
    radii.map((r, i): Vec => {
      const a = (2 * Math.PI * i) / radii.length;
      return [r * Math.cos(a), r * Math.sin(a)];
    }),
  )
  .map((corners) => {
    const built = outlineFromPoints(corners);
    if (!built.ok) throw new Error('no outline');
    return built.path;
  });

test('tags hang from the middle of their edges, on the screen, and hardly ever on each other', () => {
  let pairs = 0;
  let overlaps = 0;
  fc.assert(
    fc.property(outline, (path) => {
      const halfWidth = tagHalfWidth('A', '123.4');
      const tags = hangTags(
        path.map((s) => ({ run: [s], away: 34, halfWidth })),
        path,
        view,
      );
      tags.forEach((tag, i) => {
        const s = path[i]!;
        const middle = view.px([(s.a[0] + s.b[0]) / 2, (s.a[1] + s.b[1]) / 2]);
        expect(distance(tag!.anchor, middle)).toBeLessThan(1e-9);
        expect(tag!.at[0] - halfWidth).toBeGreaterThan(-40);
        expect(tag!.at[0] + halfWidth).toBeLessThan(view.width + 40);
        // Never farther off than a thread can be followed.
        expect(distance(tag!.at, tag!.anchor)).toBeLessThan(34 + 92 + 2 * halfWidth);
        for (const other of tags.slice(i + 1)) {
          pairs++;
          const apart =
            Math.abs(tag!.at[0] - other!.at[0]) >= 2 * halfWidth ||
            Math.abs(tag!.at[1] - other!.at[1]) >= 26;
          if (!apart) overlaps++;
        }
      });
    }),
  );
  expect(overlaps / pairs).toBeLessThan(0.002);
});

test('an edge that wants no tag or has no length gets none, and takes no room from the others', () => {
  const built = outlineFromPoints([
    [0, 0],
    [100, 0],
    [100, 80],
    [0, 80],
  ]);
  if (!built.ok) throw new Error('no outline');
  const [a, b] = built.path;
  const given = { away: 34, halfWidth: 20 };
  const tags = hangTags(
    [{ ...given, run: [a!] }, null, { ...given, run: [] }, { ...given, run: [b!] }],
    built.path,
    view,
  );
  expect(tags.map((tag) => tag !== null)).toEqual([true, false, false, true]);
  // Straight out where there is room: below the bottom edge, right of the right one.
  expect(tags[0]!.at).toEqual([500, 320 + 34]);
  expect(tags[3]!.at[0]).toBeGreaterThan(550 + 34);
});

test('a longer figure makes a wider tag', () => {
  expect(tagHalfWidth('A')).toBeLessThan(tagHalfWidth('AB'));
  expect(tagHalfWidth('A', '60.0')).toBeLessThan(tagHalfWidth('A', '31 15/16'));
});
