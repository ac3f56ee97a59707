import { isShown } from '../declare/shown';
import { assetOf } from '../assets/store';
import { linkPiece } from '../piece/link';
import type { Piece } from '../piece/piece';
import { ownersOf } from '../piece/walk';
import { assetsIn } from './assets';

/** A file that a piece needs and that is missing. */
export interface MissingFile {
  readonly fingerprint: string;
  /** Where it is named: "Ring, Imported form file". */
  readonly place: string;
}

/** Missing files of whatever is switched on. */
export function missingFiles(piece: Piece): MissingFile[] {
  const shapes = new Set(linkPiece(piece).ribbons.flatMap((r) => (r.on ? assetsIn(r) : [])));
  return ownersOf(piece).flatMap(({ owner, item, params, place, title, ribbon }) =>
    Object.entries(params).flatMap(([name, p]): MissingFile[] => {
      const fingerprint = item.values[name];
      if (p.type !== 'asset' || typeof fingerprint !== 'string' || fingerprint === '' || assetOf(fingerprint))
        return [];
      if (!item.on || !isShown(params, item.values, name)) return [];
      // A hidden ribbon may serve another as a path or a cutter; its finish does not.
      if (owner.type === 'step' ? !shapes.has(fingerprint) : ribbon?.on === false) return [];
      return [{ fingerprint, place: `${place}, ${title} ${p.title.toLowerCase()}` }];
    }),
  );
}
