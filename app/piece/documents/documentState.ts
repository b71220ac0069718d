import type { Problem } from '#core/measure/result';
import type { DocState } from '../../records/documents.server';

/**
 * `saved` and `saving` as they say; `kept` in the browser because the server does not answer;
 * `refused` by the server for a reason, and not tried again as it is; `conflict` with what another
 * page saved.
 */
export type SaveStatus = 'saved' | 'saving' | 'kept' | 'refused' | 'conflict';

/** What the server said to a save or a step. */
export type Answer<Doc> =
  | { kind: 'saved'; state: DocState<Doc> }
  | { kind: 'stale'; state: DocState<Doc> }
  | { kind: 'refused'; problems: Problem[]; message: string }
  | { kind: 'unreachable' };

/** A document being edited on this page, and what is known of it on the server. */
export type Editing<Doc> = {
  doc: Doc;
  /** What the change that is not saved is about, as the history tells it. */
  about: string;
  /** As the server last had it; an edit is saved as one made from this. */
  server: DocState<Doc>;
  /** What is on its way to the server, if anything. */
  sent: Doc | null;
  status: SaveStatus;
  refusal: { problems: Problem[]; message: string } | null;
  /** The document as another page saved it, while this one has edits of its own. */
  theirs: DocState<Doc> | null;
};

export type Happening<Doc> =
  | { what: 'edited'; doc: Doc; about: string }
  | { what: 'taken-up'; doc: Doc; base: number }
  | { what: 'sending' }
  | { what: 'answered'; answer: Answer<Doc> }
  | { what: 'stepped'; answer: Answer<Doc> }
  | { what: 'given-up' }
  | { what: 'settling' }
  | { what: 'loaded'; state: DocState<Doc> };

export const beginning = <Doc>(server: DocState<Doc>): Editing<Doc> => ({
  doc: server.doc,
  about: '',
  server,
  sent: null,
  status: 'saved',
  refusal: null,
  theirs: null,
});

/** Whether there is something on this page that the server does not have. */
export const isDirty = <Doc>(e: Editing<Doc>): boolean => e.doc !== e.server.doc;
/**
 * Whether the page should send what it has: not while something is on its way, and not again what
 * was refused.
 */
export const shouldSend = <Doc>(e: Editing<Doc>): boolean =>
  isDirty(e) && e.sent === null && e.status !== 'refused' && e.status !== 'conflict';

/** Whether one state may have been read before another was. */
const isOlder = <Doc>(one: DocState<Doc>, other: DocState<Doc>): boolean =>
  one.asOf !== undefined && other.asOf !== undefined && one.asOf < other.asOf;

/**
 * The server's state with this page's own copy of the document in it, so that what did not change
 * stays the same object.
 */
const holding = <Doc>(state: DocState<Doc>, doc: Doc): DocState<Doc> => ({ ...state, doc });

/**
 * One document being edited: every answer the server can give, at any moment. Pure, so that each
 * order can be tried.
 */
export function editing<Doc>(now: Editing<Doc>, happened: Happening<Doc>): Editing<Doc> {
  switch (happened.what) {
    case 'edited': {
      const status = now.status === 'conflict' || now.status === 'kept' ? now.status : 'saving';
      return { ...now, doc: happened.doc, about: happened.about, status, refusal: null };
    }
    case 'taken-up':
      return {
        ...now,
        doc: happened.doc,
        server: { ...now.server, number: happened.base },
        status: 'saving',
      };
    case 'sending':
      return shouldSend(now)
        ? { ...now, sent: now.doc, status: now.status === 'kept' ? 'kept' : 'saving' }
        : now;
    case 'answered': {
      const { answer } = happened;
      const { sent } = now;
      if (sent === null) return now;
      const rest = { ...now, sent: null };
      if (answer.kind === 'unreachable') return { ...rest, status: 'kept' };
      if (answer.kind === 'refused') {
        // What was refused may have been mended meanwhile: then the mended one is sent.
        return now.doc === sent
          ? { ...rest, status: 'refused', refusal: answer }
          : { ...rest, status: 'saving' };
      }
      if (answer.kind === 'stale') return { ...rest, status: 'conflict', theirs: answer.state };
      const server = holding(answer.state, sent);
      return { ...rest, server, status: now.doc === sent ? 'saved' : 'saving' };
    }
    case 'stepped': {
      const { answer } = happened;
      if (answer.kind === 'unreachable')
        return { ...now, status: isDirty(now) ? now.status : 'kept' };
      if (answer.kind === 'refused') return { ...now, status: 'refused', refusal: answer };
      // Nothing of one's own was unsaved, so another page's document is simply taken.
      return { ...beginning(answer.state) };
    }
    case 'given-up':
      return { ...beginning(now.server) };
    case 'settling':
      return now.theirs
        ? { ...now, about: '', server: now.theirs, theirs: null, status: 'saving' }
        : now;
    case 'loaded':
      // Read anew with the page: taken only where this page has nothing of its own, and not where
      // it was read before the last answer was given. A page that is gone to while a save is on its
      // way reads what was there before.
      if (isOlder(happened.state, now.server)) return now;
      if (isDirty(now) || now.sent !== null || happened.state.number === now.server.number)
        return now;
      return beginning(happened.state);
  }
}
