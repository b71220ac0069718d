import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { emptyPattern } from '#core/card/emptyPattern';
import type { PatternDoc } from '#core/card/pattern';
import { action } from '../piece/documents/documents';
import { dbOf } from './database.server';
import { cardOf, historyOf, saveDocument, stepDocument } from './documents.server';
import type { CardState } from './documents.server';
import { newPiece, onEmptyDatabase, posted } from './emptyDatabase';
import { duplicatePiece } from './pieces.server';
import { documents, surfaces } from './schema.server';
import { Viewer } from './viewer.server';
import { wholePiece } from './wholePiece.server';

onEmptyDatabase();

const { shop } = Viewer;

/** A card that differs from others by `x`. */
const card = (x: number): PatternDoc => ({ ...emptyPattern(), base: [x, 0] });

/** A card laid flat from a panel, with a map of `lines` lines: it is heavy above some fifteen. */
const crowned = (lines: number, x = 0): PatternDoc => ({
  ...card(x),
  crown: {
    made: { kind: 'barrel', alongMm: 950, acrossMm: 190, lengthMm: 340, widthMm: 210 },
    ...{ balance: 0.5, part: null, turned: false, keep: [], hold: [], edges: [], raise: null },
    ...{ panelMm2: 100, blankMm2: 100, stretch: 0.1, shrink: 0.1 },
    map: {
      lines: Array.from({ length: lines }, (_, i) => ({
        ...{ way: 'stretch' as const, value: 0.01, closed: false },
        places: Array.from({ length: 20 }, (_, k) => [i, k] as [number, number]),
      })),
      ...{ marks: [], tracks: [] },
    },
  },
});

const docOf = (state: CardState | undefined): PatternDoc => state!.doc;
const sure = <T>(value: T | null): T => {
  if (value === null) throw new Error('there is no such piece');
  return value;
};

test('whatever is saved, undone and redone: no version is lost but fine tuning, and each way back leads forth again', async () => {
  const { piece } = await newPiece();
  const step = fc.oneof(
    { weight: 4, arbitrary: fc.constantFrom('', 'edge a', 'edge b').map((about) => ({ about })) },
    fc.constantFrom('undo' as const, 'redo' as const),
    fc.constant('stale' as const),
  );
  let saves = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 12 }), async (steps) => {
      for (const one of steps) {
        const before = await cardOf(shop, piece);
        if (one === 'stale') {
          const base = before.number + 1;
          const found = sure(await saveDocument(shop, piece, 'card', base, card(-1), '', 'other'));
          expect(found).toEqual({ kind: 'stale', state: before });
        } else if (typeof one === 'string') {
          const found = sure(
            await stepDocument(shop, piece, 'card', before.number, one, () => true),
          );
          const moves = one === 'undo' ? before.canUndo : before.canRedo;
          expect(found.state.number !== before.number).toBe(moves);
          if (!moves) continue;
          const back = one === 'undo' ? 'redo' : 'undo';
          const again = sure(
            await stepDocument(shop, piece, 'card', found.state.number, back, () => true),
          );
          // The newest branch is the one that is gone forth to: another may have been come from.
          if (one === 'redo') expect(again.state).toEqual(before);
          await stepDocument(shop, piece, 'card', again.state.number, one, () => true);
        } else {
          const doc = card(++saves);
          const { state } = sure(
            await saveDocument(shop, piece, 'card', before.number, doc, one.about, 'me'),
          );
          expect(state.doc).toEqual(doc);
          const undone = sure(
            await stepDocument(shop, piece, 'card', state.number, 'undo', () => true),
          );
          // Back to what was before, or, where both were fine tuning of one thing, before both.
          const versions = (await historyOf(shop, piece, 'card')).versions.map((v) => v.number);
          if (one.about === '' || before.number === 0)
            expect(undone.state.number).toBe(before.number);
          else if (undone.state.number !== before.number)
            expect(versions).not.toContain(before.number);
          expect(undone.state.canRedo).toBe(true);
          const redone = await stepDocument(
            ...([shop, piece, 'card', undone.state.number, 'redo', () => true] as const),
          );
          expect(docOf(sure(redone).state)).toEqual(doc);
        }
      }
      const { versions, current } = await historyOf(shop, piece, 'card');
      const numbers = new Set(versions.map((v) => v.number));
      expect(numbers.size).toBe(versions.length);
      for (const { number, parent } of versions) {
        expect(parent).toBeLessThan(number);
        if (parent > 0) expect(numbers).toContain(parent);
      }
      if (current > 0) expect(numbers).toContain(current);
    }),
    { numRuns: 15 },
  );
});

