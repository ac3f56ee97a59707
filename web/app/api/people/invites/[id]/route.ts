import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { rowId } from '@/contract/people';
import { withdrawInvite } from '@/server/people/invites';

export const DELETE = route<{ id: string }>({ who: 'own', deed: 'withdrew an invitation' }, async ({ params }) => {
  await withdrawInvite(database(), rowId.parse(params.id));
  return new Response(null, { status: 204 });
});
