import type { CutDown, Fault } from '#core/cutdown/cutDown';
import { uncut } from '#core/cutdown/uncut';
import { changeCutDown, cutDownOf } from './cutDown.server';
import { dbOf, pool } from './database.server';
import { FACTS, newPiece, onEmptyDatabase } from './emptyDatabase';
import { hoursRecorded } from './pieceSurvey.server';
import { createPiece, pieceById } from './pieces.server';
import { Viewer } from './viewer.server';

onEmptyDatabase();

const { shop } = Viewer;
const fault = (id: string): Fault => ({
  ...{ id, kind: 'too-long', edge: null, by: 8, note: '' },
  ...{ mendedAt: null, how: '', hours: null },
});

test('two who note what is wrong with a piece at once lose nothing; the same figure twice is told', async () => {
  const { piece } = await newPiece();
  const change = (since: Partial<CutDown>, mine: Partial<CutDown>) =>
    dbOf(shop).transaction((tx) => changeCutDown(piece, since, mine, tx));
  const now = async () => cutDownOf((await pieceById(shop, piece))!);
  const none = { faults: [], readingsMm: [] };
  expect((await change(none, { faults: [fault('a')], readingsMm: [0.9] }))?.kind).toBe('saved');
  expect((await change(none, { faults: [fault('b')], readingsMm: [0.91] }))?.kind).toBe('saved');
  expect(await now()).toEqual({
    ...uncut(),
    faults: [fault('a'), fault('b')],
    readingsMm: [0.9, 0.91],
  });

  // Different fields of one fault go together; the same field does not.
  const stood = { faults: [fault('a'), fault('b')] };
  const changed = (changes: Partial<Fault>) => ({
    faults: [{ ...fault('a'), ...changes }, fault('b')],
  });
  expect((await change(stood, changed({ hours: 2 })))?.kind).toBe('saved');
  expect((await change(stood, changed({ how: 'A band taken out' })))?.kind).toBe('saved');
  expect(await change(stood, changed({ hours: 5 }))).toMatchObject({
    kind: 'clash',
    clashes: [{ field: 'faults', within: ['a', 'hours'], there: 2, here: 5 }],
  });
  expect((await now()).faults[0]).toMatchObject({ hours: 2, how: 'A band taken out' });

  // What cannot be read stays as it is stored, and no change of another part drops it.
  await pool.query(
    `update pieces set cut_down = jsonb_set(cut_down, '{received}', '"sometime"') where id = $1`,
    [piece],
  );
  expect((await now()).received).toBeNull();
  await change({ readingsMm: [0.9, 0.91] }, { readingsMm: [0.9, 0.91, 0.88] });
  const { rows } = await pool.query<{ is: string }>(
    `select cut_down ->> 'received' as is from pieces where id = $1`,
    [piece],
  );
  expect(rows[0]!.is).toBe('sometime');
  expect((await now()).readingsMm).toEqual([0.9, 0.91, 0.88]);
});

test('what correcting bought and donor pieces took is known at the next choice, and is counted once', async () => {
  const { job, piece } = await newPiece();
  const mended = (id: string, hours: number | null) => ({ ...fault(id), hours });
  for (const [kind, faults] of [
    ['bought', [mended('a', 3), mended('b', 0.5)]],
    ['bought', [mended('a', null)]],
    ['donor', [mended('a', 2)]],
    ['old', [mended('a', 9)]],
    ['made', [mended('a', 7)]],
  ] as const) {
    const one = await createPiece(shop, job, { ...FACTS, kind });
    await dbOf(shop).transaction((tx) =>
      changeCutDown(one, { faults: [] }, { faults: [...faults] }, tx),
    );
  }
  expect(await hoursRecorded(shop, piece)).toEqual({ buy: [3.5], donor: [2] });

  // Where somebody said what a choice took in the end, that goes instead.
  const option = { id: 'o', of: 'buy', name: '', hours: [1, 2, 3], material: 0, price: 90 };
  const choice = { option: 'o', why: '', at: new Date().toISOString(), hoursTaken: 6 };
  await pool.query(
    `update pieces set survey = survey || $1::jsonb where kind = 'bought' and cut_down @> '{"faults":[{"hours":3}]}'`,
    [JSON.stringify({ options: [option], choice })],
  );
  expect(await hoursRecorded(shop, piece)).toEqual({ buy: [6], donor: [2] });
});
