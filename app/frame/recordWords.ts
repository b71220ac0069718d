import type { FitRecord, InspectionRecord, WeldRecord } from '#core/format/job';

/** What was done and seen, in words. */

/** How a piece was held at a trial. */
export const HELD_WORDS: Record<FitRecord['held'], string> = {
  hand: 'By hand',
  magnets: 'Magnets',
  clamps: 'Clamps',
  'sheet-pins': 'Sheet pins',
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

/** What a weld was made at, in a line; empty where nothing was written down. */
export const settingsSaid = (
  { amps, volts, wireMm, feed, gas }: WeldRecord['settings'],
  showThin: (mm: number) => string,
): string =>
  [
    amps !== null && `${amps} A`,
    volts !== null && `${volts} V`,
    wireMm !== null && `wire ${showThin(wireMm)}`,
    feed,
    gas,
  ]
    .filter(Boolean)
    .join(' · ');

/** What was done in a weld entry: tacks 1–7, a seam. */
export const workSaid = ({ work, from, to }: Pick<WeldRecord, 'work' | 'from' | 'to'>): string =>
  from === null
    ? WORK_WORDS[work]
    : from === to
      ? `${WORK_WORDS[work].replace(/s$/, '')} ${from}`
      : `${WORK_WORDS[work]} ${from}–${to}`;
