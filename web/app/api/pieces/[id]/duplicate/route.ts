import { pieceId } from '@/contract/pieces';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';

export const POST = route<{ id: string }>({ who: 'edit', deed: 'made a copy' }, async ({ params, visit, person }) =>
  Response.json(await doJob(visit.who, 'duplicatePiece', { id: pieceId.parse(params.id), by: person!.id }), {
    status: 201,
  }),
);
