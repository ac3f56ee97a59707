import { pieceId, revisionNumber } from '@/server/contract';
import { database } from '@/server/db';
import { route } from '@/server/http/route';
import { loadRevision } from '@/server/pieces';

export const GET = route<{ id: string; number: string }>({ who: 'look' }, async ({ params: { id, number } }) =>
  Response.json(await loadRevision(database(), pieceId.parse(id), revisionNumber.parse(number))),
);
