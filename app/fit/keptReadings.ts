import type { FitRecord } from '#core/format/job';

/** Readings that wait in the browser until the server has them: through a lost network, a closed page, a reload. */

type EdgeRecord = FitRecord['edges'][number];

const keyOf = (fit: string, edge: string) => `patrone:fit:${fit}:${edge}`;

export const keep = (fit: string, record: EdgeRecord): void =>
  localStorage.setItem(keyOf(fit, record.edge), JSON.stringify(record));

/** Forgets what the server has; readings made since it was sent stay. */
export function letGo(fit: string, record: EdgeRecord): void {
  const key = keyOf(fit, record.edge);
  if (JSON.stringify(keptRecord(fit, record.edge)) === JSON.stringify(record)) localStorage.removeItem(key);
}

export function keptRecord(fit: string, edge: string): EdgeRecord | null {
  // Written by this page's own code; the server checks it again before it is stored. One that an older program left says
  // neither which way the card lay nor that its target is its own: it was as drawn, and it was.
  const kept = JSON.parse(localStorage.getItem(keyOf(fit, edge)) ?? 'null') as EdgeRecord | null;
  return kept && { ...kept, turned: kept.turned ?? false, own: kept.own ?? true };
}

/** Everything that waits for the given fits. */
export const keptRecords = (fits: readonly { id: string }[]): { fit: string; record: EdgeRecord }[] =>
  fits.flatMap(({ id }) =>
    Object.keys(localStorage)
      .filter((key) => key.startsWith(keyOf(id, '')))
      .flatMap((key) => {
        const record = keptRecord(id, key.slice(keyOf(id, '').length));
        return record ? [{ fit: id, record }] : [];
      }),
  );
