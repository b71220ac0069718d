import type { z } from 'zod';
import { angleRatioOf } from '../blank/fold/springback';
import { kFromStrip } from '../blank/fold/testBend';
import { ShopSchema } from '../blank/shopSchema';
import { csv } from './csv';

/** What a shop has measured, as a table: one reading a row, `kind` says which columns count. */

const { strips, springs, radii } = ShopSchema.shape;
const Reading = {
  strips: strips.element,
  springs: springs.element,
  radii: radii.element,
};
export type Readings = {
  strips: z.output<typeof strips>;
  springs: z.output<typeof springs>;
  radii: z.output<typeof radii>;
};

const KINDS = { strip: 'strips', springback: 'springs', radius: 'radii' } as const;
const COLUMNS = [
  'kind',
  'metal',
  'thickness_mm',
  'radius_mm',
  'angle_deg',
  'flat_mm',
  'leg_a_mm',
  'leg_b_mm',
  'folded_to_deg',
  'came_back_to_deg',
  'got_radius_mm',
  'uncertainty',
  'machine',
  'left_out',
  'piece',
  'fold',
  'at',
] as const;
type Row = Record<(typeof COLUMNS)[number], string | number>;

const EMPTY = Object.fromEntries(COLUMNS.map((name) => [name, ''])) as Row;

/** All readings as CSV, mm and degrees; `uncertainty` in the unit of what was read. */
export function readingsCsv({ strips, springs, radii }: Readings): string {
  const said = (one: { leftOut?: string | undefined; brake?: string | undefined }) => ({
    machine: one.brake ?? '',
    left_out: one.leftOut ?? '',
  });
  const where = ({ on }: { on: Readings['radii'][number]['on'] }) =>
    on ? { piece: on.piece, fold: on.fold, at: on.at } : {};
  const rows: Row[] = [
    ...strips.map((one) => ({
      ...EMPTY,
      kind: 'strip',
      metal: one.metal,
      thickness_mm: one.thicknessMm,
      radius_mm: one.radiusMm,
      angle_deg: one.angleDeg,
      flat_mm: one.flatMm,
      leg_a_mm: one.legAMm,
      leg_b_mm: one.legBMm,
      uncertainty: one.readingMm,
      ...said(one),
    })),
    ...springs.map((one) => ({
      ...EMPTY,
      kind: 'springback',
      metal: one.metal,
      thickness_mm: one.thicknessMm,
      radius_mm: one.radiusMm,
      folded_to_deg: one.foldedToDeg,
      came_back_to_deg: one.cameBackToDeg,
      uncertainty: one.uDeg,
      ...said(one),
      ...where(one),
    })),
    ...radii.map((one) => ({
      ...EMPTY,
      kind: 'radius',
      metal: one.metal,
      thickness_mm: one.thicknessMm,
      radius_mm: one.wantedMm,
      got_radius_mm: one.gotMm,
      uncertainty: one.uMm,
      ...said(one),
      ...where(one),
    })),
  ];
  return csv([[...COLUMNS], ...rows.map((row) => COLUMNS.map((name) => row[name]))]);
}

/** A row that is no reading: its line in the file from 1, and the column that does not fit. */
export type WrongRow = { line: number; column: string };

/**
 * Readings from the rows of a table, each with its columns by their names; those that do not fit
 * are named and left. Decimal commas are read where a column holds no point.
 */
export function readingsFrom(rows: readonly Record<string, string>[]): {
  readings: Readings;
  wrong: WrongRow[];
} {
  const readings: Readings = { strips: [], springs: [], radii: [] };
  const wrong: WrongRow[] = [];
  rows.forEach((row, i) => {
    const text = (name: keyof Row) => (row[name] ?? '').trim();
    const number = (name: keyof Row) =>
      /^[-+]?\d+([.,]\d+)?$/.test(text(name)) ? Number(text(name).replace(',', '.')) : NaN;
    const list = KINDS[text('kind') as keyof typeof KINDS];
    if (!list) return wrong.push({ line: i + 2, column: 'kind' });
    const on = text('piece') ? { piece: text('piece'), fold: text('fold'), at: text('at') } : null;
    const common = {
      metal: text('metal'),
      thicknessMm: number('thickness_mm'),
      ...(text('machine') && { brake: text('machine') }),
      ...(text('left_out') && { leftOut: text('left_out') }),
    };
    const given = {
      strips: {
        ...common,
        radiusMm: number('radius_mm'),
        angleDeg: number('angle_deg'),
        flatMm: number('flat_mm'),
        legAMm: number('leg_a_mm'),
        legBMm: number('leg_b_mm'),
        readingMm: number('uncertainty'),
      },
      springs: {
        ...common,
        radiusMm: number('radius_mm'),
        foldedToDeg: number('folded_to_deg'),
        cameBackToDeg: number('came_back_to_deg'),
        uDeg: number('uncertainty'),
        on,
      },
      radii: {
        ...common,
        wantedMm: number('radius_mm'),
        gotMm: number('got_radius_mm'),
        uMm: number('uncertainty'),
        on,
      },
    }[list];
    const read = Reading[list].safeParse(given);
    if (read.success && saysSomething(list, read.data))
      (readings[list] as object[]).push(read.data);
    else if (read.success)
      wrong.push({ line: i + 2, column: list === 'strips' ? 'leg_b_mm' : 'came_back_to_deg' });
    else
      wrong.push({
        line: i + 2,
        column: columnOf(String(read.error.issues[0]?.path[0] ?? 'kind'), list),
      });
  });
  return { readings, wrong };
}

/** Whether its figures belong together, so that anything follows of them. */
const saysSomething = (list: keyof Readings, one: object): boolean =>
  list === 'strips'
    ? kFromStrip(one as Readings['strips'][number]).ok
    : list !== 'springs' || angleRatioOf(one as Readings['springs'][number]).ok;

/** The column a field is read from. */
function columnOf(field: string, list: keyof Readings): string {
  const own: Record<string, string> = {
    thicknessMm: 'thickness_mm',
    angleDeg: 'angle_deg',
    flatMm: 'flat_mm',
    legAMm: 'leg_a_mm',
    legBMm: 'leg_b_mm',
    foldedToDeg: 'folded_to_deg',
    cameBackToDeg: 'came_back_to_deg',
    gotMm: 'got_radius_mm',
    leftOut: 'left_out',
    brake: 'machine',
    on: 'piece',
  };
  if (field === 'radiusMm' || field === 'wantedMm') return 'radius_mm';
  if (['readingMm', 'uDeg', 'uMm'].includes(field)) return 'uncertainty';
  return own[field] ?? (field === 'metal' ? 'metal' : `kind (${list})`);
}
