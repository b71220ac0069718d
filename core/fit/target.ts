import type { JointKind, Process } from '../card/kinds';
import { ROUNDING } from '../measure/tolerance';

export type Target = { gapMm: number; toleranceMm: number; flushMm: number; why: string };

/**
 * The gap wanted at trial fit, how far it may be off either way, and how flush, in mm. Common
 * practice throughout: nothing between edges that are fused by TIG or gas, up to about a sheet's
 * thickness for MIG, laps tight down, and 3 to 5 mm along a free edge that stands to a door or lid.
 */
export function gapTarget(joint: JointKind, process: Process | null, thicknessMm: number): Target {
  const t = thicknessMm;
  switch (joint) {
    case 'butt':
    case 'backed-butt':
      return process === 'mig' || process === null
        ? {
            gapMm: t / 2,
            toleranceMm: t / 2,
            flushMm: 0.3,
            why: 'MIG butt: from tight up to about one thickness',
          }
        : {
            gapMm: 0,
            toleranceMm: 0.3,
            flushMm: 0.2,
            why: 'TIG, gas or braze butt: edges touching',
          };
    case 'lap':
    case 'joggle':
    case 'plug-flange':
      return {
        gapMm: 0,
        toleranceMm: 0.5,
        flushMm: 0.5,
        why: 'Overlap: clamped down tight on both sides of each plug',
      };
    case 'free':
    case 'hem':
      return { gapMm: 4, toleranceMm: 1, flushMm: 1, why: 'Shut line: 3 to 5 mm and even' };
  }
}

/**
 * Stations spaced evenly along an edge, mm from its start: both ends a little in, and no farther
 * apart than `pitchMm`.
 */
export function evenStations(lengthMm: number, pitchMm = 80): number[] {
  const inset = Math.min(10, lengthMm / 4);
  const run = lengthMm - 2 * inset;
  const gaps = Math.max(2, Math.ceil(run / pitchMm - ROUNDING));
  return Array.from(
    { length: gaps + 1 },
    (_, i) => Math.round((inset + (run * i) / gaps) * 10) / 10,
  );
}

/**
 * What is wanted along an edge at a trial: as somebody set it (`own`), else what its joint and
 * process ask for now.
 */
export function wantedAlong(
  record: { own: boolean; targetMm: number; toleranceMm: number; flushMm: number },
  joint: JointKind,
  process: Process | null,
  thicknessMm: number,
): Pick<Target, 'gapMm' | 'toleranceMm' | 'flushMm'> {
  if (!record.own) return gapTarget(joint, process, thicknessMm);
  return { gapMm: record.targetMm, toleranceMm: record.toleranceMm, flushMm: record.flushMm };
}
