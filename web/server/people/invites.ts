import { and, count, desc, eq, gt, isNull } from 'drizzle-orm';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { makePerson } from './auth';
import type { Person, Role } from '../../contract/person';
import { digestOf, newToken } from './secret-token';
import { invites, people } from './tables';

/** Days that a link is valid. */
const INVITE_DAYS = 7;

/** Creates an invitation; its secret is returned this once. */
export async function invite(db: Database, role: Role, note: string): Promise<{ id: string; token: string }> {
  const token = newToken();
  const expiresAt = new Date(Date.now() + INVITE_DAYS * 86_400_000);
  const [row] = await db
    .insert(invites)
    .values({ digest: digestOf(token), role, note, expiresAt })
    .returning({ id: invites.id });
  return { id: row.id, token };
}

const usable = () => and(isNull(invites.usedAt), gt(invites.expiresAt, new Date()));
const spent = () => new AppError(410, 'This invitation was used already, or is too old. Ask the owner for another.');

/** The role of an invitation; throws if it is no longer valid. */
export async function invited(db: Database, token: string): Promise<Role> {
  const [row] = await db
    .select({ role: invites.role })
    .from(invites)
    .where(and(eq(invites.digest, digestOf(token)), usable()));
  if (!row) throw spent();
  return row.role;
}

/** Creates an account by an invitation, which is used up. */
export async function accept(
  db: Database,
  token: string,
  given: { name: string; email: string; password: string },
): Promise<Person> {
  // Used up first: two who come at once are one.
  const [row] = await db
    .update(invites)
    .set({ usedAt: new Date() })
    .where(and(eq(invites.digest, digestOf(token)), usable()))
    .returning({ id: invites.id, role: invites.role });
  if (!row) throw spent();
  try {
    return await makePerson({ ...given, role: row.role });
  } catch (error) {
    await db.update(invites).set({ usedAt: null }).where(eq(invites.id, row.id));
    throw error;
  }
}

export async function listInvites(db: Database) {
  return db
    .select({ id: invites.id, role: invites.role, note: invites.note, expiresAt: invites.expiresAt })
    .from(invites)
    .where(usable())
    .orderBy(desc(invites.createdAt))
    .limit(500);
}

export async function withdrawInvite(db: Database, id: string): Promise<void> {
  const gone = await db
    .delete(invites)
    .where(and(eq(invites.id, id), isNull(invites.usedAt)))
    .returning({ id: invites.id });
  if (gone.length === 0) throw new AppError(404, 'There is no such invitation; it may have been used by now.');
}

/** Secret of a link for the first owner; unused earlier ones are withdrawn. */
export async function ownerLink(db: Database): Promise<string | undefined> {
  const [{ n }] = await db
    .select({ n: count() })
    .from(people)
    .where(and(eq(people.role, 'own'), isNull(people.endedAt)));
  if (n > 0) return undefined;
  await db.delete(invites).where(and(eq(invites.role, 'own'), isNull(invites.usedAt)));
  return (await invite(db, 'own', 'The owner')).token;
}
