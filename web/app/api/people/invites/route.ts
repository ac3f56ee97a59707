import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { inviteBody } from '@/contract/people';
import { invite } from '@/server/people/invites';

/** Invites somebody; the link is shown once. */
export const POST = route(
  { takes: inviteBody, who: 'own', sure: true, body: 2000, deed: 'invited somebody' },
  async ({ body }) => {
    const { role, note } = parseJson(body, inviteBody);
    return Response.json(await invite(database(), role, note), { status: 201 });
  },
);
