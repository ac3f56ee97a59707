import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { keyBody } from '@/contract/people';
import { makeKey } from '@/server/people/keys';

/** Makes a worker key; it is shown once. */
export const POST = route(
  { takes: keyBody, who: 'own', sure: true, body: 2000, deed: 'made a key' },
  async ({ body }) => {
    const { name, role, days } = parseJson(body, keyBody);
    return Response.json(await makeKey(database(), name, role, days), { status: 201 });
  },
);
