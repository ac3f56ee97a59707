/** Brings the database up to date, and gives an empty one the demo pieces. Run by the start command. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { count } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { connect } from './db';
import { createPiece } from './pieces';
import { pieces } from './schema';

const here = import.meta.dirname;

async function main(): Promise<void> {
  const db = connect(process.env.DATABASE_URL!);
  try {
    await migrate(db, { migrationsFolder: path.join(here, 'migrations') });
    if (!process.argv.includes('--demo')) return;
    const [{ n }] = await db.select({ n: count() }).from(pieces);
    if (n > 0) return;
    const folder = path.join(here, '../../demo');
    // The last one made stands first on the shelf. All of them or none: with some the shelf would never get the rest.
    await db.transaction(async (tx) => {
      for (const file of readdirSync(folder)
        .filter((f) => f.endsWith('.json'))
        .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
        .reverse())
        await createPiece(tx, readFileSync(path.join(folder, file), 'utf8'));
    });
  } finally {
    await db.$client.end();
  }
}

await main();
