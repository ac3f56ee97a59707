import { database } from '@/server/data/db';
import { wholeText } from '@/contract/fields';
import { route } from '@/server/http/route';
import { rowId } from '@/contract/people';
import { framePicture } from '@/server/render/pictures';

const place = wholeText('The place of a frame', 0, 20_000);
const wide = wholeText('A width', 16, 1920).optional();

/** A finished frame: full size, or `?width=` pixels wide. */
export const GET = route<{ id: string; index: string }>({ who: 'look' }, async ({ params, query }) => {
  const { type, bytes, tag } = await framePicture(
    database(),
    rowId.parse(params.id),
    place.parse(params.index),
    wide.parse(query.get('width') ?? undefined),
  );
  return new Response(Buffer.from(bytes), {
    headers: { 'Content-Type': type, 'Cache-Control': 'private, max-age=60', ETag: `"${tag}"` },
  });
});
