import { and, eq, isNull, ne } from 'drizzle-orm';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import type { Role } from '../../contract/person';
import { accounts, people, sessions, twoFactors } from './tables';

/** Everyone who may come in. */
export async function listPeople(db: Database) {
  return db
    .select({ id: people.id, name: people.name, email: people.email, role: people.role, createdAt: people.createdAt })
    .from(people)
    .where(isNull(people.endedAt))
    .orderBy(people.createdAt)
    .limit(2000);
}

/**
 * Some owner stays, whatever is done: the rows of all owners are locked until the transaction ends, so that of two who
 * lower each other the later one sees what the first has done.
 */
async function assertOtherOwner(tx: Pick<Database, 'select'>, id: string): Promise<void> {
  const owners = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.role, 'own'), isNull(people.endedAt)))
    // In one order, so that nobody waits for who waits for them.
    .orderBy(people.id)
    .for('update');
  // What was read before the lock was had may be old: each is looked at once more.
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

/** Lets somebody in no more, at once. What they made stays, and so does their name in the trail. */
export async function endPerson(db: Database, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    await assertOtherOwner(tx, id);
    const rows = await tx
      .update(people)
      // The address is free again, for an account to be made anew.
      .set({ endedAt: new Date(), email: `${id}@ended.invalid`, role: 'look', twoFactorEnabled: false })
      .where(and(eq(people.id, id), isNull(people.endedAt)))
      .returning({ id: people.id });
    if (rows.length === 0) throw unknown();
    await tx.delete(sessions).where(eq(sessions.userId, id));
    await tx.delete(twoFactors).where(eq(twoFactors.userId, id));
    await tx.delete(accounts).where(eq(accounts.userId, id));
  });
}
