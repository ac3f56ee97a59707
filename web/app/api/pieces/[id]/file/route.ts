import { assetsWith } from '@/server/assets';
import { pieceId } from '@/server/contract';
import { database } from '@/server/db';
import { fileName } from '@/server/file-name';
import { handle } from '@/server/http/handle';
import { loadPiece } from '@/server/pieces';

/** The document as it is stored, character for character. */
export const GET = handle(async (_request: Request, { params }: { params: Promise<{ id: string }> }) => {
  const { source } = await loadPiece(database(), pieceId.parse((await params).id));
  const carried = await assetsWith(database(), source);
  // Files it names go with it, beside the document; without any it is given back to the letter.
  const text =
    Object.keys(carried).length > 0 ? JSON.stringify({ maypole: 'parcel', piece: source, assets: carried }) : source;
  return new Response(text, {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${fileName(source)}"`,
    },
  });
});
