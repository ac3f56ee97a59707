import { database } from '@/server/data/db';
import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { doneBody, leaseId } from '@/contract/renders';
import { finishWork } from '@/server/render/leases';
import { wakeWorker } from '@/server/render/local-worker';
import { frameImageStore } from '@/server/render/room';

/** A frame is finished; its frame images were uploaded before and are checked again. */
export const POST = route<{ lease: string }>(
  { takes: doneBody, who: 'edit', body: 4000 },
  async ({ request, person, params, body }) => {
    admitWorker(request, person);
    const lease = leaseId.parse(params.lease);
    const { sheets, ...figures } = parseJson(body, doneBody);
    const store = frameImageStore();
    await finishWork(database(), lease, sheets, figures, async (fingerprint, wanted) => {
      for (const name of wanted)
        if (!(await store.intact(fingerprint, name, sheets[name])))
          throw new AppError(422, `The sheet “${name}” did not come as it was sent; send it again.`);
    });
    wakeWorker();
    return new Response(null, { status: 204 });
  },
);
