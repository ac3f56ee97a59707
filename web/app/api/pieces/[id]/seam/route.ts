import { pieceId, seamBody } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { storeGaps } from '@/server/pieces/pieces';

/** Stores what the shapes of a revision show about its seam, which motions alone cannot tell. */
export const PUT = route<{ id: string }>({ takes: seamBody, who: 'edit', body: 1000 }, async ({ params, body }) => {
  const id = pieceId.parse(params.id);
  const { revision, gaps } = parseJson(body, seamBody);
  await storeGaps(database(), id, revision, gaps);
  return new Response(null, { status: 204 });
});
