import fc from 'fast-check';
import { countingIds } from '#core/card/kinds';
import type { PatternDoc } from '#core/card/pattern';
import { cardOfShape, shaped } from '#core/card/shape/figures';
import type { FitRecord, InspectionRecord, WeldRecord } from '#core/format/job';
import { action as fits } from '../fit/fits';
import { action as surveyed } from '../survey/surveyed';
import { action as welds } from '../weld/welds';
import { saveDocument } from './documents.server';
import { newPiece, onEmptyDatabase, posted } from './emptyDatabase';
import { recordsOf } from './records.server';
import type { Fit, Inspection, Weld } from './records.server';
import { surveyOf } from './survey.server';
import { Viewer } from './viewer.server';

onEmptyDatabase();

const { shop } = Viewer;
const AT = '2026-05-04T10:00:00.000Z';

/** A strip of 100 by 40 mm, and the id of its first edge. */
function strip(): { card: PatternDoc; edge: string } {
  const made = shaped('strip', { longMm: 100, wideMm: 40 });
  if (!made.ok) throw new Error(made.problems[0]!.code);
  const card = cardOfShape(made, countingIds('e'));
  return { card, edge: card.edges[0]!.id };
}
const { card: CARD, edge: A } = strip();

async function pieceWithCard() {
  const made = await newPiece();
  const saved = await saveDocument(shop, made.piece, 'card', 0, CARD, '');
  if (saved?.kind !== 'saved') throw new Error('the card was not saved');
  return made;
}

const weld = (edge: string, more: Partial<WeldRecord> = {}): WeldRecord => ({
  ...{ at: AT, who: 'Joss', edge, process: 'mig', work: 'tacks', from: 1, to: 3 },
  made: { revision: 1, placesMm: [0, 50, 100], turned: false },
  settings: { amps: 40, volts: null, wireMm: 0.6, feed: '', gas: '' },
  ...{ note: '', withdrawn: null },
  ...more,
});
const inspection = (edge: string): InspectionRecord => ({
  ...{ at: AT, who: 'Joss', edge, kind: 'lamp', sound: false, readingMm: null },
  ...{ finding: 'pinhole', remedy: '', withdrawn: null },
});
const STATIONS = [0, 50, 100];
type EdgeRead = FitRecord['edges'][number];
const read = (gaps: (number | null)[]): EdgeRead => ({
  ...{ edge: A, turned: false, own: false, targetMm: 0, toleranceMm: 0.5, flushMm: 0.5 },
  stations: STATIONS.map((atMm, i) => ({ atMm, gapMm: gaps[i]!, flushMm: null })),
});
const fit = (edges: EdgeRead[] = []): FitRecord => ({
  ...{ at: AT, who: 'Joss', held: 'clamps', notes: '', revision: 1, digest: null },
  ...{ withdrawn: null, edges },
});

test('an entry goes in once however often it is sent, only on an edge that was, and is taken back once and for good', async () => {
  const { piece } = await pieceWithCard();
  const post = (body: object) => posted<{ welds: Weld[] }>(welds, { pieceId: piece }, body);
  const entry = {
    intent: 'weld',
    id: crypto.randomUUID(),
    key: crypto.randomUUID(),
    weld: weld(A),
  };
  // At the same time, and again.
  await Promise.all([post(entry), post(entry), post(entry)]);
  expect((await post(entry)).answer.welds).toHaveLength(1);
  expect((await post({ ...entry, key: crypto.randomUUID() })).status).toBe(409);
  expect((await post({ intent: 'weld', weld: weld('z') })).status).toBe(422);
  const elsewhere = await pieceWithCard();
  const withdraw = { intent: 'withdraw', what: 'weld', id: entry.id, why: 'wrong edge' };
  // Neither as another kind nor as another piece’s.
  expect((await post({ ...withdraw, what: 'inspection' })).status).toBe(404);
  const there = await posted(welds, { pieceId: elsewhere.piece }, withdraw);
  expect(there.status).toBe(404);
  const taken = await post(withdraw);
  expect(taken.answer.welds[0]!.withdrawn).toMatchObject({ why: 'wrong edge' });
  const again = await post({ ...withdraw, why: 'another reason' });
  expect(again.status).toBe(409);
  expect(again.answer.welds[0]!.withdrawn).toMatchObject({ why: 'wrong edge' });
});

