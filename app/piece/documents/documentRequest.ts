import type { DocState } from '../../records/documents.server';
import type { Answer } from './documentState';

/** Asks the server to save a document or to step in its history; never throws. */
export async function ask<Doc>(url: string, body: object): Promise<Answer<Doc>> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (response.ok || response.status === 409) {
      return {
        kind: response.ok ? 'saved' : 'stale',
        state: (await response.json()) as DocState<Doc>,
      };
    }
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
