import { lookKind, MAX_DOCUMENT, lookBody } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';
import { listLooks } from '@/server/pieces/looks';

export const GET = route({ who: 'look' }, async ({ query }) =>
  Response.json({ looks: await listLooks(database(), lookKind.parse(query.get('kind'))) }),
);

export const POST = route(
  { takes: lookBody, who: 'edit', body: MAX_DOCUMENT * 2, deed: 'kept a look' },
  async ({ body, visit }) => Response.json(await doJob(visit.who, 'keepLook', { body }), { status: 201 }),
);
