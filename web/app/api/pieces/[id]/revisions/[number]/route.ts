import { pieceId, revisionNumber } from '@/server/contract';
import { database } from '@/server/db';
import { handle } from '@/server/http/handle';
import { loadRevision } from '@/server/pieces';

export const GET = handle(
  async (_request: Request, { params }: { params: Promise<{ id: string; number: string }> }) => {
    const { id, number } = await params;
    return Response.json(await loadRevision(database(), pieceId.parse(id), revisionNumber.parse(number)));
  },
);
