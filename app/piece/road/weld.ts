import { isOfEdge } from '#core/card/recordPlace';
import type { Seam, SeamProgress } from '#core/weld/seams';
import { seamProgress, seamsOf } from '#core/weld/seams';
import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

export function weldStop(given: RoadGiven): Stop {
  const { welds, inspections, thicknessMm } = given;
  const { pattern, plan, structuralAt } = given.joined;
  const seams = seamsOf(pattern, plan, thicknessMm, welds);
  const standing = welds.filter((weld) => !weld.withdrawn);
  if (standing.length === 0)
    return stop('ahead', seams.length > 0 ? 'Not welded' : 'Nothing joined');
  const seen = inspections.filter((i) => !i.withdrawn);
  const open = seen.filter((i) => !i.sound && i.remedy.trim() === '').length;
  if (open > 0)
    return stop(
      'attention',
      open === 1 ? '1 finding open' : `${open} findings open`,
      'What was found not sound waits to be put right.',
    );
  const progress = seams.map((seam) => seamProgress(seam, pattern, standing));
  const count = (state: (typeof progress)[number]) =>
    progress.filter((one) => one === state).length;
  const made = count('made');
  if (made < seams.length) {
    const why = [
      ...seams.flatMap((seam, i) => openSeam(seam, progress[i]!)),
      ...(count('tacked') > 0 ? ['Tacks alone hold it for the run, they are no weld.'] : []),
    ];
    const [only] = seams;
    if (seams.length === 1 && only) {
      const plugged = only.plugs.length > 0;
      const [done, all] = plugged
        ? [only.plugsDone.size, only.plugs.length]
        : [only.tacksDone.size, only.tacks.length];
      return stop(
        'ahead',
        progress[0] === 'tacked' ? 'Tacked' : `${done} of ${all} ${plugged ? 'plugs' : 'tacks'}`,
        ...why,
      );
    }
    return stop('ahead', `${made} of ${seams.length} edges`, ...why);
  }
  const unseen = seams.filter(
    ({ edge }) => structuralAt(edge.id) && !seen.some((one) => isOfEdge(pattern, one.edge, edge)),
  );
  if (unseen.length > 0)
    return stop(
      'attention',
      'Not looked at',
      `It holds the vehicle up: look at edge ${unseen.map(({ edge }) => edge.letter).join(', ')} before it counts as welded.`,
    );
  return stop('done', 'Welded', 'All that its plan asks is made, and no finding is open.');
}

/** What of a seam is still to be made, in words. */
function openSeam(seam: Seam, progress: SeamProgress): string[] {
  if (progress === 'made') return [];
  const plugged = seam.plugs.length > 0;
  const [done, all] = plugged
    ? [seam.plugsDone.size, seam.plugs.length]
    : [seam.tacksDone.size, seam.tacks.length];
  const spots = `${done} of ${all} ${plugged ? 'plugs' : 'tacks'}`;
  return [`Edge ${seam.edge.letter}: ${progress === 'tacked' ? 'tacked, not seamed' : spots}.`];
}
