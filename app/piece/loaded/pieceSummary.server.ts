import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { surveyedAmong } from '../../records/pieceSurvey.server';
import { z } from 'zod';
import type { Remembered } from '../../records/pieces.server';
import { shopSettings } from '../../records/shop.server';
import { keepSummary, piecesToSumUp } from '../../records/summaries.server';
import { troubleIn } from '../../records/trouble.server';
import { Viewer } from '../../records/viewer.server';
import { TookTooLong, WORKER_PROGRAM, inWorker } from '../../workers/pool.server';
import { loadPiece } from './loaded.server';
import { verdictOf } from './verdictKept.server';
import type { Judgements } from './reckonTasks';
import { gaveUp, summaryTask } from './reckonTasks';
import type { Summary } from './summary';
import { NOTHING_KNOWN } from './summary';

/** Longest that one piece may take to be summed up, ms. */
const LIMIT_MS = 4000;
/** As many pieces at a time as a worker takes before it lets others in. */
const AT_A_TIME = 20;

async function judgedBefore(pieces: readonly string[]): Promise<Judgements> {
  const { layersApartMm } = await shopSettings(Viewer.shop);
  const found: Judgements = new Map();
  for (const { touched, ...piece } of await surveyedAmong(Viewer.shop, pieces)) {
    const verdict = await verdictOf(Viewer.shop, { ...piece, touched, layersApartMm });
    found.set(piece.id, { touched, warnings: verdict?.warnings ?? null });
  }
  return found;
}

let program: string | null = null;
/** The program that sums up, in a word: what another one has remembered is not taken. */
const programSaid = () =>
  (program ??= createHash('sha1').update(readFileSync(WORKER_PROGRAM)).digest('hex').slice(0, 12));

/** By which program and which settings of the shop summaries made now are made. */
async function madeByNow(viewer: Viewer): Promise<string> {
  // How bends sprang back changes no blank: a try on a fold does not make all of them be summed up
  // anew. Nor do hours taken.
  const { springs: _, paces: _paces, edgeTools: _tools, ...settings } = await shopSettings(viewer);
  const shop = createHash('sha1').update(JSON.stringify(settings)).digest('hex').slice(0, 12);
  return `${programSaid()} ${shop}`;
}

/** Summed up anew; where a piece takes too long that one alone shows as itself. */
async function summedNow(pieces: string[], madeBy: string): Promise<[string, Summary][]> {
  try {
    const judged = await judgedBefore(pieces);
    return await inWorker(
      summaryTask,
      { pieces, madeBy, judged },
      { limitMs: LIMIT_MS + 200 * pieces.length },
    );
  } catch (error) {
    if (!(error instanceof TookTooLong)) throw error;
    const [only] = pieces;
    if (pieces.length > 1) {
      const half = Math.ceil(pieces.length / 2);
      return [
        ...(await summedNow(pieces.slice(0, half), madeBy)),
        ...(await summedNow(pieces.slice(half), madeBy)),
      ];
    }
    if (only === undefined) return [];
    const loaded = await loadPiece(Viewer.shop, only);
    if (loaded) await keepSummary(Viewer.shop, only, loaded.touched, gaveUp(madeBy), NOTHING_KNOWN);
    return [[only, NOTHING_KNOWN]];
  }
}

/** As much of a summary as a list asks for: it was written by this very program. */
const RememberedSchema = z.looseObject({
  silhouette: z.looseObject({}).nullable().optional(),
  road: z.looseObject({}).nullable().optional(),
  material: z.enum(['card', 'blue', 'steel']).optional(),
});

/**
 * What lists show of these pieces, by piece; those that have changed since they were summed up are
 * summed up now.
 */
export async function pieceSummaries(
  viewer: Viewer,
  pieces: readonly { id: string; remembered: Remembered }[],
): Promise<Map<string, Summary>> {
  const madeBy = await madeByNow(viewer);
  const known = new Map<string, Summary>();
  const unknown: string[] = [];
  for (const { id, remembered } of pieces) {
    const now = remembered?.madeBy === madeBy || remembered?.madeBy === gaveUp(madeBy);
    const read = now ? RememberedSchema.safeParse(remembered.summary) : null;
    if (read?.success) known.set(id, read.data as unknown as Summary);
    else unknown.push(id);
  }
  if (unknown.length === 0) return known;
  try {
    return new Map([...known, ...(await summedNow(unknown, madeBy))]);
  } catch (error) {
    // A list without its pictures is still a list.
    console.error('Pieces could not be summed up:', troubleIn(error)?.message ?? error);
    return known;
  }
}

const REST_MS = 1500;
let behind: ReturnType<typeof setTimeout> | null = null;

/**
 * Sums up behind everybody's back, after a little rest, whatever has changed: so that no list has
 * to wait for it.
 */
export function summarizeSoon(): void {
  behind ??= setTimeout(() => {
    void sumUpAll()
      .catch((error: unknown) =>
        console.error('Pieces could not be summed up:', troubleIn(error)?.message ?? error),
      )
      .finally(() => (behind = null));
  }, REST_MS).unref();
}

async function sumUpAll(): Promise<void> {
  for (;;) {
    const madeBy = await madeByNow(Viewer.shop);
    const pieces = await piecesToSumUp(Viewer.shop, [madeBy, gaveUp(madeBy)], AT_A_TIME);
    if (pieces.length === 0) return;
    const began = performance.now();
    await summedNow(pieces, madeBy);
    // As long a rest as it took: whoever reads meanwhile has the machine for the other half of the
    // time.
    await new Promise((rested) => setTimeout(rested, performance.now() - began));
  }
}
