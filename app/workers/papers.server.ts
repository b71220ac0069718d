import type { Task } from './task';
import { TookTooLong, inWorker } from './pool.server';

/** Longest that a paper may take to be laid out, ms: a hundred pages take two seconds. */
const LIMIT_MS = 20_000;

/** A paper drawn in a worker for whoever asked; 422 with a sentence where it takes too long. */
export async function drawnFor<Given, Found>(
  request: Request,
  paper: Task<Given, Found>,
  given: Given,
): Promise<Found> {
  try {
    return await inWorker(paper, given, { limitMs: LIMIT_MS, signal: request.signal });
  } catch (error) {
    if (!(error instanceof TookTooLong)) throw error;
    throw new Response(
      'That took longer to lay out than it may (20 seconds). Nothing is wrong with what is saved: try again when the machine is less busy, or take it as DXF or SVG.',
      { status: 422 },
    );
  }
}
