import { MAX_THUMBNAIL, pieceId, revisionNumber } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { AppError } from '@/server/http/app-error';
import { route } from '@/server/http/route';
import { loadThumbnail, storeThumbnail } from '@/server/pieces/pieces';

type Params = { id: string };

export const GET = route<Params>({ who: 'look' }, async ({ params }) => {
  const picture = await loadThumbnail(database(), pieceId.parse(params.id));
  return new Response(new Uint8Array(picture), {
    headers: { 'Content-Type': 'image/webp', 'Cache-Control': 'private, max-age=31536000, immutable' },
  });
});

export const PUT = route<Params>({ who: 'edit', body: MAX_THUMBNAIL }, async ({ params, query, body }) => {
  const id = pieceId.parse(params.id);
  const revision = revisionNumber.parse(query.get('revision'));
  if (body.toString('latin1', 0, 4) !== 'RIFF' || body.toString('latin1', 8, 12) !== 'WEBP')
    throw new AppError(415, 'A thumbnail must be a WebP picture.');
  await storeThumbnail(database(), id, revision, body);
  return new Response(null, { status: 204 });
});
