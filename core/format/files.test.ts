import Papa from 'papaparse';
import { demoJob } from '../../demo/job';
import { develop } from '../blank/fold/develop';
import { USUAL_SHOP, sheetMetal } from '../blank/fold/practice';
import { metalById } from '../metal/metals';
import { csv, foldCsv } from './csv';
import { JobFileSchema, writeJob } from './job';

test('values with commas, quotes and lines in them are read back by another reader as they were', () => {
  const rows = [
    ['plain', 'a, b', 'say "edge A"', 'two\nlines', ''],
    ['Ünïcödé', '−1', "31 15/16\"", '\t', ' '],
  ]; // prettier-ignore
  expect(Papa.parse<string[]>(csv(rows), { skipEmptyLines: true }).data).toEqual(rows);
  // RFC 4180: every line ends with CR LF.
  expect(csv([['a', 1.23456]])).toBe('a,1.235\r\n');
});

test('the fold table of every demo piece: a row a fold, the figures of its blank', () => {
  for (const piece of demoJob().pieces) {
    const pattern = piece.revisions[piece.revision - 1]!.pattern;
    const found = develop(pattern, sheetMetal(metalById(piece.metal), piece.thicknessMm, USUAL_SHOP), USUAL_SHOP);
    if (!found.ok) throw new Error(piece.name);
    const { data, errors } = Papa.parse<Record<string, string>>(foldCsv(found.development), {
      header: true,
      skipEmptyLines: true,
    });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(pattern.folds.length);
    data.forEach((row, i) => {
      const fold = found.development.folds[i]!;
      expect(Number(row.deduction_mm)).toBeCloseTo(fold.allowance.deductionMm, 2);
      expect(Number(row.angle_deg)).toBe(fold.bend.angleDeg);
      // Allowance less twice the setback is what everything beyond moves.
      expect(Number(row.allowance_mm) - 2 * Number(row.setback_mm)).toBeCloseTo(Number(row.shift_mm), 2);
      expect(pattern.edges.map((edge) => edge.letter)).toContain(row.brake_from_edge);
    });
  }
});

describe('a job file', () => {
  const text = writeJob(demoJob());
  const broken = (change: (job: ReturnType<typeof demoJob>) => void) => {
    const job = structuredClone(demoJob());
    change(job);
    const parsed = JobFileSchema.safeParse(job);
    return parsed.success ? 'taken' : parsed.error.issues[0]!.path.join('.');
  };

  test('says what it is, holds no ids of a database, and is the same when written again', () => {
    const job = JSON.parse(text) as Record<string, unknown>;
    expect(job).toMatchObject({ format: 'patrone-job', version: 1 });
    expect(text).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/);
    expect(writeJob(JobFileSchema.parse(job))).toBe(text);
  });

  test('what does not fit is told by its place', () => {
    expect(broken(() => undefined)).toBe('taken');
    expect(broken((job) => (job.pieces[1]!.thicknessMm = 40))).toBe('pieces.1.thicknessMm');
    expect(broken((job) => (job.pieces[0]!.revisions[0]!.pattern.corners[2]!.x = Number.NaN))).toBe(
      'pieces.0.revisions.0.pattern.corners.2.x',
    );
    expect(broken((job) => (job.job.created = 'yesterday'))).toBe('job.created');
    expect(broken((job) => (job.version = 2 as never))).toBe('version');
    expect(broken((job) => (job.pieces[0]!.revision = 9))).toBe('pieces.0.revisions');
    expect(broken((job) => (job.pieces[0]!.revisions[1]!.parent = 2))).toBe('pieces.0.revisions');
    expect(broken((job) => job.pieces[0]!.revisions.push(job.pieces[0]!.revisions[0]!))).toBe('pieces.0.revisions');
  });
});
