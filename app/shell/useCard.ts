import { useCallback, useEffect, useRef, useState } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import type { CardState } from '../records/revisions.server';

export type SaveStatus = 'saved' | 'saving' | 'kept' | 'conflict';

export type CardEditor = {
  pattern: PatternDoc;
  /** The revision in use as far as this page knows. */
  revision: number;
  status: SaveStatus;
  savedAt: string | null;
  canUndo: boolean;
  canRedo: boolean;
  /** The card as another page saved it, while this one has edits of its own. */
  theirs: CardState | null;
  edit: (next: PatternDoc) => void;
  undo: () => void;
  redo: () => void;
  /** Ends a conflict: put this page's card on top of the other, or drop it for the other. */
  settle: (which: 'mine' | 'theirs') => void;
};

type Kept = { base: number; pattern: PatternDoc; at: number };

const SAVE_AFTER_MS = 450;
/** A corner being dragged makes an edit a frame; the browser's store is written when the hand rests. */
const KEEP_AFTER_MS = 100;
const RETRY_MS = 2500;
/** A page that lives writes its kept edit anew at every retry; one older than this was left behind. */
const ORPHAN_MS = 20_000;

const keyOf = (piece: string, tab: string) => `patrone:card:${piece}:${tab}`;

function tabId(): string {
  const known = sessionStorage.getItem('patrone:tab');
  if (known) return known;
  const made = crypto.randomUUID();
  sessionStorage.setItem('patrone:tab', made);
  return made;
}

/** An edit that did not reach the server before this page was closed or loaded again. */
function keptEdit(piece: string): { key: string; kept: Kept } | null {
  const prefix = keyOf(piece, '');
  const own = keyOf(piece, tabId());
  const keys = Object.keys(localStorage).filter((key) => key.startsWith(prefix));
  for (const key of [own, ...keys.filter((key) => key !== own)]) {
    try {
      const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as Kept | null;
      if (!kept || (key !== own && Date.now() - kept.at < ORPHAN_MS)) continue;
      // Written by this page's own code; the server checks it again before it is stored.
      if (kept.pattern.version === 1) return { key, kept };
    } catch {
      localStorage.removeItem(key);
    }
  }
  return null;
}

/**
 * The card being edited: every edit shows at once, is kept in the browser, and is saved as a revision a moment later.
 * When the server does not answer the edit stays kept and is tried again; when another page saved first, both are held
 * until the user chooses.
 */
