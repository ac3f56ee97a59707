import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { attempts } from '@/server/people/attempts';
import { auth } from '@/server/people/auth';
import { againBody, codeBody } from '@/contract/people';
import { cookiesOf } from '@/server/people/cookies';
import { assertOpen } from '@/server/people/open';
import { byPassword } from '@/server/people/own-password';
import { ownSession } from '@/server/people/sessions';

const SO = 'so nobody signs in';

/** Whether the second factor is on. */
export const GET = route({ who: 'look' }, async ({ request }) => {
  assertOpen(SO);
  await ownSession(request.headers);
  const found = await auth().api.getSession({ headers: request.headers });
  return Response.json({ on: found?.user.twoFactorEnabled === true });
});

/** Prepares the second factor: the secret for an authenticator and recovery codes, shown once. Not in force yet. */
export const POST = route({ takes: againBody, who: 'look', body: 2000 }, async (call) => {
  assertOpen(SO);
  const { headers } = call.request;
  await ownSession(headers);
  const body = parseJson(call.body, againBody);
  const answer = await byPassword(call, () => auth().api.enableTwoFactor({ body, headers, asResponse: true }));
  const { totpURI, backupCodes } = (await answer.json()) as { totpURI: string; backupCodes: string[] };
  return Response.json({ uri: totpURI, codes: backupCodes });
});

/** Confirms the authenticator by its first code; the second factor is in force from here on. */
export const PUT = route(
  { takes: codeBody, who: 'look', body: 2000, deed: 'had codes asked for' },
  async ({ request, body, person, visit }) => {
    assertOpen(SO);
    const { headers } = request;
    await ownSession(headers);
    const { code } = parseJson(body, codeBody);
    const trying = { client: visit.client, account: `code ${person!.id}` };
    attempts().begin(trying);
    const answer = await auth().api.verifyTOTP({ body: { code }, headers, asResponse: true });
    if (!answer.ok)
      throw new AppError(
        422,
        'This code is not right. Take the one that the device shows now, and look whether its clock is.',
      );
    attempts().succeeded(trying);
    return new Response(null, { status: 204, headers: cookiesOf(answer) });
  },
);
