import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { assertOpen } from '@/server/people/open';
import { endOtherSessions, listSessions, ownSession } from '@/server/people/sessions';

/** One's own sessions. */
export const GET = route({ who: 'look' }, async ({ request, person }) => {
  assertOpen('so nobody signs in');
  const { id } = await ownSession(request.headers);
  const all = await listSessions(database(), person!.id);
  return Response.json({
    // The requesting one comes first.
    sessions: all.map((s) => ({ ...s, here: s.id === id })).sort((a, b) => Number(b.here) - Number(a.here)),
  });
});

/** Ends all other sessions. */
export const DELETE = route({ who: 'look', deed: 'signed out elsewhere' }, async ({ request, person }) => {
  assertOpen('so nobody signs in');
  const { id } = await ownSession(request.headers);
  await endOtherSessions(database(), person!.id, id);
  return new Response(null, { status: 204 });
});
