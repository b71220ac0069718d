import type { RouterContextProvider } from 'react-router';
import { createContext } from 'react-router';
import { toldInstead, troubleMet } from './trouble.server';

/**
 * Who asks. Every query takes one first, and the database is handed out to none without (`dbOf`): what a viewer may see
 * and change is decided here and in the queries, never on a page. Nobody but this file can make one.
 */
export class Viewer {
  /** For now whoever is at this machine is the shop. */
  readonly role = 'shop';
  // Private, and so the class is its own type: an object of the same shape is no viewer.
  readonly #found: Map<object, unknown> | null;

  private constructor(found: Map<object, unknown> | null) {
    this.#found = found;
  }

  /** The shop itself: its own chores. */
  static readonly shop = new Viewer(null);

  /** Whoever asks from this machine, for the length of one request. */
  static here(): Viewer {
    return new Viewer(new Map());
  }

  /** What several loaders of one request ask for, asked once, under what is asked for; a chore asks each time. */
  once<Found>(what: object, find: () => Promise<Found>): Promise<Found> {
    const before = this.#found?.get(what) as Promise<Found> | undefined;
    if (before) return before;
    const found = find();
    this.#found?.set(what, found);
    return found;
  }

  /** Has it asked for anew: it was changed. */
  anew(what: object): void {
    this.#found?.delete(what);
  }
}

/** The viewer of the request that is being answered; set by `asked`, once, for every route. */
export const viewerIn = createContext<Viewer>();

type Context = Readonly<RouterContextProvider>;

/**
 * The one middleware: whatever is asked, it is known by whom before a loader or an action runs; and where the disk or the
 * database stood in the way, that is answered, not a fault.
 */
export async function asked({ context }: { context: Context }, next: () => Promise<Response>): Promise<Response> {
  context.set(viewerIn, Viewer.here());
  const answer = await next();
  const trouble = context.get(troubleMet);
  return trouble && answer.status === 500 ? toldInstead(answer, trouble) : answer;
}
