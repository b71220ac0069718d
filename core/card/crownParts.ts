/**
 * The parts of a crown that are heavy and seldom change, the panel's surface and the map of the work
 * on it: a card names them, and they are kept and sent once.
 */
const PARTS = ['made', 'map'] as const;
type PartName = (typeof PARTS)[number];

/** By part: the id it is kept under. A part without one is in the card itself. */
export type PartIds = Partial<Record<PartName, string>>;

/** A part with fewer characters of JSON than this stays in its card. */
const MIN_HEAVY = 2000;

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const crownIn = (body: unknown): Record<string, unknown> | null =>
  isObject(body) && isObject(body.crown) ? body.crown : null;

const idIn = (part: unknown): string | null =>
  isObject(part) && typeof part.surface === 'string' && Object.keys(part).length === 1
    ? part.surface
    : null;

/** A document with each part of its crown that `change` has something for replaced by that. */
function changed(body: unknown, change: (part: PartName, now: unknown) => unknown): unknown {
  const crown = crownIn(body);
  if (!crown) return body;
  const parts = PARTS.flatMap((part) => {
    const next = change(part, crown[part]);
    return next === undefined ? [] : [[part, next] as const];
  });
  if (parts.length === 0) return body;
  return { ...(body as object), crown: { ...crown, ...Object.fromEntries(parts) } };
}

/** The heavy parts of a document, each as JSON. None in one without a crown, or of another kind. */
export function heavyParts(body: unknown): { part: PartName; json: string }[] {
  const crown = crownIn(body);
  return PARTS.flatMap((part) => {
    const json = crown && crown[part] ? JSON.stringify(crown[part]) : '';
    return json.length < MIN_HEAVY ? [] : [{ part, json }];
  });
}

/** The document with the parts that have an id named by it, `{ surface: id }` in their place. */
export const namingParts = (body: unknown, ids: PartIds): unknown =>
  changed(body, (part) => (ids[part] === undefined ? undefined : { surface: ids[part] }));

/** The ids by which a document names its parts. */
export function namedParts(body: unknown): PartIds {
  const crown = crownIn(body);
  const named: PartIds = {};
  for (const part of PARTS) {
    const id = crown && idIn(crown[part]);
    if (id) named[part] = id;
  }
  return named;
}

/** The document with the parts it names put in from `kept`, by id; one that is not there stays named. */
export const withParts = (body: unknown, kept: Readonly<Record<string, unknown>>): unknown =>
  changed(body, (_, now) => {
    const id = idIn(now);
    return id !== null && Object.hasOwn(kept, id) ? kept[id] : undefined;
  });

/** A card, and what its heavy parts are kept under. */
export type Held = { doc: unknown; parts: PartIds };

/** The heavy parts of a card by their ids. */
export function heldParts({ doc, parts }: Held): Record<string, unknown> {
  const crown = crownIn(doc);
  return Object.fromEntries(
    PARTS.flatMap((part) => {
      const id = parts[part];
      return id === undefined || !crown ? [] : [[id, crown[part]]];
    }),
  );
}

/** `doc` with those heavy parts named that are as they are in `held`: they need not be sent again. */
export function namingHeld(doc: unknown, held: Held): unknown {
  const [mine, theirs] = [crownIn(doc), crownIn(held.doc)];
  const same = ([part]: [PartName, string]): boolean => {
    const [one, other] = [mine?.[part], theirs?.[part]];
    return !!one && (one === other || JSON.stringify(one) === JSON.stringify(other));
  };
  const parts = (Object.entries(held.parts) as [PartName, string][]).filter(same);
  return namingParts(doc, Object.fromEntries(parts));
}
