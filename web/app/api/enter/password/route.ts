import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { auth } from '@/server/people/auth';
import { attempts } from '@/server/people/attempts';
import { passwordBody } from '@/server/people/contract';
import { isOpen } from '@/server/people/open';

/** Gives oneself another password; sessions in other browsers are ended by it. */
export const PUT = route(
  { takes: passwordBody, who: 'look', body: 2000, deed: 'changed their password' },
  async ({ request, body, person, visit }) => {
    if (!isOpen()) throw new AppError(404, 'Maypole is not open to others here, so there are no passwords.');
    const { password, next } = parseJson(body, passwordBody);
    const trying = { client: visit.client, account: person!.id };
    attempts().begin(trying);
    const answer = await auth().api.changePassword({
      body: { currentPassword: password, newPassword: next, revokeOtherSessions: true },
      headers: request.headers,
      asResponse: true,
    });
    if (!answer.ok) {
      throw new AppError(422, 'This is not your present password. Nothing was changed.');
    }
    attempts().succeeded(trying);
    const headers = new Headers();
    for (const cookie of answer.headers.getSetCookie()) headers.append('Set-Cookie', cookie);
    return new Response(null, { status: 204, headers });
  },
);
