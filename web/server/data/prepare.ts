/**
 * Migrates the database, and fills an empty one with the demo pieces. Run by the start command, from the project's
 * folder.
 */
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { count, sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { connect, type Database } from './db';
import { pieces } from './schema';

// The built program stands elsewhere than its sources.
const MIGRATIONS = path.resolve('web/server/migrations');
/** The schema that a connection uses: ours alone on a server shared with others. */
const schema = /search_path=(\w+)/.exec(decodeURIComponent(process.env.DATABASE_URL ?? ''))?.[1];
/** Where the list of applied migrations is kept. */
const listSchema = schema ?? 'drizzle';

/** Migrates with the migrations as they are, or with a copy in which another schema stands for “public”. */
async function migrateTo(db: Database, name: string | undefined): Promise<void> {
  if (name === undefined) return migrate(db, { migrationsFolder: MIGRATIONS, migrationsSchema: listSchema });
  const scratch = mkdtempSync(path.join(tmpdir(), 'maypole-migrations-'));
  try {
    const folder = path.join(scratch, 'migrations');
    cpSync(MIGRATIONS, folder, { recursive: true });
    for (const file of readdirSync(folder).filter((f) => f.endsWith('.sql'))) {
      const text = readFileSync(path.join(folder, file), 'utf8');
      writeFileSync(path.join(folder, file), text.replaceAll('"public".', `"${name}".`));
    }
    await migrate(db, { migrationsFolder: folder, migrationsSchema: listSchema });
  } finally {
    rmSync(scratch, { recursive: true, force: true });
  }
}

async function main(): Promise<void> {
  const db = connect(process.env.DATABASE_URL!);
  try {
    await refuseNewer(db);
    await migrateTo(db, schema);
    if (!process.argv.includes('--demo')) return;
    const [{ n }] = await db.select({ n: count() }).from(pieces);
    if (n > 0) return;
    // Loads everything that evaluates pieces, which a start does not need otherwise.
    const { fillShelf } = await import('../demo/shelf');
    await fillShelf(db, path.resolve('demo'));
  } finally {
    await db.$client.end();
  }
}

/** A database that a later Maypole has migrated is left alone. */
async function refuseNewer(db: Database): Promise<void> {
  const known = JSON.parse(readFileSync(path.join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
    entries: readonly { readonly when: number }[];
  };
  const table = await db.execute<{ there: string | null }>(
    sql`select to_regclass(${`${listSchema}.__drizzle_migrations`})::text as there`,
  );
  if (!table.rows[0]?.there) return;
  const newest = await db.execute<{ newest: string | null }>(
    sql`select max(created_at)::text as newest from ${sql.identifier(listSchema)}.__drizzle_migrations`,
  );
  if (Number(newest.rows[0]?.newest ?? 0) > Math.max(...known.entries.map((e) => e.when)))
    throw new Newer(
      'The data is of a newer Maypole than this one, and is left as it is. Start that one, or set MAYPOLE_DATA to another folder.',
    );
}

class Newer extends Error {}

try {
  await main();
} catch (error) {
  if (!(error instanceof Newer)) throw error;
  console.error(error.message);
  process.exitCode = 3;
}
