import { MAX_THUMBNAIL, pieceId, revisionNumber } from '@/server/contract';
import { database } from '@/server/db';
import { AppError } from '@/server/http/app-error';
import { handle, readBody } from '@/server/http/handle';
import { loadThumbnail, storeThumbnail } from '@/server/pieces';

type Context = { params: Promise<{ id: string }> };

export const GET = handle(async (_request: Request, { params }: Context) => {
  const picture = await loadThumbnail(database(), pieceId.parse((await params).id));
  return new Response(new Uint8Array(picture), {
    headers: { 'Content-Type': 'image/webp', 'Cache-Control': 'private, max-age=31536000, immutable' },
  });
});

export const PUT = handle(async (request: Request, { params }: Context) => {
  const id = pieceId.parse((await params).id);
  const revision = revisionNumber.parse(new URL(request.url).searchParams.get('revision'));
  const picture = await readBody(request, MAX_THUMBNAIL);
  if (picture.toString('latin1', 0, 4) !== 'RIFF' || picture.toString('latin1', 8, 12) !== 'WEBP')
    throw new AppError(415, 'A thumbnail must be a WebP picture.');
  await storeThumbnail(database(), id, revision, picture);
  return new Response(null, { status: 204 });
});
