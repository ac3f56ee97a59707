import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { rowId } from '@/contract/people';
import { withdrawKey } from '@/server/people/keys';

export const DELETE = route<{ id: string }>({ who: 'own', deed: 'withdrew a key' }, async ({ params }) => {
  await withdrawKey(database(), rowId.parse(params.id));
  return new Response(null, { status: 204 });
});
