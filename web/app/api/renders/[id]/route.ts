import { database } from '@/server/data/db';
import { parseJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { rowId } from '@/contract/people';
import { renderChange } from '@/contract/renders';
import { wakeWorker } from '@/server/render/local-worker';
import { changeRender, clearRender, renderNow } from '@/server/render/renders';

/** A render and each of its frames. */
export const GET = route<{ id: string }>({ who: 'look' }, async ({ params }) =>
  Response.json(await renderNow(database(), rowId.parse(params.id))),
);

/** Pauses, resumes, cancels or retries a render, moves it in the queue, or asks for one of its frames first. */
export const PUT = route<{ id: string }>({ takes: renderChange, who: 'edit', body: 2000 }, async ({ params, body }) => {
  const id = rowId.parse(params.id);
  await changeRender(database(), id, parseJson(body, renderChange));
  wakeWorker();
  return Response.json(await renderNow(database(), id));
});

/** Deletes a render and its files. */
export const DELETE = route<{ id: string }>({ who: 'edit', deed: 'cleared a render' }, async ({ params }) => {
  await clearRender(database(), rowId.parse(params.id));
  return new Response(null, { status: 204 });
});
