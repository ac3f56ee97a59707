import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pieceId } from '@/contract/pieces';
import { attachment } from '@/server/http/file-name';
import { withFolder } from '@/server/http/body';
import { route } from '@/server/http/route';
import { doJob } from '@/server/jobs/jobs';

/** The document exactly as stored, with the files it names. */
export const GET = route<{ id: string }>({ who: 'look' }, async ({ params, visit }) =>
  withFolder(async (folder) => {
    const { file, name } = await doJob(visit.who, 'exportPiece', { id: pieceId.parse(params.id), folder });
    // An open file can be read to its end even after its folder is removed.
    const handle = await open(file);
    const { size } = await handle.stat();
    return new Response(Readable.toWeb(handle.createReadStream()) as ReadableStream, {
      headers: {
        'Content-Type': 'application/json; charset=utf-8',
        'Content-Length': `${size}`,
        'Content-Disposition': attachment(name),
      },
    });
  }),
);
