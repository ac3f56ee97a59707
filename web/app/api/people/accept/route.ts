import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { attempts } from '@/server/people/attempts';
import { acceptBody } from '@/contract/people';
import { accept } from '@/server/people/invites';
import { assertOpen } from '@/server/people/open';
import { recordEvent } from '@/server/people/audit-log';

/** Creates an account from an invitation. */
export const POST = route({ takes: acceptBody, who: 'anyone', body: 2000 }, async ({ body, visit }) => {
  assertOpen('so nobody can be invited');
  const { token, ...given } = parseJson(body, acceptBody);
  // Links cannot be guessed; attempts count per client, so that nobody locks others out.
  const trying = { client: visit.client, account: `invitation ${visit.client}` };
  attempts().begin(trying);
  const person = await accept(database(), token, given);
  attempts().succeeded(trying);
  recordEvent(database(), { what: 'accepted an invitation', on: person.name, person, client: visit.client });
  return Response.json({ ok: true }, { status: 201 });
});
