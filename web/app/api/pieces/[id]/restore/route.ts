import { pieceId } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { setDeleted } from '@/server/pieces/pieces';

export const POST = route<{ id: string }>({ who: 'edit', deed: 'took out of the bin' }, async ({ params }) => {
  await setDeleted(database(), pieceId.parse(params.id), false);
  return new Response(null, { status: 204 });
});
