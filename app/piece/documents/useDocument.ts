import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import type { DocumentKind, Documents } from '#core/format/documents';
import type { DocState, Step } from '../../records/documents.server';
import type { Answer, Editing, Happening, SaveStatus } from './documentState';
import { ask } from './documentRequest';
import { beginning, editing, isDirty, shouldSend } from './documentState';
import { dropEdit, keepEdit, keptEdit, tabId } from './keptEdit';

export type Editor<Doc> = {
  doc: Doc;
  /** The version in use as far as this page knows. */
  number: number;
  status: SaveStatus;
  savedAt: string | null;
  canUndo: boolean;
  canRedo: boolean;
  refusal: Editing<Doc>['refusal'];
  theirs: DocState<Doc> | null;
  /**
   * `about` names the thing changed: changes about one thing in a row are one step of the history.
   */
  edit: (next: Doc, about?: string) => void;
  /** Comes back with the document before and after, or null where nothing was to be done. */
  undo: () => Promise<Moved<Doc>>;
  redo: () => Promise<Moved<Doc>>;
  /** Back to the nearest version that can be read and, for a card, gives a blank. */
  lastGood: () => void;
  /** Ends a conflict: put this page's document on top of the other, or drop it for the other. */
  settle: (which: 'mine' | 'theirs') => void;
};

export type Moved<Doc> = { from: Doc; to: Doc } | null;

const SAVE_AFTER_MS = 450;
/**
 * A corner being dragged makes an edit a frame; the browser's store is written when the hand rests.
 */
const KEEP_AFTER_MS = 100;
const RETRY_MS = 2500;
const asEdited = <Doc>(_: Doc, edited: Doc): Doc => edited;
/**
 * A document being edited: every edit shows at once, is kept in the browser, and is saved as a
 * version a moment later. When the server does not answer the edit stays kept and is tried again;
 * when it refuses, that is told and not tried again; when another page saved first, both are held
 * until the user chooses. `follow` makes of an edit what follows from it.
 */
