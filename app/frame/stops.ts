import type { PieceKind } from '#core/format/lists';

/**
 * The stops on the road of a piece, in its order. A new one is an entry here, its page in
 * `app/<id>/<id>.tsx`, and how it stands in `app/piece/road/`: routes, keys, the rail, rights, what a
 * phone keeps and what the journeys visit follow from this list.
 */
type StopEntry = {
  id: string;
  /** The key that goes there; it stays with the stop, and is one stop's on any one road. */
  key: number;
  label: string;
  /** What undo acts on there; `reading`: what the stop itself offers. */
  undo: 'card' | 'plan' | 'reading';
  /** Whether it is used at the vehicle, and kept by a phone to open without the server. */
  atVehicle: boolean;
  /** On whose road it stands: of pieces that are made here, of the others, or of all. */
  of: 'made' | 'others' | 'all';
};

export const STOPS = [
  { id: 'survey', key: 1, label: 'Survey', undo: 'card', atVehicle: true, of: 'all' },
  { id: 'cutdown', key: 2, label: 'Cut down', undo: 'reading', atVehicle: true, of: 'others' },
  { id: 'card', key: 2, label: 'Card', undo: 'card', atVehicle: false, of: 'made' },
  { id: 'blank', key: 3, label: 'Blank', undo: 'card', atVehicle: false, of: 'made' },
  { id: 'sheet', key: 4, label: 'Sheet', undo: 'card', atVehicle: false, of: 'made' },
  { id: 'shape', key: 5, label: 'Shape', undo: 'card', atVehicle: true, of: 'made' },
  { id: 'fit', key: 6, label: 'Fit', undo: 'reading', atVehicle: true, of: 'all' },
  { id: 'weld', key: 7, label: 'Weld', undo: 'plan', atVehicle: true, of: 'all' },
] as const satisfies readonly StopEntry[];

export type StopId = (typeof STOPS)[number]['id'];

/** The stop that an address is of; undefined where it is of none. */
export const stopAt = (pathname: string) =>
  STOPS.find(({ id }) => pathname.split('/').pop() === id);

/** The stops that a piece comes by, in their order. */
export const stopsOf = (kind: PieceKind): readonly (typeof STOPS)[number][] =>
  STOPS.filter(({ of }) => of === 'all' || (of === 'made') === (kind === 'made'));

/** The stop at which a piece opens, if nothing else is said: where its outline or its edges are. */
export const opensAt = (kind: PieceKind): StopId => (kind === 'made' ? 'card' : 'cutdown');
