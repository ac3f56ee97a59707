import { MAX_DOCUMENT, pieceId, saveBody } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';
import { loadPiece, setDeleted } from '@/server/pieces/pieces';

type Params = { id: string };

export const GET = route<Params>({ who: 'look' }, async ({ params }) =>
  Response.json(await loadPiece(database(), pieceId.parse(params.id))),
);

export const PUT = route<Params>(
  { takes: saveBody, who: 'edit', body: MAX_DOCUMENT * 2, deed: 'saved' },
  async ({ params, body, visit, person }) => {
    const result = await doJob(visit.who, 'savePiece', { id: pieceId.parse(params.id), body, by: person!.id });
    return Response.json(result, { status: 'error' in result ? 409 : 200 });
  },
);

export const DELETE = route<Params>({ who: 'edit', deed: 'put into the bin' }, async ({ params }) => {
  await setDeleted(database(), pieceId.parse(params.id), true);
  return new Response(null, { status: 204 });
});
