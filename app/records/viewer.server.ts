import { createContext } from 'react-router';
import type { Role } from './peopleTables.server';

/** A person or a device as it is named in records and on pages. */
export type Named = { id: string; name: string };

/** What is known of whoever asks. */
export type Known = {
  role: Role;
  /**
   * Null where nobody has said who it is: on the shop's own device, or at an open machine without
   * people.
   */
  person: Named | null;
  /**
   * The phone or tablet that was let in; `shops`: it is the shop's own. Null in a browser that was
   * signed in to.
   */
  device: (Named & { shops: boolean }) | null;
  /** The only jobs that may be seen; null for all. */
  jobs: ReadonlySet<string> | null;
  /** Not signed in, but at a machine that is open to whoever sits at it. */
  open: boolean;
  /** Whether this is asked from the machine itself. */
  here: boolean;
};

/**
 * Who asks. Every query takes one first, and the database is handed out to none without (`dbOf`):
 * what a viewer may see and change is decided here and in the queries, never on a page. Nobody but
 * this file can make one.
 */
export class Viewer {
  /** Null for whoever has not signed in: no query is answered to them. */
  readonly known: Known | null;
  // Private, and so the class is its own type: an object of the same shape is no viewer.
  readonly #found: Map<object, unknown> | null;

  private constructor(known: Known | null, found: Map<object, unknown> | null) {
    this.known = known;
    this.#found = found;
  }

  /** The shop itself: its own chores. */
  static readonly shop = new Viewer(
    { role: 'runs', person: null, device: null, jobs: null, open: false, here: true },
    null,
  );

  /** Whoever asks, for the length of one request. */
  static asking(known: Known | null): Viewer {
    return new Viewer(known, new Map());
  }

  /** Whether a job may be seen. */
  sees(job: string): boolean {
    return this.known !== null && (this.known.jobs === null || this.known.jobs.has(job));
  }

  /**
   * What several loaders of one request ask for, asked once, under what is asked for; a chore asks
   * each time.
   */
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

/**
 * The viewer of the request that is being answered; set at the door (`door.server.ts`), once, for
 * every route.
 */
export const viewerIn = createContext<Viewer>();
