import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { auth } from '@/server/people/auth';
import { againBody } from '@/contract/people';
import { cookiesOf } from '@/server/people/cookies';
import { assertOpen } from '@/server/people/open';
import { byPassword } from '@/server/people/own-password';
import { ownSession } from '@/server/people/sessions';

/** Switches the second factor off. */
export const POST = route(
  { takes: againBody, who: 'look', body: 2000, deed: 'had codes no longer asked for' },
  async (call) => {
    assertOpen('so nobody signs in');
    const { headers } = call.request;
    await ownSession(headers);
    const body = parseJson(call.body, againBody);
    const answer = await byPassword(call, () => auth().api.disableTwoFactor({ body, headers, asResponse: true }));
    return new Response(null, { status: 204, headers: cookiesOf(answer) });
  },
);
