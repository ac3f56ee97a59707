import { database } from '@/server/db';
import { AppError } from '@/server/http/app-error';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { doneBody, leaseId } from '@/server/render/contract';
import { wakeWorker } from '@/server/render/local-worker';
import { finishPart, leasedPart } from '@/server/render/queue';
import { sheetStore } from '@/server/render/room';

/** A frame is finished; its sheets have been brought before, and are looked at once more. */
export const POST = route<{ lease: string }>({ who: 'edit', body: 4000 }, async ({ request, person, params, body }) => {
  admitWorker(request, person);
  const lease = leaseId.parse(params.lease);
  const { sheets, ...figures } = parseJson(body, doneBody);
  const part = await leasedPart(database(), lease);
  const store = sheetStore();
  for (const name of part.sheets)
    if (!(await store.intact(part.fingerprint, name, sheets[name])))
      throw new AppError(422, `The sheet “${name}” did not come as it was sent; send it again.`);
  await finishPart(database(), lease, sheets, figures);
  wakeWorker();
  return new Response(null, { status: 204 });
});
