import type { Edge } from '../card/pattern';
import { canBePlugged } from '../weld/start';
import type { Meeting } from './meetings';
import { leads } from './meetings';

/**
 * Where the plug holes of a joint are, seen from one edge: in the overlap that this card adds
 * (`here`), this far inside its rim, mm, where the overlap is the other's and this sheet lies over
 * (`inMm`), or in what lies beyond (`beyond`).
 */
export type HolesAt = 'here' | 'beyond' | { inMm: number };

/**
 * Plugs are made through the sheet that lies over. Where nobody has said which does, it is the one
 * whose card adds the overlap. `edge` is the card's own.
 */
export function holesAt(edge: Edge, meetings: readonly Meeting[] | undefined): HolesAt {
  for (const meeting of meetings ?? []) {
    const led = leads(edge, meeting) === 'other';
    const joint = led ? meeting.edge!.edge.joint : edge.joint;
    if (!canBePlugged(joint)) continue;
    if (meeting.over === 'other') return 'beyond';
    if (led)
      return meeting.over === 'this' && 'widthMm' in joint ? { inMm: joint.widthMm / 2 } : 'beyond';
  }
  return 'here';
}
