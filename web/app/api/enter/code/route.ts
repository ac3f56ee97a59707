import { eq } from 'drizzle-orm';
import { database } from '@/server/data/db';
import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { attempts } from '@/server/people/attempts';
import { auth } from '@/server/people/auth';
import { codeBody } from '@/contract/people';
import { cookiesOf } from '@/server/people/cookies';
import { knownBrowserCookie } from '@/server/people/known-browser';
import { assertOpen } from '@/server/people/open';
import { noteFailed } from '@/server/people/signing-in';
import { sessions } from '@/server/people/tables';
import { usedCodes } from '@/server/people/used-codes';

/** Codes of an authenticator have six digits; anything else is a recovery code, five letters and five. */
const OF_DEVICE = /^\d{6}$/;

/** Second factor after the password: a code of the authenticator or a recovery code; see POST of `enter`. */
export const POST = route({ takes: codeBody, who: 'anyone', body: 2000 }, async ({ request, body, visit }) => {
  assertOpen('so there is nothing to sign in to');
  const code = parseJson(body, codeBody).code.replace(/\s/g, '');
  const { headers } = request;
  const trying = { client: visit.client, account: `code ${visit.client}` };
  attempts().begin(trying);
  const options = { body: { code }, headers, asResponse: true } as const;
  const answer = await (OF_DEVICE.test(code) ? auth().api.verifyTOTP(options) : auth().api.verifyBackupCode(options));
  if (!answer.ok) {
    noteFailed(visit, 'a code after the password');
    throw troubleOf(((await answer.json().catch(() => ({}))) as { code?: string }).code);
  }
  const { token, user } = (await answer.json()) as { token: string; user: { id: string; email: string } };
  if (!usedCodes().claim(user.id, code)) {
    await database().delete(sessions).where(eq(sessions.token, token));
    throw new AppError(410, 'This code was used already. Wait for the next one, and sign in again.');
  }
  attempts().succeeded(trying);
  const given = cookiesOf(answer);
  given.append('Set-Cookie', knownBrowserCookie(headers.get('cookie'), user.email));
  return Response.json({ ok: true }, { headers: given });
});

/** 410 if signing in must begin again with the password. */
function troubleOf(code: string | undefined): AppError {
  switch (code) {
    case 'INVALID_TWO_FACTOR_COOKIE':
    case 'TOO_MANY_ATTEMPTS_REQUEST_NEW_CODE':
      return new AppError(410, 'It took too long, or too many tries. Give your password again.');
    case 'ACCOUNT_TEMPORARILY_LOCKED':
      return new AppError(429, 'There were too many wrong codes for this account. Wait fifteen minutes.');
    default:
      return new AppError(401, 'This code is not right. Take the one that your device shows now, or one on paper.');
  }
}
