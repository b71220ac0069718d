import { nearest, segmentLength } from '../measure/segment';
import type { Path } from '../measure/path';
import type { PaperWedge } from '../surface/mesh/paperMesh';
import { outlineOf } from './outline';
import type { PatternDoc } from './pattern';
import { wedgesOn } from './tucksOnCard';

/**
 * A card as paper to be taped: its outline and its tucks and slits, each where its mouth is along
 * it.
 */
export function paperOf(doc: PatternDoc): { outline: Path; wedges: PaperWedge[] } {
  const { path } = outlineOf(doc);
  const wedges = wedgesOn(doc).map(({ tuck, mouth: [a, b], point }): PaperWedge => {
    const middle = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as const;
    let [at, gone, least] = [0, 0, Infinity];
    for (const s of path) {
      const found = nearest(s, middle);
      if (found.distance < least)
        [at, least] = [gone + found.at * segmentLength(s), found.distance];
      gone += segmentLength(s);
    }
    return { id: tuck.id, kind: tuck.kind, atMm: at, widthMm: tuck.widthMm, point };
  });
  return { outline: path, wedges };
}
