import { and, desc, eq, gt, ne } from 'drizzle-orm';
import { database, type Database } from '../data/db';
import { AppError } from '../http/app-error';
import { UNATTENDED } from '../../contract/headers';
import { auth } from './auth';
import { ROLES, type Person, type Role } from '../../contract/person';
import { sessions } from './tables';

/** Milliseconds of idleness after which an owner's session ends. */
export const OWNER_IDLE = 12 * 3_600_000;
/** Milliseconds between updates of a session's last use. */
const NOTED = 5 * 60_000;
/** Milliseconds for which a given password counts as recent. */
export const SURE = 5 * 60_000;

interface Session {
  readonly id: string;
  readonly person: Person;
  /** When the password was last given. */
  readonly sureAt: Date;
}

/**
 * The session of a request's cookie. Its use is recorded, unless a page asks by itself (see UNATTENDED); an owner's
 * session that was idle for twelve hours is ended.
 */
export async function sessionOf(headers: Headers, now = Date.now()): Promise<Session | undefined> {
  if (!headers.get('cookie')?.includes('maypole.')) return undefined;
  const found = await auth().api.getSession({ headers });
  if (!found) return undefined;
  const { id, name, role } = found.user;
  if (!ROLES.includes(role as Role)) return undefined;
  const { session } = found;
  const seen = (session.seenAt ?? session.createdAt).getTime();
  if (role === 'own' && now - seen > OWNER_IDLE) {
    await database().delete(sessions).where(eq(sessions.id, session.id));
    return undefined;
  }
  if (now - seen > NOTED && !headers.has(UNATTENDED))
    await database()
      .update(sessions)
      .set({ seenAt: new Date(now) })
      .where(eq(sessions.id, session.id));
  return {
    id: session.id,
    person: { id, name, role: role as Role },
    sureAt: session.confirmedAt ?? session.createdAt,
  };
}

/** The session of a request that must have one. */
export async function ownSession(headers: Headers): Promise<Session> {
  const session = await sessionOf(headers);
  if (!session) throw new AppError(403, 'This is for people who are signed in, not for machines with a key.');
  return session;
}

/**
 * Requires a recent password: for whatever gives others power.
 *
 * @throws AppError 428 if it is not recent; a page then asks for it, and repeats the request
 */
export async function assertSure(headers: Headers, now = Date.now()): Promise<void> {
  const { sureAt } = await ownSession(headers);
  if (now - sureAt.getTime() > SURE) throw new AppError(428, 'Give your password once more for this.');
}

/** Records that the password was given just now. */
export async function noteSure(db: Database, id: string): Promise<void> {
  await db.update(sessions).set({ confirmedAt: new Date() }).where(eq(sessions.id, id));
}

/** Sessions of a person, most recently used first. */
export async function listSessions(db: Database, person: string) {
  return db
    .select({
      id: sessions.id,
      since: sessions.createdAt,
      seenAt: sessions.seenAt,
      client: sessions.ipAddress,
      agent: sessions.userAgent,
    })
    .from(sessions)
    .where(and(eq(sessions.userId, person), gt(sessions.expiresAt, new Date())))
    .orderBy(desc(sessions.seenAt))
    .limit(100);
}

/** Ends one of a person's own sessions. */
export async function endSession(db: Database, person: string, id: string): Promise<void> {
  const gone = await db
    .delete(sessions)
    .where(and(eq(sessions.id, id), eq(sessions.userId, person)))
    .returning({ id: sessions.id });
  if (gone.length === 0) throw new AppError(404, 'You are not signed in there any more.');
}

/** Ends all of a person's sessions but one. */
export async function endOtherSessions(db: Database, person: string, but: string): Promise<void> {
  await db.delete(sessions).where(and(eq(sessions.userId, person), ne(sessions.id, but)));
}
