import type { DocumentKind, Documents } from '#core/format/documents';
import { kept } from '../../forms/browserStore';

/** An edit as the browser keeps it: from which version, when it was written, and by which page. */
type Kept<Doc> = { base: number; doc: Doc; at: number; by?: string };

/**
 * A page that lives writes its kept edit anew at every retry; one older than this was left behind.
 */
const ORPHAN_MS = 20_000;

const keyOf = (piece: string, kind: DocumentKind, tab: string) => `patrone:${kind}:${piece}:${tab}`;

/** This page, among those of this browser. */
export function tabId(): string {
  const known = sessionStorage.getItem('patrone:tab');
  if (known) return known;
  const made = crypto.randomUUID();
  sessionStorage.setItem('patrone:tab', made);
  return made;
}

/** Keeps an edit of this page, in place of what it kept before. */
export const keepEdit = <Doc>(
  piece: string,
  kind: DocumentKind,
  edit: { base: number; doc: Doc; by: string },
): void => kept.set(keyOf(piece, kind, tabId()), JSON.stringify({ ...edit, at: Date.now() }));

/** Lets go of what this page kept. */
export const dropEdit = (piece: string, kind: DocumentKind): void =>
  kept.remove(keyOf(piece, kind, tabId()));

/** An edit that did not reach the server before this page was closed or loaded again. */
export async function keptEdit<K extends DocumentKind>(
  piece: string,
  kind: K,
): Promise<{ base: number; doc: Documents[K]; by: string; drop: () => void } | null> {
  const own = keyOf(piece, kind, tabId());
  const keys = kept.keys(keyOf(piece, kind, ''));
  for (const key of [own, ...keys.filter((key) => key !== own)]) {
    const text = kept.get<string>(key);
    if (text === null) continue;
    // Through the one door, like anything else: it may have been written by an older program.
    // Loaded only when needed.
    const { DOCUMENTS } = await import('#core/format/documents');
    try {
      const edit = JSON.parse(text) as Partial<Kept<unknown>> & { pattern?: unknown };
      if (key !== own && Date.now() - (edit.at ?? 0) < ORPHAN_MS) continue;
      const read = DOCUMENTS[kind].read(edit.doc ?? edit.pattern);
      if (read.ok && typeof edit.base === 'number')
        return {
          base: edit.base,
          doc: read.doc,
          by: edit.by ?? '',
          drop: () => kept.remove(key),
        };
    } catch {
      // Not JSON: nothing of ours.
    }
    kept.remove(key);
  }
  return null;
}
