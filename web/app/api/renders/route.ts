import { pieceId } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { parseJson } from '@/server/http/body';
import { doJob } from '@/server/jobs/jobs';
import { renderBody } from '@/contract/renders';
import { wakeWorker } from '@/server/render/local-worker';
import { queueNow } from '@/server/render/renders';

/** The queue: all renders, or those of a piece, and the workers. */
export const GET = route({ who: 'look' }, async ({ query }) => {
  const piece = query.get('piece');
  return Response.json(await queueNow(database(), piece === null ? undefined : pieceId.parse(piece)));
});

/** Queues a revision of a piece. */
export const POST = route(
  { takes: renderBody, who: 'edit', body: 2000, deed: 'rendered' },
  async ({ body, visit, person }) => {
    const asked = parseJson(body, renderBody);
    const id = await doJob(visit.who, 'createRender', { ...asked, by: person!.id });
    wakeWorker();
    return Response.json({ id }, { status: 201 });
  },
);
