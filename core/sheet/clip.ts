import type { Path } from '../measure/path';
import { box } from '../measure/path';
import type { Segment } from '../measure/segment';

/** A window on a drawing, mm. */
export type Window = { minX: number; minY: number; maxX: number; maxY: number };

const apart = (s: Segment, { minX, minY, maxX, maxY }: Window): boolean => {
  const b = box([s]);
  return b.minX > maxX || b.maxX < minX || b.minY > maxY || b.maxY < minY;
};

/**
 * The runs of a path that can be seen in a window, each an unbroken run of whole segments: what a
 * page has to draw. A closed path all of which is seen comes back as itself (`closed`), so that its
 * first corner is mitred like the others.
 */
export function runsInWindow(
  path: Path,
  window: Window,
): { segments: Segment[]; closed: boolean }[] {
  const seen = path.map((s) => !apart(s, window));
  if (seen.every(Boolean)) return path.length > 0 ? [{ segments: [...path], closed: true }] : [];
  // From after a segment that is not seen, so that a run across the path's beginning is one.
  const start = seen.indexOf(false) + 1;
  const runs: { segments: Segment[]; closed: boolean }[] = [];
  let open = false;
  for (let k = 0; k < path.length; k++) {
    const i = (start + k) % path.length;
    if (!seen[i]) open = false;
    else if (open) runs[runs.length - 1]!.segments.push(path[i]!);
    else {
      runs.push({ segments: [path[i]!], closed: false });
      open = true;
    }
  }
  return runs;
}
