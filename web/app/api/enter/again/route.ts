import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { auth } from '@/server/people/auth';
import { againBody } from '@/contract/people';
import { assertOpen } from '@/server/people/open';
import { byPassword } from '@/server/people/own-password';
import { noteSure, ownSession } from '@/server/people/sessions';

/** Takes the password again, for actions that give others power (see `sure` in the rules of routes). */
export const POST = route({ takes: againBody, who: 'look', body: 2000 }, async (call) => {
  assertOpen('so there are no passwords');
  const { id } = await ownSession(call.request.headers);
  const { password } = parseJson(call.body, againBody);
  const { headers } = call.request;
  await byPassword(call, () => auth().api.verifyPassword({ body: { password }, headers, asResponse: true }));
  await noteSure(database(), id);
  return new Response(null, { status: 204 });
});
