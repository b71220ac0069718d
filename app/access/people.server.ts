import { and, asc, eq, inArray, isNotNull, isNull, ne, notInArray, or, sql } from 'drizzle-orm';
import { dbOf } from '../records/database.server';
import type { Tx } from '../records/database.server';
import type { Role } from '../records/peopleTables.server';
import type { Made } from './passkeys.server';
import { keepPasskey } from './passkeys.server';
import {
  devices,
  joins,
  mayLook,
  passkeys,
  people,
  sessions,
} from '../records/peopleTables.server';
import { jobs } from '../records/schema.server';
import { hashed } from './secrets.server';
import { Viewer } from '../records/viewer.server';

export type Person = {
  id: string;
  name: string;
  role: Role;
  hasPhrase: boolean;
  hasPin: boolean;
  jobs: string[];
  seen: string | null;
};

const there = isNull(people.gone);

/** Whether anybody runs this shop yet. */
export const anybody = async (): Promise<boolean> =>
  (await dbOf(Viewer.shop).$count(people, and(there, eq(people.role, 'runs')))) > 0;

/** The people of the shop, in the order they came. */
export async function listPeople(viewer: Viewer): Promise<Person[]> {
  const db = dbOf(viewer);
  const rows = await db
    .select({
      person: people,
      seen: sql<Date | null>`(select max(s.seen) from ${sessions} s where s.person = ${people}.id)`,
    })
    .from(people)
    .where(there)
    .orderBy(asc(people.seq));
  const looks = await db.select().from(mayLook);
  return rows.map(({ person: { id, name, role, phrase, pin }, seen }) => ({
    id,
    name,
    role,
    hasPhrase: phrase !== null,
    hasPin: pin !== null,
    jobs: looks.filter((one) => one.person === id).map((one) => one.job),
    seen: seen && new Date(seen).toISOString(),
  }));
}

/**
 * The names of those who work here, for the shop's own device: whoever only looks writes nothing.
 */
export const namesAtWork = async (
  viewer: Viewer,
): Promise<{ id: string; name: string; hasPin: boolean }[]> =>
  (
    await dbOf(viewer)
      .select({ id: people.id, name: people.name, pin: people.pin })
      .from(people)
      .where(and(there, ne(people.role, 'looks')))
      .orderBy(asc(people.seq))
  ).map(({ pin, ...person }) => ({ ...person, hasPin: pin !== null }));

/** Somebody by name, as it is kept, whatever the letters’ size; null where nobody has it. */
export async function personNamed(name: string) {
  const [found] = await dbOf(Viewer.shop)
    .select()
    .from(people)
    .where(and(there, eq(sql`lower(${people.name})`, name.trim().toLocaleLowerCase('en'))));
  return found ?? null;
}

export async function personById(id: string) {
  const [found] = await dbOf(Viewer.shop)
    .select()
    .from(people)
    .where(and(there, eq(people.id, id)));
  return found ?? null;
}

export type PersonFacts = { name: string; role: Role; jobs: string[] };
/** Why a person cannot be as is wanted; null where they can. */
export type Refused = 'name-taken' | 'last-who-runs' | 'gone' | null;

/** Of jobs those that are there: one may have been put away for good meanwhile. */
async function setLooks(
  tx: Tx,
  person: string,
  { role, jobs: wanted }: PersonFacts,
): Promise<void> {
  await tx.delete(mayLook).where(eq(mayLook.person, person));
  if (role !== 'looks' || wanted.length === 0) return;
  const real = await tx.select({ id: jobs.id }).from(jobs).where(inArray(jobs.id, wanted));
  if (real.length > 0) await tx.insert(mayLook).values(real.map(({ id }) => ({ person, job: id })));
}

const sameName = (name: string, but: string | null) =>
  and(
    there,
    eq(sql`lower(${people.name})`, name.toLocaleLowerCase('en')),
    but === null ? undefined : ne(people.id, but),
  );

/**
 * Takes somebody into the shop; `phrase` null for one who only joins with a phone. Null where the
 * name is taken.
 */
export async function addPerson(
  viewer: Viewer,
  facts: PersonFacts,
  phrase: string | null,
): Promise<string | null> {
  const kept = phrase === null ? null : await hashed(phrase);
  return dbOf(viewer).transaction(async (tx) => {
    // One at a time: two of one name could sign in as each other.
    await tx.execute(sql`lock table ${people} in share row exclusive mode`);
    if ((await tx.$count(people, sameName(facts.name, null))) > 0) return null;
    const [row] = await tx
      .insert(people)
      .values({ name: facts.name, role: facts.role, phrase: kept })
      .returning();
    await setLooks(tx, row!.id, facts);
    return row!.id;
  });
}

