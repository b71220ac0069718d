import { eq } from 'drizzle-orm';
import type { Params, RouterContextProvider } from 'react-router';
import { redirect } from 'react-router';
import { z } from 'zod';
import { accessTo } from './addresses';
import { isData, isHere, tokenOf } from './cookie.server';
import { dbOf } from '../records/database.server';
import { anybody } from './people.server';
import { pictures, pieces } from '../records/schema.server';
import { knownBy } from './sessions.server';
import { toldInstead, troubleIn, troubleMet } from '../records/trouble.server';
import type { Known } from '../records/viewer.server';
import { Viewer, viewerIn } from '../records/viewer.server';

const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * What is asked for, however it is written: the router takes capitals, signs by their number and
 * doubled strokes for the same address, so the door does too; data for a page is asked for under a
 * name of its own.
 */
function pathOf(url: string): string {
  let path = new URL(url).pathname;
  try {
    path = decodeURIComponent(path);
  } catch {
    // No signs by number: as it stands.
  }
  path = path
    .toLowerCase()
    .replace(/\/+/g, '/')
    .replace(/\.data$/, '')
    .replace(/(.)\/$/, '$1');
  return path === '/_root' ? '/' : path;
}

/**
 * Whether a page is asked for, by the address bar or by the router: it can be sent on to another.
 */
const isPage = (request: Request): boolean =>
  READS.has(request.method) &&
  (isData(request) || (request.headers.get('Accept') ?? '').includes('text/html'));

/** Who asks, by the cookie; at an open machine whoever sits at it. */
async function whoAsks(request: Request): Promise<Known | null> {
  const here = isHere(request);
  const token = tokenOf(request);
  const known = token === null ? null : await knownBy(token, here);
  if (known || !here || process.env.PATRONE_HERE !== 'open') return known;
  return { role: 'runs', person: await whoRuns(), device: null, jobs: null, open: true, here };
}

/** Lifetime of a cached lookup, ms: every request at an open machine would ask, otherwise. */
const GOOD_MS = 5000;
let lastRuns: { at: number; person: Known['person'] } | null = null;

/**
 * At an open machine one is the person who runs the shop, as far as anybody has said who that is.
 */
async function whoRuns(): Promise<Known['person']> {
  if (lastRuns && Date.now() - lastRuns.at < GOOD_MS) return lastRuns.person;
  const found = await dbOf(Viewer.shop).query.people.findFirst({
    where: (all, { and, eq: is, isNull }) => and(is(all.role, 'runs'), isNull(all.gone)),
    orderBy: (all, { asc }) => asc(all.seq),
  });
  lastRuns = { at: Date.now(), person: found ? { id: found.id, name: found.name } : null };
  return lastRuns.person;
}

const notHere = (): Response => new Response(null, { status: 404 });
const told = (status: number, message: string): Response => Response.json({ message }, { status });

/** The job that something in an address belongs to; null where there is none such. */
async function jobOf(params: Params): Promise<string | null> {
  const db = dbOf(Viewer.shop);
  const found: (string | null)[] = [];
  for (const [name, given] of Object.entries(params)) {
    if (!given || !z.uuid().safeParse(given).success) continue;
    const id = given.toLowerCase();
    if (name === 'jobId') found.push(id);
    else if (name === 'pieceId' || name === 'otherId')
      found.push(
        (await db.select({ job: pieces.job }).from(pieces).where(eq(pieces.id, id)))[0]?.job ??
          null,
      );
    else if (name === 'pictureId')
      found.push(
        (await db.select({ job: pictures.job }).from(pictures).where(eq(pictures.id, id)))[0]
          ?.job ?? null,
      );
  }
  // Where an address names several things they are all of one job.
  return found.length > 0 && found.every((job) => job === found[0]) ? found[0]! : null;
}

/**
 * What stands in the way of what is asked at an address of the router's (`matched`, its pattern); null
 * lets it in. The same for every route: there is no other door.
 */
async function refusal(
  known: Known | null,
  request: Request,
  params: Params,
  matched: string,
): Promise<Response | null> {
  const { reads, writes, instead } = accessTo(matched);
  if (reads === 'anybody') return null;
  const isReading = READS.has(request.method);
  if (!known) {
    if (!isPage(request))
      return told(
        401,
        'You are no longer signed in. What you typed is still here: sign in and go on.',
      );
    if (!(await anybody())) return redirect('/first');
    const path = pathOf(request.url);
    const to = isReading && path !== '/' ? `?to=${encodeURIComponent(path)}` : '';
    return redirect(`/sign-in${to}`);
  }
  if (reads === 'runs' && known.role !== 'runs') return notHere();
  if (writes === 'runs' && !isReading && known.role === 'works')
    return told(403, 'Only who runs the shop changes its settings. Nothing was changed.');
  if (known.role !== 'looks' || reads === 'own') return null;
  if (reads !== 'looks') return notHere();
  const job = await jobOf(params);
  // Whoever may not see a job is not told that it is there.
  if (matched !== '/' && (job === null || !known.jobs!.has(job))) return notHere();
  if (!isReading) return told(403, 'You may look at this job, not change it. Nothing was changed.');
  return instead ? redirect(instead(params)) : null;
}

type Context = Readonly<RouterContextProvider>;
type Asked = { request: Request; params: Params; pattern: string; context: Context };

/**
 * The one middleware: whatever is asked, it is known by whom before a loader or an action runs, and
 * whoever may not is stopped here; where the disk or the database stood in the way, that is
 * answered, not a fault. Nothing that is answered is kept by a browser unless the route says so.
 */
export async function authorize(
  { request, params, pattern, context }: Asked,
  next: () => Promise<Response>,
): Promise<Response> {
  let known: Known | null;
  let stopped: Response | null;
  try {
    // Health is asked every few seconds, by nobody in particular.
    known = pathOf(request.url) === '/health' ? null : await whoAsks(request);
    stopped = await refusal(known, request, params, pattern);
  } catch (error) {
    // The disk or the database in the way of knowing who asks: told, as it is anywhere else.
    const trouble = troubleIn(error);
    if (!trouble) throw error;
    [known, stopped] = [null, told(trouble.status, trouble.message)];
  }
  context.set(viewerIn, Viewer.asking(known));
  if (stopped) {
    stopped.headers.set('Cache-Control', 'no-store');
    // Thrown, the router makes a page of it, or data for one; a script is answered as it is.
    if (isPage(request) || isData(request)) throw stopped;
    return stopped;
  }
  const answer = await next();
  const trouble = context.get(troubleMet);
  const given = trouble && answer.status === 500 ? toldInstead(answer, trouble) : answer;
  if (!given.headers.has('Cache-Control')) given.headers.set('Cache-Control', 'no-store');
  if (!given.headers.has('Content-Security-Policy'))
    given.headers.set('Content-Security-Policy', "default-src 'none'; frame-ancestors 'none'");
  return given;
}
