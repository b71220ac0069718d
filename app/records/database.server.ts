import { drizzle } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import * as schema from './schema.server';

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set: start Patrone with ./patrone start');

export const pool = new pg.Pool({
  connectionString: url,
  max: 10,
  connectionTimeoutMillis: 4000,
  idleTimeoutMillis: 30_000,
});
// A database that goes away while a connection idles must not take the server with it; the next query says so.
pool.on('error', () => undefined);

export const db = drizzle(pool, { schema });
export type Db = typeof db;
/** The database, or a transaction on it. */
export type Tx = Db | Parameters<Parameters<Db['transaction']>[0]>[0];
