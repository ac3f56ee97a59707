import { and, eq, isNull, ne } from 'drizzle-orm';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import type { Role } from '../../contract/person';
import { accounts, people, sessions, twoFactors } from './tables';

/** Everyone with an account. */
export async function listPeople(db: Database) {
  return db
    .select({ id: people.id, name: people.name, email: people.email, role: people.role, createdAt: people.createdAt })
    .from(people)
    .where(isNull(people.endedAt))
    .orderBy(people.createdAt)
    .limit(2000);
}

/**
 * Ensures that another owner remains: the rows of all owners are locked until the transaction ends, so that of two who
 * demote each other the later one sees what the first did.
 */
async function assertOtherOwner(tx: Pick<Database, 'select'>, id: string): Promise<void> {
  const owners = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.role, 'own'), isNull(people.endedAt)))
    // In a fixed order, which prevents deadlocks.
    .orderBy(people.id)
    .for('update');
  // What was read before the lock may be stale: each row is read again.
  const still = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.role, 'own'), isNull(people.endedAt), ne(people.id, id)));
  if (owners.length === 0 || still.length === 0)
    throw new AppError(422, 'This is the only owner. Make somebody else an owner first.');
}

const unknown = () => new AppError(404, 'There is nobody of this kind here; they may have been removed.');

export async function setRole(db: Database, id: string, role: Role): Promise<void> {
  await db.transaction(async (tx) => {
    if (role !== 'own') await assertOtherOwner(tx, id);
    const rows = await tx
      .update(people)
      .set({ role })
      .where(and(eq(people.id, id), isNull(people.endedAt)))
      .returning({ id: people.id });
    if (rows.length === 0) throw unknown();
  });
}

/** Ends an account at once. What the person made stays, and so does the name in the audit log. */
export async function endPerson(db: Database, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    await assertOtherOwner(tx, id);
    const rows = await tx
      .update(people)
      // The address is free for a new account.
      .set({ endedAt: new Date(), email: `${id}@ended.invalid`, role: 'look', twoFactorEnabled: false })
      .where(and(eq(people.id, id), isNull(people.endedAt)))
      .returning({ id: people.id });
    if (rows.length === 0) throw unknown();
    await tx.delete(sessions).where(eq(sessions.userId, id));
    await tx.delete(twoFactors).where(eq(twoFactors.userId, id));
    await tx.delete(accounts).where(eq(accounts.userId, id));
  });
}
