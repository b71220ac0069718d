import { edgeLength } from '#core/card/outline';
import { edgeFit } from '#core/fit/gapRemedy';
import { evenStations } from '#core/fit/target';
import type { FitRecord } from '#core/format/job';
import { weldOf } from '#core/weld/planned';
import { isJoined } from '#core/weld/start';
import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

/**
 * Whether a trial was of the card as it is now: the same revision, or one from which the same blank
 * is cut.
 */
export const triedAsItIs = (
  fit: Pick<FitRecord, 'revision' | 'digest'>,
  now: Pick<RoadGiven, 'revision' | 'digest'>,
): boolean => fit.revision === now.revision || (fit.digest != null && fit.digest === now.digest);

export function fitStop(given: RoadGiven): Stop {
  const { fit } = given;
  const { pattern, plan, thicknessAt } = given.joined;
  // What is joined must be read; a free edge only where somebody reads it, or nothing is joined.
  const joined = pattern.edges.some(({ joint }) => isJoined(joint));
  const lies = pattern.edges.flatMap((edge) => {
    const record = fit?.edges.find((e) => e.edge === edge.id);
    const matters = isJoined(edge.joint) || !joined;
    if (!record)
      return matters
        ? [{ read: 0, stations: evenStations(edgeLength(pattern, edge)).length, good: true }]
        : [];
    const thicknessMm = thicknessAt(edge.id);
    const process = weldOf(plan, edge, thicknessMm)?.process ?? null;
    const lie = edgeFit(record, edge.joint, process, thicknessMm);
    return matters || lie.read > 0 ? [lie] : [];
  });
  const read = lies.reduce((sum, lie) => sum + lie.read, 0);
  const stations = lies.reduce((sum, lie) => sum + lie.stations, 0);
  if (!fit || read === 0) return stop('ahead', fit ? 'Nothing read' : 'Not tried');
  const off = lies.filter((lie) => lie.read > 0 && !lie.good).length;
  if (off > 0)
    return stop(
      'attention',
      off === 1 ? '1 edge off' : `${off} edges off`,
      'A gap or flush that was read lies outside what is wanted there.',
    );
  const edges = lies.filter((lie) => lie.read > 0).length;
  if (read < stations)
    return stop(
      'ahead',
      edges < lies.length ? `${edges} of ${lies.length} edges read` : `${read} of ${stations} read`,
      joined
        ? 'Every edge that is joined is read before it counts as fitted.'
        : 'No edge is joined to anything: all of them are read before it counts as fitted.',
    );
  return triedAsItIs(fit, given)
    ? stop('done', 'Fits', 'Every station that matters was read, and lies as wanted.')
    : stop(
        'overtaken',
        'Tried by an older card',
        'It fitted; the card has changed since that trial.',
      );
}