test('of a page whose answers were lost its own versions are its own; another page’s are not', async () => {
  const { piece } = await newPiece();
  const save = async (base: number, x: number, by: string) =>
    sure(await saveDocument(shop, piece, 'card', base, card(x), '', by));
  expect((await save(0, 1, 'mine')).kind).toBe('saved');
  expect((await save(0, 2, 'mine')).kind).toBe('saved');
  expect((await save(0, 3, 'other')).kind).toBe('stale');
  // The same document again is no quarrel, whoever sends it.
  expect((await save(0, 2, 'other')).kind).toBe('saved');
  expect((await historyOf(shop, piece, 'card')).versions).toHaveLength(2);
});

const kept = async (piece: string) =>
  (await dbOf(shop).select().from(surfaces).where(eq(surfaces.piece, piece))).length;

test('the heavy parts of a card are kept once, read with it everywhere, and let go with the last that names them', async () => {
  const { piece } = await newPiece();
  const save = async (base: number, doc: PatternDoc, about = '') =>
    sure(await saveDocument(shop, piece, 'card', base, doc, about)).state;
  let state = await save(0, crowned(60));
  for (let x = 1; x <= 4; x++) state = await save(state.number, crowned(60, x));
  expect(await kept(piece)).toBe(1);
  const rows = await dbOf(shop).select().from(documents).where(eq(documents.piece, piece));
  for (const { body } of rows) expect(JSON.stringify(body).length).toBeLessThan(2000);
  // By each of the ways in which a card is read.
  expect((await cardOf(shop, piece)).doc).toEqual(crowned(60, 4));
  expect((await wholePiece(shop, piece))!.card).toMatchObject({ doc: crowned(60, 4) });
  const { versions } = await historyOf(shop, piece, 'card');
  expect(versions.map(({ doc }) => doc)).toEqual([0, 1, 2, 3, 4].map((x) => crowned(60, x)));
  const copy = sure(await dbOf(shop).transaction((tx) => duplicatePiece(shop, piece, tx)));
  expect((await cardOf(shop, copy)).doc).toEqual(crowned(60, 4));
  // A light one stays in its card.
  state = await save(state.number, crowned(2));
  expect(state.parts).toEqual({});
  expect(await kept(piece)).toBe(1);
  // Fine tuning of the panel leaves nothing behind but what the last of it names.
  for (let lines = 30; lines < 35; lines++) state = await save(state.number, crowned(lines), 'map');
  expect(await kept(piece)).toBe(2);
  expect((await cardOf(shop, piece)).doc).toEqual(crowned(34));
});

test('a page names what the server has, and is told to send what it has not', async () => {
  const { piece } = await newPiece();
  const post = async (body: object, to = piece) => {
    const params = { pieceId: to, kind: 'card' };
    return posted<CardState>(action, params, { intent: 'save', ...body });
  };
  const first = await post({ base: 0, doc: crowned(60) });
  expect(first).toMatchObject({ status: 200, answer: { doc: crowned(60) } });
  const id = first.answer.parts['crown.map']!;
  const named = { ...crowned(60, 7), crown: { ...crowned(60).crown, map: { surface: id } } };
  const second = await post({ base: 1, doc: named, known: [id] });
  expect(second.status).toBe(200);
  expect(second.answer.doc.crown!.map).toEqual({ surface: id });
  expect((await cardOf(shop, piece)).doc).toEqual(crowned(60, 7));
  const undone = await post({ intent: 'undo', base: 2, known: [id] });
  expect(undone.answer.doc.crown!.map).toEqual({ surface: id });
  // Of another piece, or of none: nothing is taken from elsewhere.
  const strange = { ...named, crown: { ...named.crown, map: { surface: 'nobody’s' } } };
  expect((await post({ base: 1, doc: strange })).status).toBe(428);
  const { piece: elsewhere } = await newPiece();
  expect((await post({ base: 0, doc: named }, elsewhere)).status).toBe(428);
});
