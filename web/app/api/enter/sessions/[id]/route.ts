import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { sessionId } from '@/contract/people';
import { assertOpen } from '@/server/people/open';
import { endSession, ownSession } from '@/server/people/sessions';

/** Ends one of one's own sessions. */
export const DELETE = route<{ id: string }>(
  { who: 'look', deed: 'signed out elsewhere' },
  async ({ request, params, person }) => {
    assertOpen('so nobody signs in');
    await ownSession(request.headers);
    await endSession(database(), person!.id, sessionId.parse(params.id));
    return new Response(null, { status: 204 });
  },
);
