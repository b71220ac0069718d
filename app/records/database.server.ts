import { drizzle } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import * as relations from './relations.server';
import * as peopleTables from './peopleTables.server';
import * as schema from './schema.server';
import type { Viewer } from './viewer.server';

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set: start Patrone with ./patrone start');

/** Connections that know when to stop waiting: for one to be free, for a lock, for an answer. */
const connections = (max: number) => {
  const made = new pg.Pool({
    connectionString: url,
    max,
    connectionTimeoutMillis: 4000,
    idleTimeoutMillis: 30_000,
    lock_timeout: 5000,
    statement_timeout: 20_000,
    idle_in_transaction_session_timeout: 30_000,
  });
  // A connection that dies must not take the server with it, be it idle or in the middle of a
  // transaction: the query that wanted it says so.
  made.on('error', () => undefined);
  made.on('connect', (client) => client.on('error', () => undefined));
  return made;
};

export const pool = connections(10);
/**
 * One apart, so that asking whether the database answers does not queue behind those who wait for
 * it.
 */
export const asking = connections(1);

const db = drizzle(pool, { schema: { ...schema, ...peopleTables, ...relations } });
export type Db = typeof db;

/**
 * The database for whoever asks: a query that does not say for whom it asks has none to ask, nor
 * has one for nobody.
 */
export const dbOf = (viewer: Viewer): Db => {
  if (!viewer.known) throw new Error('Nobody has signed in: there is nothing to be asked for.');
  return db;
};

/**
 * A statement that is built once, and planned by the database once for each connection: for what
 * every page asks.
 */
export function standing<Statement>(build: (db: Db) => Statement): (viewer: Viewer) => Statement {
  let built: Statement | null = null;
  return (viewer) => {
    const db = dbOf(viewer);
    return (built ??= build(db));
  };
}

/** Rows inserted by one statement: a statement takes 65 535 values. */
const LOT = 500;

/** Puts many rows in, some hundreds at a time; nothing where there are none. */
export async function inLots<Row>(
  rows: readonly Row[],
  put: (lot: Row[]) => Promise<unknown>,
): Promise<void> {
  for (let i = 0; i < rows.length; i += LOT) await put(rows.slice(i, i + LOT));
}

/** The database, or a transaction on it. */
export type Tx = Db | Parameters<Parameters<Db['transaction']>[0]>[0];
