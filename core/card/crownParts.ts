/**
 * The parts of a crown that are heavy and seldom change, the panel's surface and the map of the work
 * on it: a card names them, and they are kept and sent once. A card that was made from another holds
 * that one as it was there and as it lies here, each with its crown.
 */
const PARTS = ['made', 'map'] as const;
const CARDS = ['', 'linkedFrom.card', 'linkedFrom.here'] as const;

/** Where a part is in a card: `crown.map`, `linkedFrom.card.crown.made`. */
type Place = string;
/** By place: the id a part is kept under. One without is in the card itself. */
export type PartIds = Readonly<Record<Place, string>>;

/** A part with fewer characters of JSON than this stays in its card. */
const MIN_HEAVY = 2000;

type Fields = Record<string, unknown>;
const isObject = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const PLACES: readonly (readonly string[])[] = CARDS.flatMap((card) =>
  PARTS.map((part) => [...card.split('.').filter(Boolean), 'crown', part]),
);

/** The part at a place; undefined where there is none. */
const partAt = (body: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((at, name) => (isObject(at) ? at[name] : undefined), body);

/** The document with another part at a place where there is one. */
function withPartAt(body: unknown, path: readonly string[], part: unknown): unknown {
  const [name, ...rest] = path;
  if (name === undefined) return part;
  if (!isObject(body) || !(name in body)) return body;
  return { ...body, [name]: withPartAt(body[name], rest, part) };
}

const idIn = (part: unknown): string | null =>
  isObject(part) && typeof part.surface === 'string' && Object.keys(part).length === 1
    ? part.surface
    : null;

/** A document with each of its parts that `change` has something for replaced by that. */
const changed = (body: unknown, change: (now: unknown, place: Place) => unknown): unknown =>
  PLACES.reduce<unknown>((card, path) => {
    const now = partAt(card, path);
    const next = now ? change(now, path.join('.')) : undefined;
    return next === undefined ? card : withPartAt(card, path, next);
  }, body);

/** The heavy parts of a document, each as JSON. None in one without a crown, or of another kind. */
export const heavyParts = (body: unknown): { place: Place; json: string }[] =>
  PLACES.flatMap((path) => {
    const part = partAt(body, path);
    const json = part ? JSON.stringify(part) : '';
    return json.length < MIN_HEAVY ? [] : [{ place: path.join('.'), json }];
  });

/** The document with the parts that have an id named by it, `{ surface: id }` in their place. */
export const namingParts = (body: unknown, ids: PartIds): unknown =>
  changed(body, (_, place) => (ids[place] === undefined ? undefined : { surface: ids[place] }));

/** The ids by which a document names its parts. */
export const namedParts = (body: unknown): PartIds =>
  Object.fromEntries(
    PLACES.flatMap((path) => {
      const id = idIn(partAt(body, path));
      return id === null ? [] : [[path.join('.'), id]];
    }),
  );

/** The document with the parts it names put in from `kept`, by id; one that is not there stays named. */
export const withParts = (body: unknown, kept: Readonly<Record<string, unknown>>): unknown =>
  changed(body, (now) => {
    const id = idIn(now);
    return id !== null && Object.hasOwn(kept, id) ? kept[id] : undefined;
  });

/** A card, and what its heavy parts are kept under. */
export type Held = { doc: unknown; parts: PartIds };

/** The heavy parts of a card by their ids. */
export const heldParts = ({ doc, parts }: Held): Record<string, unknown> =>
  Object.fromEntries(
    PLACES.flatMap((path) => {
      const id = parts[path.join('.')];
      const part = partAt(doc, path);
      return id === undefined || !part ? [] : [[id, part]];
    }),
  );

/** `doc` with those heavy parts named that are as they are in `held`: they need not be sent again. */
export function namingHeld(doc: unknown, held: Held): unknown {
  const known = heldParts(held);
  return changed(doc, (mine, place) => {
    const id = held.parts[place];
    if (id === undefined) return undefined;
    const theirs = known[id];
    return mine === theirs || JSON.stringify(mine) === JSON.stringify(theirs)
      ? { surface: id }
      : undefined;
  });
}
