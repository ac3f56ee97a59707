import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { auth } from '@/server/people/auth';
import { passwordBody } from '@/contract/people';
import { cookiesOf } from '@/server/people/cookies';
import { assertOpen } from '@/server/people/open';
import { byPassword } from '@/server/people/own-password';
import { ownSession } from '@/server/people/sessions';

/** Changes one's password and ends sessions in other browsers. */
export const PUT = route(
  { takes: passwordBody, who: 'look', body: 2000, deed: 'changed their password' },
  async (call) => {
    assertOpen('so there are no passwords');
    const { headers } = call.request;
    await ownSession(headers);
    const { password, next } = parseJson(call.body, passwordBody);
    const answer = await byPassword(call, () =>
      auth().api.changePassword({
        body: { currentPassword: password, newPassword: next, revokeOtherSessions: true },
        headers,
        asResponse: true,
      }),
    );
    return new Response(null, { status: 204, headers: cookiesOf(answer) });
  },
);
