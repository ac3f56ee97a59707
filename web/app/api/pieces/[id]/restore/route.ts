import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { handle } from '@/server/http/handle';
import { setDeleted } from '@/server/pieces';

export const POST = handle(async (_request: Request, { params }: { params: Promise<{ id: string }> }) => {
  await setDeleted(database(), pieceId.parse((await params).id), false);
  return new Response(null, { status: 204 });
});
