import { createBody, MAX_DOCUMENT } from '@/server/contract';
import { database } from '@/server/db';
import { handle, readJson } from '@/server/http/handle';
import { createPiece, listPieces } from '@/server/pieces';

export const GET = handle(async (request: Request) => {
  const bin = new URL(request.url).searchParams.get('bin') === '1';
  return Response.json({ pieces: await listPieces(database(), bin) });
});

export const POST = handle(async (request: Request) => {
  const { source } = await readJson(request, createBody, MAX_DOCUMENT * 2);
  return Response.json(await createPiece(database(), source), { status: 201 });
});
