import { auth } from '@/server/people/auth';
import { attempts } from '@/server/people/attempts';
import { isKnownBrowser, knownBrowserCookie } from '@/server/people/known-browser';
import { enterBody } from '@/contract/people';
import { cookiesOf } from '@/server/people/cookies';
import { assertOpen, isOpen } from '@/server/people/open';
import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { noteFailed } from '@/server/people/signing-in';

/**
 * Signs in: sets a session cookie that no script can read, or, if a second factor is on, answers `second`; POST of
 * `enter/code` continues.
 */
export const POST = route({ takes: enterBody, who: 'anyone', body: 2000 }, async ({ request, body, visit }) => {
  assertOpen('so there is nothing to sign in to');
  const { email, password } = parseJson(body, enterBody);
  const account = email.toLowerCase();
  const cookie = request.headers.get('cookie');
  const trying = { client: visit.client, account, known: isKnownBrowser(cookie, account) };
  attempts().begin(trying);
  const answer = await auth().api.signInEmail({
    body: { email: account, password },
    headers: request.headers,
    asResponse: true,
  });
  if (!answer.ok) {
    noteFailed(visit, account);
    // The same words whether name or password is wrong.
    throw new AppError(
      401,
      'This address and password do not belong together. Try again, or ask the owner for a new invitation.',
    );
  }
  attempts().succeeded(trying);
  const headers = cookiesOf(answer);
  const { twoFactorRedirect } = (await answer.json()) as { twoFactorRedirect?: boolean };
  // Not signed in yet: a code is needed.
  if (twoFactorRedirect) return Response.json({ second: true }, { headers });
  headers.append('Set-Cookie', knownBrowserCookie(cookie, account));
  return Response.json({ ok: true }, { headers });
});

/** Signs out and ends the session on the server. */
export const DELETE = route({ who: 'anyone' }, async ({ request }) => {
  if (!isOpen()) return new Response(null, { status: 204 });
  const answer = await auth().api.signOut({ headers: request.headers, asResponse: true });
  return new Response(null, { status: 204, headers: cookiesOf(answer) });
});
