import { z } from 'zod';
import { database } from '@/server/db';
import { route } from '@/server/http/route';
import { rowId } from '@/server/people/contract';
import { framePicture } from '@/server/render/pictures';

const place = z.coerce.number('This is no frame.').int().min(0).max(20_000);
const wide = z.coerce.number('This is no width.').int().min(16).max(1920).optional();

/** A finished frame: whole, or `?width=` pixels wide. */
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
