import { and, desc, eq, gt, lt, sql } from 'drizzle-orm';
import type { Database } from '../db';
import { log } from '../front/log';
import type { Person } from './person';
import { trail } from './tables';

/** Days that the trail is kept. */
export const TRAIL_DAYS = 180;
/** The same thing done again within this time is one row. */
const TOGETHER = 3_600_000;

export interface Deed {
  readonly what: string;
  readonly on: string;
  readonly person: Person;
  readonly client: string;
}

/** Writes down what was done. */
export async function writeTrail(db: Database, { what, on, person, client }: Deed): Promise<void> {
  const again = await db
    .update(trail)
    .set({ times: sql`${trail.times} + 1`, lastAt: new Date() })
    .where(
      and(
        eq(trail.what, what),
        eq(trail.on, on),
        eq(trail.who, person.id),
        eq(trail.client, client),
        gt(trail.firstAt, new Date(Date.now() - TOGETHER)),
      ),
    )
    .returning({ id: trail.id });
  if (again.length === 0) await db.insert(trail).values({ what, on, who: person.id, whoName: person.name, client });
}

/** The same beside the answer: what was done is done, whether it can be written down or not. */
export function noteDeed(db: Database, deed: Deed): void {
  void writeTrail(db, deed).catch((error: unknown) =>
    log().error({ error: String(error), deed: deed.what }, 'the trail could not be written'),
  );
}

/** The latest, before a row where one is named. */
export async function readTrail(db: Database, before?: number) {
  return db
    .select()
    .from(trail)
    .where(before === undefined ? undefined : lt(trail.id, before))
    .orderBy(desc(trail.id))
    .limit(200);
}

/** Takes away what is older than it is kept. */
export async function trimTrail(db: Database): Promise<void> {
  await db.delete(trail).where(lt(trail.lastAt, new Date(Date.now() - TRAIL_DAYS * 86_400_000)));
}
