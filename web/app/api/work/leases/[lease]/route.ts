import { database } from '@/server/data/db';
import { AppError } from '@/server/http/app-error';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { leaseId } from '@/contract/renders';
import { giveBackWork, renewWork } from '@/server/render/leases';

/** Renews a lease. */
export const PUT = route<{ lease: string }>({ who: 'edit' }, async ({ request, person, params }) => {
  admitWorker(request, person);
  if (!(await renewWork(database(), leaseId.parse(params.lease))))
    throw new AppError(409, 'This frame is no longer yours: it was cancelled, or given to another worker.');
  return new Response(null, { status: 204 });
});

/** Gives an unfinished frame back. */
export const DELETE = route<{ lease: string }>({ who: 'edit' }, async ({ request, person, params }) => {
  admitWorker(request, person);
  await giveBackWork(database(), leaseId.parse(params.lease));
  return new Response(null, { status: 204 });
});
