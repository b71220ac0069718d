import type { Held } from '#core/card/crownParts';
import { heldParts, namingHeld, withParts } from '#core/card/crownParts';
import type { DocState } from '../../records/documents.server';
import type { Answer } from './documentState';

const HOLDS_NOTHING: Held = { doc: null, parts: {} };

/**
 * Asks the server to save a document (`doc`) or to step in its history; never throws. The heavy parts
 * that this page holds, and so has the server, are named in both directions and not sent.
 */
export async function ask<Doc>(
  url: string,
  body: { intent: string; base: number; doc?: Doc; about?: string; by?: string },
  held: Held = HOLDS_NOTHING,
): Promise<Answer<Doc>> {
  const mine = heldParts(held);
  const lighter = body.doc === undefined ? {} : { doc: namingHeld(body.doc, held) };
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ ...body, ...lighter, known: Object.keys(mine) }),
    });
    if (response.ok || response.status === 409) {
      const state = (await response.json()) as DocState<Doc>;
      return {
        kind: response.ok ? 'saved' : 'stale',
        state: { ...state, doc: withParts(state.doc, mine) as Doc },
      };
    }
    // The server has let go of a part that was only named.
    if (response.status === 428 && held !== HOLDS_NOTHING) return await ask(url, body);
    // Refused is not unreachable: trying again would be refused again.
    if (response.status >= 400 && response.status < 500) {
      const said = (await response.json().catch(() => ({}))) as Partial<
        Extract<Answer<Doc>, { kind: 'refused' }>
      >;
      return {
        kind: 'refused',
        problems: said.problems ?? [],
        message: said.message ?? 'The server would not take it.',
      };
    }
    return { kind: 'unreachable' };
  } catch {
    return { kind: 'unreachable' };
  }
}
