import { lookId } from '@/server/contract';
import { database } from '@/server/db';
import { handle } from '@/server/http/handle';
import { removeLook } from '@/server/looks';

type Context = { params: Promise<{ id: string }> };

export const DELETE = handle(async (_request: Request, { params }: Context) => {
  await removeLook(database(), lookId.parse((await params).id));
  return new Response(null, { status: 204 });
});
