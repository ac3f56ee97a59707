import { keepAssets } from '@/server/assets';
import { createBody, MAX_ASSET, MAX_DOCUMENT } from '@/server/contract';
import { database } from '@/server/db';
import { handle, readJson } from '@/server/http/handle';
import { createPiece, listPieces } from '@/server/pieces';

export const GET = handle(async (request: Request) => {
  const bin = new URL(request.url).searchParams.get('bin') === '1';
  return Response.json({ pieces: await listPieces(database(), bin) });
});

export const POST = handle(async (request: Request) => {
  const { source, assets } = await readJson(request, createBody, MAX_DOCUMENT * 2 + MAX_ASSET * 2);
  if (assets) await keepAssets(database(), assets);
  return Response.json(await createPiece(database(), source), { status: 201 });
});
