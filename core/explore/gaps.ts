import type { Piece } from '../piece/piece';
import { proveSeam } from '../seam/proof';

const known = new WeakMap<Piece, ReadonlySet<string>>();

/** What is open at the seam of a piece as its motions say, by the keys of its findings; found once for each piece. */
export function gapsOf(piece: Piece): ReadonlySet<string> {
  let gaps = known.get(piece);
  if (!gaps) {
    const { findings } = proveSeam(piece);
    gaps = new Set(findings.filter((f) => f.kind === 'gap' || f.kind === 'lost').map((f) => f.key));
    known.set(piece, gaps);
  }
  return gaps;
}
