import type { Edge } from '../card/pattern';
import type { MetalId } from '../metal/metals';
import { metalById } from '../metal/metals';
import { canBePlugged, isJoined } from '../weld/start';
import type { Meeting } from './meetings';
import { leads } from './meetings';

/**
 * What does not go together at a joint, or is not said, seen from one end; the interface says what
 * to do about it.
 */
export type Differs =
  | { code: 'lengths'; hereMm: number; thereMm: number }
  | { code: 'kinds'; here: Edge['joint']['kind']; there: Edge['joint']['kind'] }
  | { code: 'both-overlap' }
  | { code: 'over-unsaid' }
  | { code: 'step-on-top' }
  | { code: 'water-into-lap' }
  | { code: 'narrow'; widthMm: number; leastMm: number }
  | { code: 'metals' };

/** Edges that meet may differ by this much, mm and share, and still be one length at the bench. */
const SAME_MM = 2;
const SAME_SHARE = 0.01;

/** An overlap that is plugged or spotted is at least this wide, mm (common practice). */
const LEAST_OVERLAP_MM = 10;

/** Families that are fused with each other; others are fastened (common practice). */
const fusedWith = (one: MetalId): string => {
  const { family } = metalById(one);
  return family === 'coated-steel' ? 'steel' : family;
};

/** What is to be told of one joint at this edge of a piece of `metal`, most pressing first. */
export function differsAt(edge: Edge, meeting: Meeting, metal: MetalId): Differs[] {
  const { edge: met, joint, span } = meeting;
  const told: Differs[] = [];
  const [here, there] = [edge.joint, met?.edge.joint ?? null];
  const lead = leads(edge, meeting);
  const made = lead === 'other' ? there! : here;
  const welded = joint.fastened === null && isJoined(made);
  if (welded && meeting.metal !== null && fusedWith(metal) !== fusedWith(meeting.metal))
    told.push({ code: 'metals' });
  if (there && isJoined(here) && isJoined(there)) {
    if (canBePlugged(here) && canBePlugged(there)) told.push({ code: 'both-overlap' });
    else if (here.kind !== there.kind)
      told.push({ code: 'kinds', here: here.kind, there: there.kind });
  }
  if (met) {
    const hereMm = Math.abs(span.toMm - span.fromMm);
    const thereMm = Math.abs(met.span.toMm - met.span.fromMm);
    const off = Math.abs(hereMm - thereMm);
    if (off > SAME_MM && off > SAME_SHARE * Math.max(hereMm, thereMm))
      told.push({ code: 'lengths', hereMm, thereMm });
  }
  if (canBePlugged(made)) {
    if (meeting.over === null) told.push({ code: 'over-unsaid' });
    if (meeting.over !== null && meeting.over === meeting.stepped)
      told.push({ code: 'step-on-top' });
    if (meeting.over !== null && meeting.waterFrom !== null && meeting.over !== meeting.waterFrom)
      told.push({ code: 'water-into-lap' });
    if ('widthMm' in made && made.widthMm < LEAST_OVERLAP_MM - 1e-6)
      told.push({ code: 'narrow', widthMm: made.widthMm, leastMm: LEAST_OVERLAP_MM });
  }
  return told;
}
