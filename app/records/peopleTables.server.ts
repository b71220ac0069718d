import { bigint, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { jobs, moment, order } from './schema.server';

/** What somebody may do: run the shop, work in it, or look at some of its jobs. */
export type Role = 'runs' | 'works' | 'looks';

/**
 * People of the shop, by first name. `phrase`, `pin`: argon2id hashes, null where there is none.
 * Whoever has gone stays, for the records.
 */
export const people = pgTable('people', {
  id: uuid('id').primaryKey().defaultRandom(),
  seq: order(),
  name: text('name').notNull(),
  role: text('role').$type<Role>().notNull(),
  phrase: text('phrase'),
  pin: text('pin'),
  created: moment('created').notNull().defaultNow(),
  gone: moment('gone'),
});

/** The jobs that somebody who looks may see. */
export const mayLook = pgTable(
  'may_look',
  {
    person: uuid('person')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    job: uuid('job')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
  },
  (t) => [primaryKey({ columns: [t.person, t.job] })],
);

/** A phone or tablet that was let in: somebody's, or the shop's own (no person). */
export const devices = pgTable('devices', {
  id: uuid('id').primaryKey().defaultRandom(),
  seq: order(),
  name: text('name').notNull(),
  person: uuid('person').references(() => people.id, { onDelete: 'cascade' }),
  created: moment('created').notNull().defaultNow(),
  /** When it was thrown out. */
  gone: moment('gone'),
});

/**
 * Who is signed in where. `token`: the SHA-256 of what the browser's cookie holds, so that whoever
 * reads this table cannot be anybody. On the shop's own device `person` is who said last that it is
 * them, until `personUntil`.
 */
export const sessions = pgTable(
  'sessions',
  {
    token: text('token').primaryKey(),
    person: uuid('person').references(() => people.id, { onDelete: 'cascade' }),
    personUntil: moment('person_until'),
    device: uuid('device').references(() => devices.id, { onDelete: 'cascade' }),
    made: moment('made').notNull().defaultNow(),
    seen: moment('seen').notNull().defaultNow(),
    until: moment('until').notNull(),
  },
  (t) => [index('sessions_person').on(t.person), index('sessions_device').on(t.device)],
);

/** A code on a screen that lets one phone in, once, for five minutes; kept as its SHA-256. */
export const joins = pgTable('joins', {
  code: text('code').primaryKey(),
  device: text('device').notNull(),
  person: uuid('person').references(() => people.id, { onDelete: 'cascade' }),
  until: moment('until').notNull(),
});

/** Tries to sign in that were wrong: the name as it was typed, and from where. */
export const wrongTries = pgTable(
  'wrong_tries',
  {
    seq: order(),
    at: moment('at').notNull().defaultNow(),
    name: text('name').notNull(),
    address: text('address').notNull(),
  },
  (t) => [index('wrong_tries_at').on(t.at)],
);

/**
 * How often a secret was tried and not found right, and when it may be tried again: by its `kind`,
 * by `who` it is the secret of (a name, a device, a code), and by where it was tried from. With
 * `who` empty, all of one address together.
 */
export const secretTries = pgTable(
  'secret_tries',
  {
    kind: text('kind').notNull(),
    who: text('who').notNull(),
    address: text('address').notNull(),
    tries: integer('tries').notNull(),
    at: moment('at').notNull().defaultNow(),
    until: moment('until').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.kind, t.who, t.address] }), index('secret_tries_at').on(t.at)],
);

/**
 * A passkey of somebody (WebAuthn): a phone or machine signs in with it in place of a pass phrase.
 * Only its public half is kept; it is good for one host name alone.
 */
export const passkeys = pgTable(
  'passkeys',
  {
    /** As the authenticator names it, base64url. */
    id: text('id').primaryKey(),
    seq: order(),
    person: uuid('person')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    host: text('host').notNull(),
    publicKey: text('public_key').notNull(),
    /** How often it has signed, where it counts. */
    counter: bigint('counter', { mode: 'number' }).notNull(),
    made: moment('made').notNull().defaultNow(),
    used: moment('used'),
  },
  (t) => [index('passkeys_person').on(t.person)],
);

/**
 * What a passkey was asked to sign, once, within minutes. `person`: whose new one it is to be; null
 * to sign in, and for the first.
 */
export const passkeyAsks = pgTable('passkey_asks', {
  challenge: text('challenge').primaryKey(),
  person: uuid('person').references(() => people.id, { onDelete: 'cascade' }),
  until: moment('until').notNull(),
});
