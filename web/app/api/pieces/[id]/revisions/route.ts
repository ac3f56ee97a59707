import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { route } from '@/server/http/route';
import { listRevisions } from '@/server/pieces';

export const GET = route<{ id: string }>({ who: 'look' }, async ({ params }) =>
  Response.json({ revisions: await listRevisions(database(), pieceId.parse(params.id)) }),
);
