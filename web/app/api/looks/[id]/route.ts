import { lookId } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { removeLook } from '@/server/pieces/looks';

export const DELETE = route<{ id: string }>({ who: 'edit', deed: 'took a look away' }, async ({ params }) => {
  await removeLook(database(), lookId.parse(params.id));
  return new Response(null, { status: 204 });
});
