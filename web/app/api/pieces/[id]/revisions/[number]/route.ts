import { markBody, pieceId, revisionNumber } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { parseJson } from '@/server/http/body';
import { setMark } from '@/server/past/revisions';
import { loadRevision } from '@/server/pieces/pieces';

export const GET = route<{ id: string; number: string }>({ who: 'look' }, async ({ params: { id, number } }) =>
  Response.json(await loadRevision(database(), pieceId.parse(id), revisionNumber.parse(number))),
);

/** Names a save, or removes its name. */
export const PUT = route<{ id: string; number: string }>(
  { takes: markBody, who: 'edit', body: 2000, deed: 'named a save' },
  async ({ params: { id, number }, body }) => {
    const { mark } = parseJson(body, markBody);
    await setMark(database(), pieceId.parse(id), revisionNumber.parse(number), mark);
    return new Response(null, { status: 204 });
  },
);
