import { MAX_DOCUMENT, pieceId, takeBody } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';
import { listRevisions } from '@/server/past/revisions';

/** All saves and takes of a piece, newest first. */
export const GET = route<{ id: string }>({ who: 'look' }, async ({ params }) =>
  Response.json(await listRevisions(database(), pieceId.parse(params.id))),
);

/** Stores a named version beside the piece: a take. */
export const POST = route<{ id: string }>(
  { takes: takeBody, who: 'edit', body: MAX_DOCUMENT * 2, deed: 'kept a take' },
  async ({ params, body, visit, person }) => {
    const kept = await doJob(visit.who, 'keepTake', { id: pieceId.parse(params.id), body, by: person!.id });
    return Response.json(kept, { status: 201 });
  },
);
