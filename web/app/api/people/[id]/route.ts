import { database } from '@/server/data/db';
import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { personId, roleBody } from '@/contract/people';
import { endPerson, setRole } from '@/server/people/people';

type Params = { id: string };

export const PUT = route<Params>(
  { takes: roleBody, who: 'own', sure: true, body: 1000, deed: 'changed a role' },
  async ({ params, body }) => {
    await setRole(database(), personId.parse(params.id), parseJson(body, roleBody).role);
    return new Response(null, { status: 204 });
  },
);

export const DELETE = route<Params>(
  { who: 'own', sure: true, deed: 'removed somebody' },
  async ({ params, person }) => {
    const id = personId.parse(params.id);
    if (id === person!.id) throw new AppError(422, 'You cannot remove yourself; another owner can.');
    await endPerson(database(), id);
    return new Response(null, { status: 204 });
  },
);
