import { MAX_ASSET, MAX_DOCUMENT, severalBody, createBody } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';
import { parseJson } from '@/server/http/body';
import { listPieces } from '@/server/pieces/pieces';
import { editSeveral } from '@/server/pieces/several';

export const GET = route({ who: 'look' }, async ({ query }) =>
  Response.json({ pieces: await listPieces(database(), query.get('bin') === '1') }),
);

export const POST = route(
  { takes: createBody, who: 'edit', file: MAX_DOCUMENT * 2 + MAX_ASSET * 2, deed: 'made a piece' },
  async ({ file, visit, person }) =>
    Response.json(await doJob(visit.who, 'createPiece', { file, by: person!.id }), { status: 201 }),
);

/** Labels pieces, bins or restores them: all of them, or none. */
export const PUT = route(
  { takes: severalBody, who: 'edit', body: 60_000, deed: 'changed several pieces' },
  async ({ body }) => {
    await editSeveral(database(), parseJson(body, severalBody));
    return new Response(null, { status: 204 });
  },
);
