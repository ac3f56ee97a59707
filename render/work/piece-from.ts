import { makeReady, MissingAsset, provideAsset } from '@maypole/core/evaluate/assets';
import { readAsset } from '@maypole/core/files/kept';
import { linkPiece } from '@maypole/core/piece/link';
import { openParcel } from '@maypole/core/piece/parcel';
import type { Piece } from '@maypole/core/piece/piece';
import { readPiece } from '@maypole/core/piece/read';

/** A document cannot be used, in a sentence. */
export class PieceTrouble extends Error {
  override readonly name = 'PieceTrouble';
}

/** The piece in a text, with everything there that it is evaluated with. Throws PieceTrouble. */
export async function pieceFrom(text: string): Promise<Piece> {
  const parcel = openParcel(text);
  for (const [name, { data }] of Object.entries(parcel.assets ?? {}))
    provideAsset(name, readAsset(Buffer.from(data, 'base64')));
  const read = readPiece(parcel.source);
  if (!read.ok) throw new PieceTrouble(read.message);
  for (const ribbon of linkPiece(read.piece).ribbons)
    await makeReady(ribbon, () => Promise.reject(new MissingAsset('not in this file')));
  return read.piece;
}