export function useCard(piece: string, loaded: CardState, onSaved: () => void): CardEditor {
  const [pattern, setPattern] = useState(loaded.pattern);
  const [server, setServer] = useState(loaded);
  const [status, setStatus] = useState<SaveStatus>('saved');
  const [theirs, setTheirs] = useState<CardState | null>(null);
  // What the saving loop works on; state above is only what is shown of it.
  const work = useRef({
    pattern: loaded.pattern,
    base: loaded.revision,
    dirty: false,
    busy: false,
    held: false,
    sending: Promise.resolve(),
  });
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const keeping = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const retry = useRef<() => void>(() => undefined);
  const saved = useRef(onSaved);
  useEffect(() => {
    saved.current = onSaved;
  });

  const keep = useCallback(() => {
    const { base, pattern: doc } = work.current;
    const kept: Kept = { base, pattern: doc, at: Date.now() };
    localStorage.setItem(keyOf(piece, tabId()), JSON.stringify(kept));
  }, [piece]);

  const adopt = useCallback((card: CardState) => {
    work.current.base = card.revision;
    setServer(card);
  }, []);

  const post = useCallback(
    async (body: object): Promise<{ kind: 'saved' | 'stale' | 'unreachable'; card?: CardState }> => {
      try {
        const response = await fetch(`/pieces/${piece}/revisions`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(body),
        });
        if (response.status === 409) return { kind: 'stale', card: (await response.json()) as CardState };
        if (!response.ok) return { kind: 'unreachable' };
        return { kind: 'saved', card: (await response.json()) as CardState };
      } catch {
        return { kind: 'unreachable' };
      }
    },
    [piece],
  );

  const sendNow = useCallback(async (): Promise<void> => {
    const w = work.current;
    clearTimeout(timer.current);
    if (!w.dirty || w.busy || w.held) return;
    w.busy = true;
    const sent = w.pattern;
    setStatus((now) => (now === 'kept' ? now : 'saving'));
    const answer = await post({ intent: 'save', base: w.base, pattern: sent });
    w.busy = false;
    if (answer.kind === 'unreachable') {
      keep();
      setStatus('kept');
      timer.current = setTimeout(() => retry.current(), RETRY_MS);
      return;
    }
    if (answer.kind === 'stale') {
      w.held = true;
      setTheirs(answer.card!);
      setStatus('conflict');
      return;
    }
    adopt(answer.card!);
    if (w.pattern === sent) {
      w.dirty = false;
      clearTimeout(keeping.current);
      localStorage.removeItem(keyOf(piece, tabId()));
      setStatus('saved');
      saved.current();
    } else {
      keep();
      timer.current = setTimeout(() => retry.current(), SAVE_AFTER_MS);
    }
  }, [adopt, keep, piece, post]);
  const save = useCallback((): Promise<void> => {
    if (!work.current.busy) work.current.sending = sendNow();
    return work.current.sending;
  }, [sendNow]);
  useEffect(() => {
    retry.current = () => void save();
  }, [save]);

  const edit = useCallback(
    (next: PatternDoc) => {
      work.current.pattern = next;
      work.current.dirty = true;
      setPattern(next);
      setStatus((now) => (now === 'saved' ? 'saving' : now));
      clearTimeout(keeping.current);
      keeping.current = setTimeout(keep, KEEP_AFTER_MS);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void save(), SAVE_AFTER_MS);
    },
    [keep, save],
  );

  const step = useCallback(
    async (intent: 'undo' | 'redo') => {
      const w = work.current;
      // First whatever is on its way, then whatever is not: one steps back from what the server has.
      await w.sending;
      await save();
      if (w.dirty || w.held || w.busy) return;
      const answer = await post({ intent, base: w.base });
      if (answer.kind === 'unreachable') return setStatus('kept');
      // Nothing of one's own is unsaved, so the other page's card is simply taken.
      adopt(answer.card!);
      w.pattern = answer.card!.pattern;
      setPattern(answer.card!.pattern);
      setStatus('saved');
      saved.current();
    },
    [adopt, post, save],
  );

  const settle = useCallback(
    async (which: 'mine' | 'theirs') => {
      const w = work.current;
      if (!theirs || w.busy) return;
      w.base = theirs.revision;
      w.held = false;
      setTheirs(null);
      await save();
      // The other card is taken by stepping back from one's own, which so stays in the history, a redo away.
      if (which === 'theirs' && !w.held && !w.dirty) await step('undo');
    },
    [save, step, theirs],
  );

  // Once, when the page is there: take up an edit that was kept from before.
  useEffect(() => {
    const taking = setTimeout(() => {
      const found = keptEdit(piece);
      if (!found) return;
      localStorage.removeItem(found.key);
      work.current.base = found.kept.base;
      edit(found.kept.pattern);
    }, 0);
    const leaving = () => work.current.dirty && keep();
    window.addEventListener('pagehide', leaving);
    return () => {
      clearTimeout(taking);
      window.removeEventListener('pagehide', leaving);
      leaving();
      clearTimeout(timer.current);
      clearTimeout(keeping.current);
    };
  }, [edit, keep, piece]);

  return {
    pattern,
    revision: server.revision,
    status,
    savedAt: server.savedAt,
    canUndo: server.canUndo,
    canRedo: server.canRedo && status === 'saved',
    theirs,
    edit,
    undo: useCallback(() => void step('undo'), [step]),
    redo: useCallback(() => void step('redo'), [step]),
    settle: useCallback((which: 'mine' | 'theirs') => void settle(which), [settle]),
  };
}
