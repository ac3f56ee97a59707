import { MAX_ASSET, MAX_DOCUMENT } from '@/server/contract';
import { database } from '@/server/db';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';
import { listPieces } from '@/server/pieces';

export const GET = route({ who: 'look' }, async ({ query }) =>
  Response.json({ pieces: await listPieces(database(), query.get('bin') === '1') }),
);

export const POST = route(
  { who: 'edit', file: MAX_DOCUMENT * 2 + MAX_ASSET * 2, deed: 'made a piece' },
  async ({ file, visit, person }) =>
    Response.json(await doJob(visit.client, 'createPiece', { file, by: person!.id }), { status: 201 }),
);
