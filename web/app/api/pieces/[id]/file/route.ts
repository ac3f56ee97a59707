import { carried } from '@/server/carried';
import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { fileName } from '@/server/file-name';
import { handle } from '@/server/http/handle';
import { loadPiece } from '@/server/pieces';

/** The document as it is stored, character for character, with the files it names. */
export const GET = handle(async (_request: Request, { params }: { params: Promise<{ id: string }> }) => {
  const { source } = await loadPiece(database(), pieceId.parse((await params).id));
  return new Response(await carried(database(), source), {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${fileName(source)}"`,
    },
  });
});
