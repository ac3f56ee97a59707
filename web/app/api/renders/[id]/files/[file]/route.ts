import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { rowId } from '@/contract/people';
import { sendFiles } from '@/server/render/send-files';

/** What an output of a render has come to: its file, or several in a zip. */
export const GET = route<{ id: string; file: string }>({ who: 'look' }, async ({ params }) =>
  sendFiles(database(), rowId.parse(params.id), rowId.parse(params.file)),
);
