import { sql } from 'drizzle-orm';
import { database } from '@/server/db';
import { handle } from '@/server/http/handle';

export const dynamic = 'force-dynamic';

/** Answers once the database does; the start command waits for it. */
export const GET = handle(async () => {
  await database().execute(sql`select 1`);
  return Response.json({ ok: true });
});
