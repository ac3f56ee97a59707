import { keepAsset } from '@/server/assets';
import { MAX_ASSET } from '@/server/contract';
import { database } from '@/server/db';
import { AppError } from '@/server/http/app-error';
import { handle, readBody } from '@/server/http/handle';

/** Takes in a shape or a picture: the bytes of the file, its name in `?name=`. */
export const POST = handle(async (request: Request) => {
  const name = new URL(request.url).searchParams.get('name');
  if (!name) throw new AppError(400, 'Say what the file is called, in “name”.');
  return Response.json(await keepAsset(database(), name, await readBody(request, MAX_ASSET)), { status: 201 });
});
