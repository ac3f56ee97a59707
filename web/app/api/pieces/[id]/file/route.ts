import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { fileName } from '@/server/file-name';
import { handle } from '@/server/http/handle';
import { loadPiece } from '@/server/pieces';

/** The document as it is stored, character for character. */
export const GET = handle(async (_request: Request, { params }: { params: Promise<{ id: string }> }) => {
  const { source } = await loadPiece(database(), pieceId.parse((await params).id));
  return new Response(source, {
    headers: { 'Content-Type': 'application/json; charset=utf-8', 'Content-Disposition': `attachment; filename="${fileName(source)}"` },
  });
});
