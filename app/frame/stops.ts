/**
 * The stops on the road of a piece, in its order. A new one is an entry here, its page in
 * `app/<id>/<id>.tsx`, and how it stands in `app/piece/road/`: routes, keys, the rail, rights, what a
 * phone keeps and what the journeys visit follow from this list.
 */
type StopEntry = {
  id: string;
  /** The key that goes there; it stays with the stop. */
  key: number;
  label: string;
  /** What undo acts on there; `reading`: what the stop itself offers. */
  undo: 'card' | 'plan' | 'reading';
  /** Whether it is used at the vehicle, and kept by a phone to open without the server. */
  atVehicle: boolean;
};

export const STOPS = [
  { id: 'survey', key: 1, label: 'Survey', undo: 'card', atVehicle: true },
  { id: 'card', key: 2, label: 'Card', undo: 'card', atVehicle: false },
  { id: 'blank', key: 3, label: 'Blank', undo: 'card', atVehicle: false },
  { id: 'sheet', key: 4, label: 'Sheet', undo: 'card', atVehicle: false },
  { id: 'shape', key: 5, label: 'Shape', undo: 'card', atVehicle: true },
  { id: 'fit', key: 6, label: 'Fit', undo: 'reading', atVehicle: true },
  { id: 'weld', key: 7, label: 'Weld', undo: 'plan', atVehicle: true },
] as const satisfies readonly StopEntry[];

export type StopId = (typeof STOPS)[number]['id'];

/** The stop that an address is of; undefined where it is of none. */
export const stopAt = (pathname: string) =>
  STOPS.find(({ id }) => pathname.split('/').pop() === id);
