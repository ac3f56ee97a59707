import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { handle } from '@/server/http/handle';
import { listRevisions } from '@/server/pieces';

export const GET = handle(async (_request: Request, { params }: { params: Promise<{ id: string }> }) => {
  return Response.json({ revisions: await listRevisions(database(), pieceId.parse((await params).id)) });
});
