import { lookBody, lookKind, MAX_DOCUMENT } from '@/server/contract';
import { database } from '@/server/db';
import { handle, readJson } from '@/server/http/handle';
import { keepLook, listLooks } from '@/server/looks';

export const GET = handle(async (request: Request) => {
  const kind = lookKind.parse(new URL(request.url).searchParams.get('kind'));
  return Response.json({ looks: await listLooks(database(), kind) });
});

export const POST = handle(async (request: Request) => {
  const { kind, source } = await readJson(request, lookBody, MAX_DOCUMENT * 2);
  return Response.json(await keepLook(database(), kind, source), { status: 201 });
});
