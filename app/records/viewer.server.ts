import { createContext } from 'react-router';

/**
 * Who asks. Every query takes one first, and the database is handed out to none without (`dbOf`): what a viewer may see
 * and change is decided here and in the queries, never on a page. Nobody but this file can make one.
 */
export class Viewer {
  /** For now whoever is at this machine is the shop. */
  readonly role = 'shop';
  // Makes the class its own type: an object of the same shape is no viewer.
  readonly #made = true;

  private constructor() {
    void this.#made;
  }

  /** The shop itself: whoever asks from this machine, and its own chores. */
  static readonly shop = new Viewer();
}

/** The viewer of the request that is being answered; set by `asked`, once, for every route. */
export const viewerIn = createContext<Viewer>();

type Context = { set(key: typeof viewerIn, viewer: Viewer): void };

/** The one middleware: whatever is asked, it is known by whom before a loader or an action runs. */
export function asked({ context }: { context: Context }): void {
  context.set(viewerIn, Viewer.shop);
}
