import { auth } from '@/server/people/auth';
import { attempts } from '@/server/people/attempts';
import { isKnownBrowser, knownBrowserCookie } from '@/server/people/known-browser';
import { enterBody } from '@/server/people/contract';
import { isOpen } from '@/server/people/open';
import { database } from '@/server/db';
import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { noteDeed } from '@/server/people/trail';

/** Signs in: gives the browser a session in a cookie that no script can read. */
export const POST = route({ takes: enterBody, who: 'anyone', body: 2000 }, async ({ request, body, visit }) => {
  if (!isOpen()) throw new AppError(404, 'Maypole is not open to others here, so there is nothing to sign in to.');
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
    noteDeed(database(), {
      what: 'failed to sign in',
      on: account,
      person: { id: 'nobody', name: 'Nobody known', role: 'look' },
      client: visit.client,
    });
    // The same words whichever of both is wrong.
    throw new AppError(
      401,
      'This address and password do not belong together. Try again, or ask the owner for a new invitation.',
    );
  }
  attempts().succeeded(trying);
  const headers = new Headers({ 'Set-Cookie': knownBrowserCookie(cookie, account) });
  for (const cookie of answer.headers.getSetCookie()) headers.append('Set-Cookie', cookie);
  return Response.json({ ok: true }, { headers });
});

/** Signs out: the session is ended on the server, too. */
export const DELETE = route({ who: 'anyone' }, async ({ request }) => {
  if (!isOpen()) return new Response(null, { status: 204 });
  const answer = await auth().api.signOut({ headers: request.headers, asResponse: true });
  const headers = new Headers();
  for (const cookie of answer.headers.getSetCookie()) headers.append('Set-Cookie', cookie);
  return new Response(null, { status: 204, headers });
});
