import { makeReady, MissingAsset, provideAsset } from '@maypole/core/evaluate/assets';
import { missingFiles } from '@maypole/core/evaluate/missing-files';
import { readAsset } from '@maypole/core/files/kept';
import { FileTrouble } from '@maypole/core/assets/trouble';
import { linkPiece } from '@maypole/core/piece/link';
import { readBundle } from '@maypole/core/piece/bundle';
import type { Piece } from '@maypole/core/piece/piece';
import { readPiece, type PieceFault } from '@maypole/core/piece/read';

/** A document cannot be used; the message is a sentence. */
export class PieceTrouble extends Error {
  override readonly name = 'PieceTrouble';
  constructor(
    message: string,
    readonly faults: readonly PieceFault[] = [],
    /** Whether it is a valid document that names files which did not come with it. */
    readonly missing = false,
  ) {
    super(message);
  }
}

/** The piece of a document, with every file that it needs. Throws PieceTrouble. */
export async function pieceFrom(text: string): Promise<Piece> {
  const parcel = readBundle(text);
  for (const [fingerprint, file] of Object.entries(parcel.assets ?? {})) provide(fingerprint, file);
  const read = readPiece(parcel.source);
  if (!read.ok) throw new PieceTrouble(read.message, read.faults);
  for (const ribbon of linkPiece(read.piece).ribbons)
    await makeReady(ribbon, () => Promise.reject(new MissingAsset('not in this file')));
  const missing = missingFiles(read.piece);
  if (missing.length > 0) {
    const more = missing.length > 1 ? ` (and ${missing.length - 1} more)` : '';
    throw new PieceTrouble(
      `The file ${missing[0].fingerprint.slice(0, 8)}… that it is made with at ${missing[0].place}${more} is not here. Export the piece as a parcel, with its files, and use that.`,
      [],
      true,
    );
  }
  return read.piece;
}

/** Registers a file of a bundle. */
function provide(fingerprint: string, file: { readonly name?: unknown; readonly data?: unknown } | null): void {
  try {
    if (typeof file?.data !== 'string') throw new FileTrouble('It has no data.');
    provideAsset(fingerprint, readAsset(Buffer.from(file.data, 'base64')));
  } catch (error) {
    if (!(error instanceof FileTrouble || error instanceof RangeError)) throw error;
    const name = typeof file?.name === 'string' ? `“${file.name.slice(0, 80)}”` : `${fingerprint.slice(0, 8)}…`;
    throw new PieceTrouble(`Its file ${name} is damaged: ${error.message} Export the piece again.`);
  }
}
