import type { FitRecord, InspectionRecord, WeldRecord } from '#core/format/job';

/** What was done and seen, in words. */

/** How a piece was held at a trial. */
export const HELD_WORDS: Record<FitRecord['held'], string> = {
  hand: 'By hand',
  magnets: 'Magnets',
  clamps: 'Clamps',
  clecos: 'Clecos',
  screws: 'Self-tappers',
  tacks: 'A few tacks',
};

export const WORK_WORDS: Record<WeldRecord['work'], string> = {
  tacks: 'Tacks',
  plugs: 'Plugs',
  seam: 'Seam',
  stitch: 'Stitch',
};

export const INSPECTION_WORDS: Record<InspectionRecord['kind'], string> = {
  lamp: 'Lamp behind, for pinholes',
  tap: 'Tapped with a hammer, for cracks',
  penetration: 'Back side, for penetration',
  flush: 'Flushness',
  thickness: 'Thickness after grinding',
};
