import { readBundle } from '@maypole/core/piece/bundle';
import { MAX_ASSET, MAX_DOCUMENT } from '@/contract/pieces';
import { createPiece } from '../api';

const MOST = MAX_DOCUMENT + 2 * MAX_ASSET;

/** The part of a File that is read here. */
export interface PieceFile {
  readonly name: string;
  readonly size: number;
  text(): Promise<string>;
}

/** Result of an import: how many are on the shelf, and a sentence for each that failed. */
interface TakenIn {
  readonly taken: number;
  readonly refused: readonly string[];
}

/** Imports piece files one after another; a broken one does not stop the others. */
export async function takeIn(
  files: readonly PieceFile[],
  onShare: (done: number) => void = () => {},
): Promise<TakenIn> {
  let taken = 0;
  const refused: string[] = [];
  for (const [i, file] of files.entries()) {
    onShare(i);
    try {
      if (file.size > MOST)
        throw new Error(`It is larger than ${Math.floor(MOST / 1024 ** 2)} MB; a piece file is far smaller.`);
      const { source, assets } = readBundle(await file.text());
      await createPiece(source, assets);
      taken++;
    } catch (error) {
      refused.push(`${file.name}: ${error instanceof Error ? error.message : 'It could not be read.'}`);
    }
  }
  return { taken, refused };
}
