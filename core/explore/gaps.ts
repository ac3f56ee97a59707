import type { Piece } from '../piece/piece';
import { proveSeam } from '../seam/proof';

const known = new WeakMap<Piece, ReadonlySet<string>>();

/** Gaps at the seam by motions alone, by the keys of their findings; cached per piece. */
export function gapsOf(piece: Piece): ReadonlySet<string> {
  let gaps = known.get(piece);
  if (!gaps) {
    const { findings } = proveSeam(piece);
    gaps = new Set(findings.filter((f) => f.kind === 'gap' || f.kind === 'lost').map((f) => f.key));
    known.set(piece, gaps);
  }
  return gaps;
}
