import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { failedBody, leaseId } from '@/contract/renders';
import { failWork } from '@/server/render/leases';

/** A frame failed. */
export const POST = route<{ lease: string }>(
  { takes: failedBody, who: 'edit', body: 9000 },
  async ({ request, person, params, body }) => {
    admitWorker(request, person);
    const { message, forGood } = parseJson(body, failedBody);
    await failWork(database(), leaseId.parse(params.lease), message, forGood);
    return new Response(null, { status: 204 });
  },
);
