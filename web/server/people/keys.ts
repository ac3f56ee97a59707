import { and, desc, eq, gt, isNull } from 'drizzle-orm';
import { database, type Database } from '../data/db';
import { AppError } from '../http/app-error';
import type { Person, Role } from '../../contract/person';
import { digestOf, newToken } from './secret-token';
import { keys } from './tables';

/** Prefix of keys, so that a leaked one is recognised. */
const MARK = 'maypole_';

/** The machine that holds a key, if it is known, not withdrawn and not expired. */
export async function keyHolder(key: string): Promise<Person | undefined> {
  if (!key.startsWith(MARK) || key.length > 200) return undefined;
  const [row] = await database()
    .update(keys)
    .set({ lastUsedAt: new Date() })
    .where(and(eq(keys.digest, digestOf(key)), isNull(keys.withdrawnAt), gt(keys.endsAt, new Date())))
    .returning({ id: keys.id, name: keys.name, role: keys.role });
  return row && { id: `key:${row.id}`, name: row.name, role: row.role };
}

/** Creates a key for a number of days. It is returned this once, and stored as a digest. */
export async function makeKey(
  db: Database,
  name: string,
  role: Exclude<Role, 'own'>,
  days: number,
): Promise<{ id: string; key: string }> {
  const key = MARK + newToken();
  const [row] = await db
    .insert(keys)
    .values({ digest: digestOf(key), name, role, endsAt: new Date(Date.now() + days * 86_400_000) })
    .returning({ id: keys.id });
  return { id: row.id, key };
}

export async function listKeys(db: Database) {
  return db
    .select({
      id: keys.id,
      name: keys.name,
      role: keys.role,
      createdAt: keys.createdAt,
      lastUsedAt: keys.lastUsedAt,
      endsAt: keys.endsAt,
    })
    .from(keys)
    .where(isNull(keys.withdrawnAt))
    .orderBy(desc(keys.createdAt))
    .limit(500);
}

export async function withdrawKey(db: Database, id: string): Promise<void> {
  const gone = await db
    .update(keys)
    .set({ withdrawnAt: new Date() })
    .where(and(eq(keys.id, id), isNull(keys.withdrawnAt)))
    .returning({ id: keys.id });
  if (gone.length === 0) throw new AppError(404, 'There is no such key; it may have been withdrawn already.');
}
