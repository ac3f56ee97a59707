import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { handle } from '@/server/http/handle';
import { duplicatePiece } from '@/server/pieces';

export const POST = handle(async (_request: Request, { params }: { params: Promise<{ id: string }> }) => {
  return Response.json(await duplicatePiece(database(), pieceId.parse((await params).id)), { status: 201 });
});