export function useDocument<K extends DocumentKind>(
  piece: string,
  kind: K,
  loaded: DocState<Documents[K]>,
  version: number,
  follow: (before: Documents[K], edited: Documents[K]) => Documents[K] = asEdited,
): Editor<Documents[K]> {
  type Doc = Documents[K];
  const [shown, show] = useReducer(
    (_: Editing<Doc>, next: Editing<Doc>) => next,
    loaded,
    beginning<Doc>,
  );
  // What the driver works on: `shown` follows it, and is what is drawn.
  const work = useRef(shown);
  // This page, to the server: what it wrote itself is no other page's, though the answer was lost
  // on the way.
  const [own] = useState((): string => crypto.randomUUID());
  const by = useRef(own);
  const sending = useRef(Promise.resolve());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const keeping = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const happen = useCallback((happened: Happening<Doc>) => {
    work.current = editing(work.current, happened);
    show(work.current);
  }, []);

  const keep = useCallback(() => {
    const { doc, server } = work.current;
    keepEdit(piece, kind, { base: server.number, doc, by: by.current });
  }, [kind, piece]);

  /** A newer program has answered: this page starts over with it, its own edit kept. */
  const outgrown = useCallback(
    (answer: Answer<Doc>): boolean => {
      if (!('state' in answer) || answer.state.doc.version <= version) return false;
      if (isDirty(work.current)) keep();
      location.reload();
      return true;
    },
    [keep, version],
  );

  const url = `/pieces/${piece}/documents/${kind}`;
  const sendNow = useCallback(async (): Promise<void> => {
    clearTimeout(timer.current);
    if (!shouldSend(work.current)) return;
    happen({ what: 'sending' });
    const { doc, about, server } = work.current;
    // Only what one page did in a row is fine tuning: another page's version is never thinned.
    const tuned = about === '' ? '' : `${about} ${tabId()}`.slice(0, 80);
    const answer = await ask<Doc>(
      url,
      { intent: 'save', base: server.number, doc, about: tuned, by: by.current },
      server,
    );
    if (outgrown(answer)) return;
    happen({ what: 'answered', answer });
    clearTimeout(keeping.current);
    if (isDirty(work.current)) keep();
    else dropEdit(piece, kind);
  }, [happen, keep, kind, outgrown, piece, url]);
  const save = useCallback((): Promise<void> => {
    if (work.current.sent === null) sending.current = sendNow();
    return sending.current;
  }, [sendNow]);

  // Whatever is not saved is sent a moment after the last edit, or tried again while the server
  // does not answer.
  const { doc, sent, status } = shown;
  useEffect(() => {
    if (!shouldSend(shown)) return;
    timer.current = setTimeout(() => void save(), status === 'kept' ? RETRY_MS : SAVE_AFTER_MS);
    return () => clearTimeout(timer.current);
  }, [doc, sent, status, save, shown]);

  const edit = useCallback(
    (next: Doc, about = '') => {
      happen({ what: 'edited', doc: follow(work.current.doc, next), about });
      clearTimeout(keeping.current);
      keeping.current = setTimeout(keep, KEEP_AFTER_MS);
    },
    [follow, happen, keep],
  );

  const step = useCallback(
    async (intent: Step): Promise<Moved<Doc>> => {
      const from = work.current.doc;
      if (work.current.status === 'refused') {
        // What was refused is nowhere but here: undo lets it go.
        if (intent === 'redo') return null;
        dropEdit(piece, kind);
        clearTimeout(keeping.current);
        happen({ what: 'given-up' });
        return { from, to: work.current.doc };
      }
      // First whatever is on its way, then whatever is not: one steps back from what the server
      // has.
      await sending.current;
      await save();
      const now = work.current;
      if (isDirty(now) || now.theirs || now.sent !== null) return null;
      const answer = await ask<Doc>(url, { intent, base: now.server.number }, now.server);
      if (outgrown(answer)) return null;
      happen({ what: 'stepped', answer });
      return answer.kind === 'saved' ? { from, to: work.current.doc } : null;
    },
    [happen, kind, outgrown, piece, save, url],
  );

  const settle = useCallback(
    async (which: 'mine' | 'theirs') => {
      if (!work.current.theirs || work.current.sent !== null) return;
      happen({ what: 'settling' });
      await save();
      // The other one is taken by stepping back from one's own, which so stays in the history, a
      // redo away.
      if (which === 'theirs' && !isDirty(work.current) && !work.current.theirs) await step('undo');
    },
    [happen, save, step],
  );

  useEffect(() => happen({ what: 'loaded', state: loaded }), [happen, loaded]);

  // Once, when the page is there: take up an edit that was kept from before.
  useEffect(() => {
    let here = true;
    void keptEdit(piece, kind).then((found) => {
      if (!found || !here) return;
      found.drop();
      // It goes on as the page that made it, which is no more.
      if (found.by !== '') by.current = found.by;
      happen({ what: 'taken-up', doc: found.doc, base: found.base });
      keep();
    });
    const leaving = () => isDirty(work.current) && keep();
    window.addEventListener('pagehide', leaving);
    return () => {
      here = false;
      window.removeEventListener('pagehide', leaving);
      leaving();
      clearTimeout(timer.current);
      clearTimeout(keeping.current);
    };
  }, [happen, keep, kind, piece]);

  const steps = useMemo(
    () => ({
      edit,
      undo: () => step('undo'),
      redo: () => step('redo'),
      lastGood: () => void step('last-good'),
      settle: (which: 'mine' | 'theirs') => void settle(which),
    }),
    [edit, settle, step],
  );
  return useMemo(() => {
    const { server, refusal, theirs } = shown;
    return {
      doc: shown.doc,
      number: server.number,
      status: shown.status,
      savedAt: server.savedAt,
      canUndo: server.canUndo || shown.status === 'refused',
      canRedo: server.canRedo && shown.status === 'saved',
      refusal,
      theirs,
      ...steps,
    };
  }, [shown, steps]);
}
