import { MAX_DOCUMENT, pieceId, saveBody } from '@/server/contract';
import { database } from '@/server/db';
import { handle, readJson } from '@/server/http/handle';
import { loadPiece, savePiece, setDeleted } from '@/server/pieces';

type Context = { params: Promise<{ id: string }> };

export const GET = handle(async (_request: Request, { params }: Context) => {
  return Response.json(await loadPiece(database(), pieceId.parse((await params).id)));
});

export const PUT = handle(async (request: Request, { params }: Context) => {
  const id = pieceId.parse((await params).id);
  const { source, basedOn } = await readJson(request, saveBody, MAX_DOCUMENT * 2);
  const result = await savePiece(database(), id, source, basedOn);
  return Response.json(result, { status: 'error' in result ? 409 : 200 });
});

export const DELETE = handle(async (_request: Request, { params }: Context) => {
  await setDeleted(database(), pieceId.parse((await params).id), true);
  return new Response(null, { status: 204 });
});
