import { pieceId, seamBody } from '@/server/contract';
import { database } from '@/server/db';
import { handle, readJson } from '@/server/http/handle';
import { storeGaps } from '@/server/pieces';

type Context = { params: Promise<{ id: string }> };

/** Takes what the shapes themselves say of the seam of a revision, which its motions alone cannot tell. */
export const PUT = handle(async (request: Request, { params }: Context) => {
  const id = pieceId.parse((await params).id);
  const { revision, gaps } = await readJson(request, seamBody, 1000);
  await storeGaps(database(), id, revision, gaps);
  return new Response(null, { status: 204 });
});
