import { and, desc, eq, gt, lt, sql } from 'drizzle-orm';
import type { Database } from '../data/db';
import { log } from '../gateway/log';
import type { Person } from '../../contract/person';
import { auditLog } from './tables';

/** Days that the audit log is kept. */
export const TRAIL_DAYS = 180;
/** The same event within this time is one row with a count. */
const TOGETHER = 3_600_000;

interface AuditEvent {
  readonly what: string;
  readonly on: string;
  readonly person: Person;
  readonly client: string;
}

/** Records an event. */
export async function writeEvent(db: Database, { what, on, person, client }: AuditEvent): Promise<void> {
  const again = await db
    .update(auditLog)
    .set({ times: sql`${auditLog.times} + 1`, lastAt: new Date() })
    .where(
      and(
        eq(auditLog.what, what),
        eq(auditLog.on, on),
        eq(auditLog.who, person.id),
        eq(auditLog.client, client),
        gt(auditLog.firstAt, new Date(Date.now() - TOGETHER)),
      ),
    )
    .returning({ id: auditLog.id });
  if (again.length === 0) await db.insert(auditLog).values({ what, on, who: person.id, whoName: person.name, client });
}

/** The same without delaying the answer: what was done is done, whether it can be recorded or not. */
export function recordEvent(db: Database, deed: AuditEvent): void {
  void writeEvent(db, deed).catch((error: unknown) =>
    log().error({ error: String(error), deed: deed.what }, 'the trail could not be written'),
  );
}

/** The latest events, optionally before a given row. */
export async function readAuditLog(db: Database, before?: number) {
  return db
    .select()
    .from(auditLog)
    .where(before === undefined ? undefined : lt(auditLog.id, before))
    .orderBy(desc(auditLog.id))
    .limit(200);
}

/** Deletes expired events. */
export async function trimAuditLog(db: Database): Promise<void> {
  await db.delete(auditLog).where(lt(auditLog.lastAt, new Date(Date.now() - TRAIL_DAYS * 86_400_000)));
}
