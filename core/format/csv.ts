import type { Development } from '../blank/fold/developed';
import { scribeTable } from '../blank/scribe';

const cell = (value: string | number): string => {
  const text = typeof value === 'number' ? String(Math.round(value * 1000) / 1000) : value;
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
};

/** Rows as comma-separated values (RFC 4180), lines ended by CR LF. */
export const csv = (rows: readonly (readonly (string | number)[])[]): string =>
  rows.map((row) => `${row.map(cell).join(',')}\r\n`).join('');

/** The fold table: one row a fold, lengths in mm, angles in degrees. */
export function foldCsv(development: Development): string {
  const brakes = scribeTable(development).lines.filter((line) => line.line === 'brake');
  const head = [
    'fold',
    'angle_deg',
    'toward',
    'inside_radius_mm',
    'thickness_mm',
    'k',
    'allowance_mm',
    'deduction_mm',
    'card_made',
    'setback_mm',
    'shift_mm',
    'brake_from_edge',
    'brake_distance_mm',
  ];
  const rows = development.folds.map((fold, i) => {
    const from = brakes[i]!.from;
    const parallel = from.kind === 'parallel';
    const hundredths = (mm: number) => Math.round(mm * 100) / 100;
    const marks =
      from.kind === 'marks'
        ? from.marks.map((m) => `${m.letter} ${hundredths(m.alongMm)} from ${m.next}`)
        : from.kind === 'points'
          ? from.ends.map((end) => `along ${hundredths(end.alongMm)} out ${hundredths(end.outMm)}`)
          : [];
    return [
      i + 1,
      fold.bend.angleDeg,
      fold.toward,
      fold.bend.radiusMm,
      fold.bend.thicknessMm,
      fold.allowance.k,
      fold.allowance.allowanceMm,
      fold.allowance.deductionMm,
      fold.convention,
      fold.setbackMm,
      fold.shiftMm,
      parallel ? from.letter : marks.join('; '),
      parallel ? from.distanceMm : '',
    ];
  });
  return csv([head, ...rows]);
}
