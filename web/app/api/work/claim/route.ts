import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { claimBody } from '@/contract/renders';
import { claimWork, giveBackWork } from '@/server/render/leases';

/** Milliseconds that a worker without work is kept waiting, and between looks. */
const [WAIT, LOOK] = [8000, 1000];

/** Gives a worker a frame to make; waits a while where there is none. */
export const POST = route({ takes: claimBody, who: 'edit', body: 2000 }, async ({ request, body, person }) => {
  admitWorker(request, person);
  const worker = { ...parseJson(body, claimBody), by: person!.name };
  const until = Date.now() + WAIT;
  for (;;) {
    const part = await claimWork(database(), worker);
    if (part) {
      const { signal } = request;
      const giveBack = () => void giveBackWork(database(), part.lease).catch(() => undefined);
      // Whoever has gone without the answer does not know of the frame: the next one gets it at once.
      if (signal.aborted) giveBack();
      else signal.addEventListener('abort', giveBack, { once: true });
      return Response.json(part);
    }
    if (Date.now() > until || request.signal.aborted) return new Response(null, { status: 204 });
    await new Promise((resolve) => setTimeout(resolve, LOOK));
  }
});
