import { MAX_ASSET } from '@/contract/pieces';
import { AppError } from '@/server/http/app-error';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';

/** Imports a shape or picture: the body is the file, `?name=` its name. */
export const POST = route({ who: 'edit', file: MAX_ASSET, deed: 'took a file in' }, async (call) => {
  const name = call.query.get('name');
  if (!name) throw new AppError(400, 'Say what the file is called, in “name”.');
  const given = { name, file: call.file, by: call.person!.id };
  return Response.json(await doJob(call.visit.who, 'keepAsset', given), { status: 201 });
});
