import Papa from 'papaparse';
import { z } from 'zod';
import { MAX_RADII, MAX_SPRINGS, MAX_STRIPS, MAX_TRIED } from '#core/blank/limits';
import { ShopSchema } from '#core/blank/shopSchema';
import { text } from '#core/card/text';
import { readingsFrom } from '#core/format/readings';
import { Key, parsedJson } from '../records/parse.server';
import type { Readings } from '../records/shop.server';
import { changeReadings } from '../records/shop.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/readings';

const { strips, springs, radii, bites, beadTests, limitsSeen, paces } = ShopSchema.shape;
const Reading = z.discriminatedUnion('list', [
  z.object({ list: z.literal('strips'), reading: strips.element }),
  z.object({ list: z.literal('springs'), reading: springs.element }),
  z.object({ list: z.literal('radii'), reading: radii.element }),
  z.object({ list: z.literal('bites'), reading: bites.element }),
  z.object({ list: z.literal('beadTests'), reading: beadTests.element }),
  z.object({ list: z.literal('limitsSeen'), reading: limitsSeen.element }),
  z.object({ list: z.literal('paces'), reading: paces.element }),
]);
const Body = z
  .discriminatedUnion('intent', [
    z.object({ intent: z.literal('add'), of: Reading }),
    // Why it does not count; null: it counts again.
    z.object({ intent: z.literal('leave-out'), of: Reading, why: text(200).min(1).nullable() }),
    z.object({ intent: z.literal('take-in'), csv: z.string().max(1_000_000) }),
  ])
  .and(Key);

const MOST = {
  strips: MAX_STRIPS,
  springs: MAX_SPRINGS,
  radii: MAX_RADII,
  bites: MAX_TRIED,
  beadTests: MAX_TRIED,
  limitsSeen: MAX_TRIED,
  paces: MAX_TRIED,
};
const LISTS = ['strips', 'springs', 'radii'] as const;
const same = (a: object, b: object) => sorted(a) === sorted(b);
/** A reading in a word, however its fields are ordered. */
const sorted = (one: object): string =>
  JSON.stringify(one, (_, value: unknown) =>
    value && typeof value === 'object'
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
const refused = (message: string) => Response.json({ message }, { status: 409 });
const saved = (more: object = {}) => Response.json({ saved: true, ...more });
const FULL = 'The shop keeps no more readings of this kind.';

/**
 * Changes what the shop has measured: a reading more, one left out with its reason, a table taken
 * in. Nothing is ever deleted.
 */
export async function action({ request, context }: Route.ActionArgs) {
  const asked = await parsedJson(request, Body);
  const viewer = context.get(viewerIn);
  if (asked.intent === 'take-in') return takeIn(viewer, asked.csv);
  const { list, reading } = asked.of;
  return changeReadings(viewer, (now) => {
    const all: object[] = now[list];
    const at = all.findIndex((one) => same(one, reading));
    if (asked.intent === 'add') {
      if (at >= 0) return { next: null, answer: saved() };
      if (all.length >= MOST[list]) return { next: null, answer: refused(FULL) };
      return { next: { ...now, [list]: [...all, reading] }, answer: saved() };
    }
    if (at < 0)
      return {
        next: null,
        answer: refused('That reading has changed on another page meanwhile: load this one again.'),
      };
    const { leftOut: _, ...counted } = reading;
    const put = asked.why === null ? counted : { ...counted, leftOut: asked.why };
    return {
      next: { ...now, [list]: all.map((one, i) => (i === at ? put : one)) },
      answer: saved(),
    };
  });
}

/**
 * A table of readings: what is there already is not taken twice; what does not fit is named, and
 * then nothing is taken.
 */
function takeIn(viewer: Parameters<typeof changeReadings>[0], csv: string) {
  const { data: rows, meta } = Papa.parse<Record<string, string>>(csv.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
  });
  if (!meta.fields?.includes('kind'))
    return refused(
      'The first line of the table has to name its columns, as in the table that can be taken out here.',
    );
  const { readings, wrong } = readingsFrom(rows);
  if (wrong.length > 0) {
    const told = wrong
      .slice(0, 5)
      .map(({ line, column }) => `line ${line} (${column})`)
      .join(', ');
    return refused(
      `Nothing was taken in. ${wrong.length === 1 ? 'One line does' : `${wrong.length} lines do`} not fit: ${told}.`,
    );
  }
  return changeReadings(viewer, (now) => {
    const next: Readings = {
      ...now,
      strips: [...now.strips],
      springs: [...now.springs],
      radii: [...now.radii],
    };
    let taken = 0;
    for (const list of LISTS)
      for (const one of readings[list]) {
        const all: object[] = next[list];
        if (all.some((other) => same(other, one))) continue;
        if (all.length >= MOST[list]) return { next: null, answer: refused(FULL) };
        all.push(one);
        taken++;
      }
    return { next, answer: saved({ taken }) };
  });
}
