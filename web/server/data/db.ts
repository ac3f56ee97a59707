import { sql } from 'drizzle-orm';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;

declare global {
  var maypoleDatabase: Database | undefined;
}

/** Connects to a database, with a pool of its own. */
export function connect(url: string): Database & { $client: pg.Pool } {
  const pool = new pg.Pool({ connectionString: url, max: 8 });
  // An idle connection may be cut when the database stops; the next query reports that.
  pool.on('error', () => undefined);
  return drizzle(pool, { schema }) as Database & { $client: pg.Pool };
}

/**
 * Locks a counted quantity until the transaction ends: others who count it wait, and then see the result. For whatever
 * has an upper limit, or must not drop to 0.
 */
export async function holdCount(tx: Pick<Database, 'execute'>, what: string): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`maypole count of ${what}`}, 0))`);
}

/** The application's database, named by DATABASE_URL. */
export function database(): Database {
  if (!globalThis.maypoleDatabase) {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error('DATABASE_URL is not set; start with ./maypole start, which sets it.');
    globalThis.maypoleDatabase = connect(url);
  }
  return globalThis.maypoleDatabase;
}
