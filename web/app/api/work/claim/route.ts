import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { claimBody } from '@/contract/renders';
import { claimWork, giveBackWork } from '@/server/render/leases';

/** Long poll: how long a worker without work waits, and the interval of checks, in milliseconds. */
const [WAIT, LOOK] = [8000, 1000];

/** Assigns a frame to a worker; waits a while if there is none. */
export const POST = route({ takes: claimBody, who: 'edit', body: 2000 }, async ({ request, body, person }) => {
  admitWorker(request, person);
  const worker = { ...parseJson(body, claimBody), by: person!.name };
  const until = Date.now() + WAIT;
  for (;;) {
    const part = await claimWork(database(), worker);
    if (part) {
      const { signal } = request;
      const giveBack = () => void giveBackWork(database(), part.lease).catch(() => undefined);
      // A worker that disconnected does not know of its frame: the next one gets it at once.
      if (signal.aborted) giveBack();
      else signal.addEventListener('abort', giveBack, { once: true });
      return Response.json(part);
    }
    if (Date.now() > until || request.signal.aborted) return new Response(null, { status: 204 });
    await new Promise((resolve) => setTimeout(resolve, LOOK));
  }
});
