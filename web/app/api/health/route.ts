import { sql } from 'drizzle-orm';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** Answers once the database answers; the start command waits for it. */
export const GET = route({ who: 'anyone' }, async () => {
  await database().execute(sql`select 1`);
  return Response.json({ ok: true });
});
