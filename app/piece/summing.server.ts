import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { emptyPattern } from '#core/card/emptyPattern';
import { metalById } from '#core/metal/metals';
import { emptyPlan } from '#core/weld/emptyPlan';
import { plugHoles, plugsOnBlank } from '#core/weld/plugs';
import { silhouetteOf } from '../drawing/silhouette';
import { shopSettings } from '../records/shop.server';
import { keepSummary, piecesToSumUp, summariesOf } from '../records/summaries.server';
import { Viewer } from '../records/viewer.server';
import { TookTooLong, WORKER_PROGRAM, inWorker } from '../workers/pool.server';
import { task } from '../workers/task';
import type { Loaded } from './loaded.server';
import { loadPiece } from './loaded.server';
import { printDigest } from './printDigest';
import { reckoned } from './reckoned';
import { roadOf } from './stages';
import type { Summary } from './summary';
import { NOTHING_KNOWN, materialOf } from './summary';

/** Longest that one piece may take to be summed up, ms. */
const LIMIT_MS = 4000;
/** As many pieces at a time as a worker takes before it lets others in. */
const AT_A_TIME = 20;

/** What of a piece is shown in lists. */
export function summaryOf({ facts, card, plan, shop, records, printed }: Loaded): Summary {
  const pattern = card.broken ? emptyPattern() : card.doc;
  const planned = plan.broken ? emptyPlan() : plan.doc;
  const metal = metalById(facts.metal);
  const { problems, development } = reckoned(pattern, metal, facts.thicknessMm, shop);
  const standing = records.fits.filter((fit) => !fit.withdrawn);
  const road = roadOf({
    pattern,
    plan: planned,
    thicknessMm: facts.thicknessMm,
    problems: [...(card.broken ?? []), ...problems],
    development,
    revision: card.number,
    printed,
    digest: development.ok
      ? printDigest(
          development.development,
          plugHoles(plugsOnBlank(pattern, planned, facts.thicknessMm, development.development)),
          metal,
          facts.thicknessMm,
          shop,
        )
      : null,
    fit: standing[standing.length - 1] ?? null,
    welds: records.welds,
    inspections: records.inspections,
  });
  return { silhouette: silhouetteOf(pattern), road, material: materialOf(road) };
}

type ToSumUp = { pieces: string[]; madeBy: string };

/** Sums pieces up and remembers it. One that cannot be is remembered as such; one that is gone is left out. */
export const sumUp = task('sum-up', async ({ pieces, madeBy }: ToSumUp): Promise<[string, Summary][]> => {
  const found: [string, Summary][] = [];
  for (const id of pieces) {
    const loaded = await loadPiece(Viewer.shop, id);
    if (!loaded) continue;
    let summary = NOTHING_KNOWN;
    try {
      summary = summaryOf(loaded);
    } catch (error) {
      console.error('A piece could not be summed up', error);
    }
    await keepSummary(Viewer.shop, id, loaded.touched, madeBy, summary);
    found.push([id, summary]);
  }
  return found;
});

let program: string | null = null;
/** The program that sums up, in a word: what another one has remembered is not taken. */
const programSaid = () =>
  (program ??= createHash('sha1').update(readFileSync(WORKER_PROGRAM)).digest('hex').slice(0, 12));

/** By which program and which settings of the shop summaries made now are made. */
async function madeByNow(viewer: Viewer): Promise<string> {
  const shop = createHash('sha1')
    .update(JSON.stringify(await shopSettings(viewer)))
    .digest('hex')
    .slice(0, 12);
  return `${programSaid()} ${shop}`;
}

/** Summed up anew; where a piece takes too long that one alone shows as itself. */
async function sumUpNow(pieces: string[], madeBy: string): Promise<[string, Summary][]> {
  try {
    return await inWorker(sumUp, { pieces, madeBy }, { limitMs: LIMIT_MS + 200 * pieces.length });
  } catch (error) {
    if (!(error instanceof TookTooLong)) throw error;
    const [only] = pieces;
    if (pieces.length > 1) {
      const half = Math.ceil(pieces.length / 2);
      return [...(await sumUpNow(pieces.slice(0, half), madeBy)), ...(await sumUpNow(pieces.slice(half), madeBy))];
    }
    if (only === undefined) return [];
    const loaded = await loadPiece(Viewer.shop, only);
    if (loaded) await keepSummary(Viewer.shop, only, loaded.touched, madeBy, NOTHING_KNOWN);
    return [[only, NOTHING_KNOWN]];
  }
}

/** What lists show of these pieces, by piece; those that have changed since they were summed up are summed up now. */
export async function summed(viewer: Viewer, pieces: readonly string[]): Promise<Map<string, Summary>> {
  const madeBy = await madeByNow(viewer);
  const known = (await summariesOf(viewer, pieces, madeBy)) as Map<string, Summary>;
  const unknown = pieces.filter((id) => !known.has(id));
  if (unknown.length === 0) return known;
  try {
    return new Map([...known, ...(await sumUpNow(unknown, madeBy))]);
  } catch (error) {
    // A list without its pictures is still a list.
    console.error('Pieces could not be summed up', error);
    return known;
  }
}

const REST_MS = 1500;
let behind: ReturnType<typeof setTimeout> | null = null;

/** Sums up behind everybody's back, after a little rest, whatever has changed: so that no list has to wait for it. */
export function sumUpSoon(): void {
  behind ??= setTimeout(() => {
    void sumUpAll()
      .catch((error: unknown) => console.error('Pieces could not be summed up', error))
      .finally(() => (behind = null));
  }, REST_MS).unref();
}

async function sumUpAll(): Promise<void> {
  for (;;) {
    const madeBy = await madeByNow(Viewer.shop);
    const pieces = await piecesToSumUp(Viewer.shop, madeBy, AT_A_TIME);
    if (pieces.length === 0) return;
    await sumUpNow(pieces, madeBy);
  }
}