test('what was done about a finding: of two who say it differently one is told, and nothing is overwritten', async () => {
  const { piece } = await pieceWithCard();
  const post = (body: object) =>
    posted<{ message?: string; inspections: Inspection[] }>(welds, { pieceId: piece }, body);
  const id = crypto.randomUUID();
  await post({ intent: 'inspection', id, inspection: inspection(A) });
  expect((await post({ intent: 'remedy', id, remedy: 'ground out', since: '' })).status).toBe(200);
  const other = await post({ intent: 'remedy', id, remedy: 'left', since: '' });
  expect(other.status).toBe(409);
  expect(other.answer.message).toContain('ground out');
  expect(other.answer.inspections[0]!.remedy).toBe('ground out');
  const knowing = await post({ intent: 'remedy', id, remedy: 'left', since: 'ground out' });
  expect(knowing.answer.inspections[0]!.remedy).toBe('left');
});

const gap = fc.option(fc.constantFrom(0, 0.4, 1.2), { nil: null });
const gaps = fc.tuple(gap, gap, gap).map((all): (number | null)[] => [...all]);

test('two who read one edge, in either order: what only one read is there, what both read differently is told and stands as it was first', async () => {
  const { piece } = await pieceWithCard();
  const post = (body: object) =>
    posted<{ fits: Fit[]; now?: { clashes: { atMm: number }[] } }>(fits, { pieceId: piece }, body);
  await fc.assert(
    fc.asyncProperty(gaps, gaps, async (one, two) => {
      for (const order of [
        [one, two],
        [two, one],
      ] as const) {
        const id = crypto.randomUUID();
        await post({ intent: 'new', id, fit: fit() });
        const [first, second] = order;
        await post({ intent: 'edge', id, edge: read(first), since: null });
        const { status, answer } = await post({
          intent: 'edge',
          id,
          edge: read(second),
          since: null,
        });
        const disputed = STATIONS.filter(
          (_, i) => first[i] !== null && second[i] !== null && first[i] !== second[i],
        );
        expect(status).toBe(disputed.length > 0 ? 409 : 200);
        expect((answer.now?.clashes ?? []).map(({ atMm }) => atMm)).toEqual(disputed);
        const kept = answer.fits.find((one) => one.id === id)!.edges[0]!.stations;
        expect(kept.map(({ gapMm }) => gapMm)).toEqual(first.map((mm, i) => mm ?? second[i]));
      }
    }),
    { numRuns: 25 },
  );
});

test('of a trial two change different things and both stand; the same thing differently is told', async () => {
  const { piece } = await pieceWithCard();
  const post = (body: object) => posted<{ fits: Fit[] }>(fits, { pieceId: piece }, body);
  const id = crypto.randomUUID();
  await post({ intent: 'new', id, fit: fit() });
  const since = { at: AT, held: 'clamps', notes: '' };
  const change = (mine: object) =>
    post({ intent: 'change', id, since, mine: { ...since, ...mine } });
  expect((await change({ notes: 'rocks at the front' })).status).toBe(200);
  expect((await change({ held: 'screws' })).status).toBe(200);
  expect((await recordsOf(shop, piece)).fits[0]).toMatchObject({
    notes: 'rocks at the front',
    held: 'screws',
  });
  expect((await change({ notes: 'sits flush' })).status).toBe(409);
  expect((await recordsOf(shop, piece)).fits[0]!.notes).toBe('rocks at the front');
});

test('rounds of readings are merged by measure, whoever reads first', async () => {
  const figure = fc.constantFrom(1000, 1002);
  const values = fc.dictionary(fc.constantFrom('m1', 'm2', 'm3'), figure, { minKeys: 1 });
  const { job } = await newPiece();
  const post = (body: object) => posted<{ message?: string }>(surveyed, { jobId: job }, body);
  const readings = (all: Record<string, number>) =>
    Object.fromEntries(
      Object.entries(all).map(([key, value]) => [key, { value, note: '', as: '' }]),
    );
  let rounds = 0;
  await fc.assert(
    fc.asyncProperty(values, values, async (one, two) => {
      const id = `round${++rounds}`;
      const round = {
        kind: 'round',
        stage: 'found',
        name: id,
        at: AT,
        readings: {},
        putAway: false,
      };
      expect((await post({ intent: 'new', id, body: round })).status).toBe(200);
      const read = (all: Record<string, number>) =>
        post({ intent: 'read', id, since: {}, mine: readings(all) });
      expect((await read(one)).status).toBe(200);
      const disputed = Object.keys(two).some((key) => key in one && one[key] !== two[key]);
      expect((await read(two)).status).toBe(disputed ? 409 : 200);
      const kept = (await surveyOf(shop, job)).find((found) => found.id === id);
      // Of a round in which two differ nothing of the second is taken: it is told, and sent again.
      expect(kept).toMatchObject({ readings: readings(disputed ? one : { ...one, ...two }) });
    }),
    { numRuns: 20 },
  );
});
