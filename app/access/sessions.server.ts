import { and, asc, eq, gt, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import { dbOf } from '../records/database.server';
import { devices, joins, mayLook, people, sessions } from '../records/peopleTables.server';
import { digestOf, newToken } from './secrets.server';
import type { Known } from '../records/viewer.server';
import { Viewer } from '../records/viewer.server';

/**
 * How long one stays signed in without coming back: at a browser, where one chose to stay so, on a
 * device that was let in.
 */
const HOUR = 3600_000;
const [BROWSER_MS, STAYS_MS, DEVICE_MS] = [12 * HOUR, 30 * 24 * HOUR, 90 * 24 * HOUR];
/**
 * Maximum lifetime of a session, ms, however often one comes back: then one signs in or joins
 * again.
 */
const LONGEST_MS = 365 * 24 * HOUR;
/** When somebody was last seen is written down no more often than this. */
const SEEN_EVERY_MS = 5 * 60_000;
/** On the shop's own device whoever said it is them is so for this long after their last touch. */
const PERSON_MS = 10 * 60_000;
const JOIN_MS = 5 * 60_000;

const db = () => dbOf(Viewer.shop);

/**
 * A session as it is begun: the token for the cookie, and for how long the browser is to keep it,
 * seconds (null: until it is closed).
 */
export type Begun = { token: string; forS: number | null };

/** Signs somebody in at a browser. */
export async function signIn(person: string, stays: boolean): Promise<Begun> {
  const token = newToken();
  const forMs = stays ? STAYS_MS : BROWSER_MS;
  await db().delete(sessions).where(lt(sessions.until, new Date()));
  await db()
    .insert(sessions)
    .values({ token: digestOf(token), person, until: new Date(Date.now() + forMs) });
  return { token, forS: stays ? LONGEST_MS / 1000 : null };
}

export const signOut = (token: string) =>
  db()
    .delete(sessions)
    .where(eq(sessions.token, digestOf(token)));

/**
 * Who it is that has a token; null for a token that is none, or no longer one. Being here again
 * makes it last.
 */
export async function knownBy(token: string, here: boolean): Promise<Known | null> {
  const now = Date.now();
  const [row] = await db()
    .select({ session: sessions, person: people, device: devices })
    .from(sessions)
    .leftJoin(people, and(eq(people.id, sessions.person), isNull(people.gone)))
    .leftJoin(devices, eq(devices.id, sessions.device))
    .where(and(eq(sessions.token, digestOf(token)), gt(sessions.until, new Date(now))));
  if (!row) return null;
  const { session, person, device } = row;
  if (now - session.made.getTime() > LONGEST_MS || (device && device.gone)) return null;
  const shops = device !== null && device.person === null;
  // A session is somebody's, or the shop's own device's; one whose person has gone is nobody's.
  if (!person && !shops) return null;
  if (now - session.seen.getTime() > SEEN_EVERY_MS) {
    const lasts = session.until.getTime() - session.seen.getTime();
    await db()
      .update(sessions)
      .set({ seen: new Date(now), until: new Date(now + lasts) })
      .where(eq(sessions.token, session.token));
  }
  const still =
    person && (!shops || (session.personUntil !== null && session.personUntil.getTime() > now))
      ? person
      : null;
  const role = shops ? 'works' : person!.role;
  const jobs =
    role === 'looks'
      ? new Set(
          (await db().select().from(mayLook).where(eq(mayLook.person, person!.id))).map(
            ({ job }) => job,
          ),
        )
      : null;
  return {
    role,
    person: still && { id: still.id, name: still.name },
    device: device && { id: device.id, name: device.name, shops },
    jobs,
    open: false,
    here,
  };
}

/** A code that lets one device in; null for `person` makes it the shop's own. */
export async function offerJoin(
  viewer: Viewer,
  device: string,
  person: string | null,
): Promise<{ code: string; until: Date }> {
  const code = newToken();
  const until = new Date(Date.now() + JOIN_MS);
  await dbOf(viewer).delete(joins).where(lt(joins.until, new Date()));
  await dbOf(viewer)
    .insert(joins)
    .values({ code: digestOf(code), device, person, until });
  return { code, until };
}

/** What a code is for; null where it is none, or too late. */
export async function joinOffered(
  code: string,
): Promise<{ device: string; person: string | null } | null> {
  const [row] = await db()
    .select({ device: joins.device, person: people.name })
    .from(joins)
    .leftJoin(people, eq(people.id, joins.person))
    .where(and(eq(joins.code, digestOf(code)), gt(joins.until, new Date())));
  return row ?? null;
}

/** Lets a device in by its code, which is then used; null where it is none, too late, or used. */
export const join = (code: string): Promise<Begun | null> =>
  db().transaction(async (tx) => {
    const mine = and(eq(joins.code, digestOf(code)), gt(joins.until, new Date()));
    const [offer] = await tx.delete(joins).where(mine).returning();
    if (!offer) return null;
    const [device] = await tx
      .insert(devices)
      .values({ name: offer.device, person: offer.person })
      .returning();
    const token = newToken();
    await tx.insert(sessions).values({
      token: digestOf(token),
      person: offer.person,
      device: device!.id,
      until: new Date(Date.now() + DEVICE_MS),
    });
    return { token, forS: LONGEST_MS / 1000 };
  });

export type Device = {
  id: string;
  name: string;
  person: string | null;
  created: string;
  seen: string | null;
};

/** The devices that were let in and not thrown out. */
export async function listDevices(viewer: Viewer): Promise<Device[]> {
  const rows = await dbOf(viewer)
    .select({
      device: devices,
      person: people.name,
      seen: sql<Date | null>`(select max(s.seen) from ${sessions} s where s.device = ${devices}.id)`,
    })
    .from(devices)
    .leftJoin(people, eq(people.id, devices.person))
    .where(isNull(devices.gone))
    .orderBy(asc(devices.seq));
  return rows.map(({ device: { id, name, created }, person, seen }) => ({
    id,
    name,
    person,
    created: created.toISOString(),
    seen: seen && new Date(seen).toISOString(),
  }));
}

/** Throws a device out: it is nobody's from its next request on. */
export const throwOut = (viewer: Viewer, id: string) =>
  dbOf(viewer).transaction(async (tx) => {
    await tx.update(devices).set({ gone: new Date() }).where(eq(devices.id, id));
    await tx.delete(sessions).where(eq(sessions.device, id));
  });

/** On the shop's own device: it is this person now, or nobody. */
export const setPersonHere = (token: string, person: string | null) =>
  db()
    .update(sessions)
    .set({ person, personUntil: person === null ? null : new Date(Date.now() + PERSON_MS) })
    .where(and(eq(sessions.token, digestOf(token)), isNotNull(sessions.device)));
