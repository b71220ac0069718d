import fc from 'fast-check';
import type { DocState } from '../../records/documents.server';
import type { Answer, Editing, Happening } from './documentState';
import { beginning, editing, isDirty, shouldSend } from './documentState';

type Doc = { text: string };
const state = (number: number, text: string): DocState<Doc> => ({
  number,
  doc: { text },
  parts: {},
  canUndo: number > 0,
  canRedo: false,
  savedAt: null,
  broken: null,
});
const start = beginning(state(1, 'first'));
const after = (...all: Happening<Doc>[]): Editing<Doc> => all.reduce<Editing<Doc>>(editing, start);
const edited = (text: string): Happening<Doc> => ({ what: 'edited', doc: { text }, about: '' });
const answered = (answer: Answer<Doc>): Happening<Doc> => ({ what: 'answered', answer });
const sending: Happening<Doc> = { what: 'sending' };
const refused: Answer<Doc> = { kind: 'refused', problems: [], message: 'too long' };

test('an edit is saved, and what was edited meanwhile goes after it', () => {
  const saved = after(
    edited('second'),
    sending,
    answered({ kind: 'saved', state: state(2, 'second') }),
  );
  expect(saved).toMatchObject({ status: 'saved', doc: { text: 'second' }, server: { number: 2 } });
  expect(isDirty(saved)).toBe(false);
  const more = after(
    edited('second'),
    sending,
    edited('third'),
    answered({ kind: 'saved', state: state(2, 'second') }),
  );
  expect(more).toMatchObject({ doc: { text: 'third' }, server: { number: 2 }, status: 'saving' });
  expect(shouldSend(more)).toBe(true);
});

test('what was read before a save was answered does not come back in its place; what was read after it is taken, also where it is older', () => {
  const read = (number: number, text: string, asOf: number) => ({ ...state(number, text), asOf });
  const saved = after(
    edited('second'),
    sending,
    answered({ kind: 'saved', state: read(2, 'second', 100) }),
  );
  expect(editing(saved, { what: 'loaded', state: read(1, 'first', 99) })).toBe(saved);
  expect(editing(saved, { what: 'loaded', state: read(3, 'third', 101) })).toMatchObject({
    doc: { text: 'third' },
  });
  // Another page went one step back.
  expect(editing(saved, { what: 'loaded', state: read(1, 'first', 101) })).toMatchObject({
    doc: { text: 'first' },
  });
});

test('refused is not unreachable: it is told, not tried again as it is, and undo lets it go', () => {
  const told = after(edited('bad'), sending, answered(refused));
  expect(told).toMatchObject({
    status: 'refused',
    doc: { text: 'bad' },
    refusal: { message: 'too long' },
  });
  expect(shouldSend(told)).toBe(false);
  expect(editing(told, { what: 'given-up' })).toMatchObject({
    status: 'saved',
    doc: { text: 'first' },
    refusal: null,
  });
  const mended = editing(told, edited('good'));
  expect(shouldSend(mended)).toBe(true);
  expect(mended.refusal).toBeNull();
  // Mended while it was on its way: the mended one is sent.
  expect(shouldSend(after(edited('bad'), sending, edited('good'), answered(refused)))).toBe(true);
  const away = after(edited('kept'), sending, answered({ kind: 'unreachable' }));
  expect(away.status).toBe('kept');
  expect(shouldSend(away)).toBe(true);
});

test('saved elsewhere first: both are held until it is chosen, whatever is edited meanwhile', () => {
  const stale = after(
    edited('mine'),
    sending,
    answered({ kind: 'stale', state: state(5, 'theirs') }),
  );
  expect(stale).toMatchObject({ status: 'conflict', doc: { text: 'mine' }, theirs: { number: 5 } });
  const still = editing(stale, edited('mine too'));
  expect([still.status, shouldSend(still)]).toEqual(['conflict', false]);
  const settled = editing(still, { what: 'settling' });
  expect(settled).toMatchObject({
    theirs: null,
    server: { number: 5 },
    doc: { text: 'mine too' },
    about: '',
  });
  expect(shouldSend(settled)).toBe(true);
});

test('whatever happens in whatever order, the newest edit is never lost unless it is given up', () => {
  const answer: fc.Arbitrary<Answer<Doc>> = fc.oneof(
    fc
      .integer({ min: 2, max: 9 })
      .map((n) => ({ kind: 'saved' as const, state: state(n, 'from the server') })),
    fc
      .integer({ min: 2, max: 9 })
      .map((n) => ({ kind: 'stale' as const, state: state(n, 'theirs') })),
    fc.constant(refused),
    fc.constant({ kind: 'unreachable' as const }),
  );
  const happening: fc.Arbitrary<Happening<Doc>> = fc.oneof(
    fc.string({ minLength: 1, maxLength: 3 }).map(edited),
    fc.constant(sending),
    answer.map(answered),
    fc.constant<Happening<Doc>>({ what: 'settling' }),
    fc
      .integer({ min: 2, max: 9 })
      .map((n): Happening<Doc> => ({ what: 'loaded', state: state(n, 'loaded') })),
  );
  fc.assert(
    fc.property(fc.array(happening, { maxLength: 30 }), (list) => {
      let now = start;
      let newest: Doc | null = null;
      for (const happened of list) {
        const next = editing(now, happened);
        if (happened.what === 'edited') newest = happened.doc;
        // Only what was saved may be replaced by what is loaded.
        if (happened.what === 'loaded' && next !== now) newest = null;
        now = next;
        if (newest) expect(now.doc).toBe(newest);
        expect(now.theirs !== null).toBe(now.status === 'conflict');
        if (now.status === 'saved') expect(isDirty(now)).toBe(false);
        if (now.status === 'refused') expect(shouldSend(now)).toBe(false);
      }
    }),
  );
});
