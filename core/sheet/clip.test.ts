import fc from 'fast-check';
import { outlineFromPoints } from '../card/legs';
import { points } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { runsInWindow } from './clip';

const star = fc
  .array(fc.record({ r: spread(30, 200), bulge: spread(-0.5, 0.5) }), {
    minLength: 3,
    maxLength: 30,
  })
  .map((list) => {
    const corners = list.map(({ r }, i): Vec => {
      const a = (2 * Math.PI * i) / list.length;
      return [r * Math.cos(a), r * Math.sin(a)];
    });
    const built = outlineFromPoints(corners);
    if (!built.ok) throw new Error('no outline');
    return built.path.map((s, i) => ({ ...s, bulge: list[i % list.length]!.bulge }));
  });
const window = fc
  .tuple(spread(-250, 200), spread(-250, 200), spread(5, 300), spread(5, 300))
  .map(([minX, minY, w, h]) => ({ minX, minY, maxX: minX + w, maxY: minY + h }));

test('whatever of a path lies in a window is in its runs, each segment once and each run unbroken', () => {
  fc.assert(
    fc.property(star, window, (path, win) => {
      const runs = runsInWindow(path, win);
      const drawn = runs.flatMap((run) => run.segments);
      expect(new Set(drawn).size).toBe(drawn.length);
      for (const { segments, closed } of runs) {
        segments.slice(1).forEach((s, i) => expect(s.a).toEqual(segments[i]!.b));
        expect(closed).toBe(segments.length === path.length);
      }
      // A point of the outline inside the window is on a segment that is drawn.
      for (const s of path) {
        const inside = points([s], 0.5).some(
          ([x, y]) => x >= win.minX && x <= win.maxX && y >= win.minY && y <= win.maxY,
        );
        if (inside) expect(drawn).toContain(s);
      }
    }),
  );
});
