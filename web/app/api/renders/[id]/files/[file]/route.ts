import { database } from '@/server/data/db';
import { route } from '@/server/http/route';
import { rowId } from '@/contract/people';
import { sendFiles } from '@/server/render/send-files';

/** The finished output of a render: its file, or several as a zip. */
export const GET = route<{ id: string; file: string }>({ who: 'look' }, async ({ params }) =>
  sendFiles(database(), rowId.parse(params.id), rowId.parse(params.file)),
);