/** The first person, who runs the shop, by a pass phrase or a passkey: only while nobody does. */
export async function addFirst(
  name: string,
  by: { phrase: string } | { passkey: Made },
): Promise<string | null> {
  const kept = 'phrase' in by ? await hashed(by.phrase) : null;
  return dbOf(Viewer.shop).transaction(async (tx) => {
    await tx.execute(sql`lock table ${people} in share row exclusive mode`);
    if ((await tx.$count(people, and(there, eq(people.role, 'runs')))) > 0) return null;
    const [row] = await tx.insert(people).values({ name, role: 'runs', phrase: kept }).returning();
    if ('passkey' in by) await keepPasskey(row!.id, by.passkey, tx);
    return row!.id;
  });
}

/** Whether nobody would be left who can run the shop and sign in. */
async function lastWhoRuns(tx: Tx, id: string): Promise<boolean> {
  const others = await tx.$count(people, and(there, eq(people.role, 'runs'), ne(people.id, id)));
  const [own] = await tx.select().from(people).where(eq(people.id, id));
  return own?.role === 'runs' && others === 0;
}

export const changePerson = (viewer: Viewer, id: string, facts: PersonFacts): Promise<Refused> =>
  dbOf(viewer).transaction(async (tx) => {
    await tx.execute(sql`lock table ${people} in share row exclusive mode`);
    if ((await tx.$count(people, and(there, eq(people.id, id)))) === 0) return 'gone';
    if ((await tx.$count(people, sameName(facts.name, id))) > 0) return 'name-taken';
    if (facts.role !== 'runs' && (await lastWhoRuns(tx, id))) return 'last-who-runs';
    await tx.update(people).set({ name: facts.name, role: facts.role }).where(eq(people.id, id));
    await setLooks(tx, id, facts);
    return null;
  });

/** Whoever has gone is signed out everywhere, and their devices with them. */
export const letGo = (viewer: Viewer, id: string): Promise<Refused> =>
  dbOf(viewer).transaction(async (tx) => {
    await tx.execute(sql`lock table ${people} in share row exclusive mode`);
    if (await lastWhoRuns(tx, id)) return 'last-who-runs';
    const now = new Date();
    await tx.update(people).set({ gone: now, phrase: null, pin: null }).where(eq(people.id, id));
    await tx
      .update(devices)
      .set({ gone: now })
      .where(and(eq(devices.person, id), isNull(devices.gone)));
    // The shop's own devices stay, with nobody at them.
    const shops = tx.select({ id: devices.id }).from(devices).where(isNull(devices.person));
    await tx
      .update(sessions)
      .set({ person: null, personUntil: null })
      .where(and(eq(sessions.person, id), inArray(sessions.device, shops)));
    await tx.delete(sessions).where(eq(sessions.person, id));
    await tx.delete(passkeys).where(eq(passkeys.person, id));
    await tx.delete(joins).where(eq(joins.person, id));
    return null;
  });

/**
 * A new pass phrase: whoever is signed in with the old one is so no longer, and their own phones
 * are let in anew, but for the session that changed it. A device of the shop’s own asks who it is
 * again.
 */
export async function setPhrase(
  viewer: Viewer,
  id: string,
  phrase: string,
  but: string | null,
): Promise<void> {
  const kept = await hashed(phrase);
  await dbOf(viewer).transaction(async (tx) => {
    await tx
      .update(people)
      .set({ phrase: kept })
      .where(and(there, eq(people.id, id)));
    const others = but === null ? undefined : ne(sessions.token, but);
    const shops = tx.select({ id: devices.id }).from(devices).where(isNull(devices.person));
    await tx
      .update(sessions)
      .set({ person: null, personUntil: null })
      .where(and(eq(sessions.person, id), inArray(sessions.device, shops), others));
    await tx
      .delete(sessions)
      .where(
        and(
          eq(sessions.person, id),
          or(isNull(sessions.device), notInArray(sessions.device, shops)),
          others,
        ),
      );
    // A phone without a session is no device any more.
    const still = tx
      .select({ id: sessions.device })
      .from(sessions)
      .where(and(eq(sessions.person, id), isNotNull(sessions.device)));
    await tx
      .update(devices)
      .set({ gone: new Date() })
      .where(and(eq(devices.person, id), isNull(devices.gone), notInArray(devices.id, still)));
  });
}

/** A PIN for the shop's own devices, or none. */
export async function setPin(viewer: Viewer, id: string, pin: string | null): Promise<void> {
  const kept = pin === null ? null : await hashed(pin);
  await dbOf(viewer)
    .update(people)
    .set({ pin: kept })
    .where(and(there, eq(people.id, id)));
}
