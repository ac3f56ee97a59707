import { Readable } from 'node:stream';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { leaseId } from '@/contract/renders';
import { renderDocument } from '@/server/render/database-source';
import { renderOfLease } from '@/server/render/leases';

/** The document of a worker's frame, with the files it names. */
export const GET = route<{ lease: string }>({ who: 'edit' }, async ({ request, person, params }) => {
  admitWorker(request, person);
  const render = await renderOfLease(database(), leaseId.parse(params.lease));
  return new Response(Readable.toWeb(Readable.from(renderDocument(database(), render))) as ReadableStream, {
    headers: { 'Content-Type': 'application/json; charset=utf-8' },
  });
});
