/**
 * A function that is asked often with the same three numbers: two places in lists (from 0, below
 * 10 000 019) and a set of folds as bits, those that are made.
 */
export function cached<Found>(
  find: (place: number, other: number, made: number) => Found,
): (place: number, other: number, made: number) => Found {
  const known = new Map<number, Map<number, Found>>();
  return (place, other, made) => {
    const key = place * 10_000_019 + other;
    let bySet = known.get(key);
    if (!bySet) known.set(key, (bySet = new Map()));
    let found = bySet.get(made);
    if (found === undefined) bySet.set(made, (found = find(place, other, made)));
    return found;
  };
}

/** The same of one place and a set of folds. */
export function cachedAt<Found>(
  find: (place: number, made: number) => Found,
): (place: number, made: number) => Found {
  const known = cached((place, _, made) => find(place, made));
  return (place, made) => known(place, 0, made);
}
