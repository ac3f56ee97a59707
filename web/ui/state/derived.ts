import { addressKey, numbersOf, type NumberPlace } from '@maypole/core/piece/addresses';
import type { Piece } from '@maypole/core/piece/piece';
import { proveSeam, type Proof } from '@maypole/core/seam/proof';
import { isMoving } from '@maypole/core/time/value';

/** What follows from a piece, worked out once for each and shared by all who show it. */
function perPiece<T>(make: (piece: Piece) => T): (piece: Piece) => T {
  const known = new WeakMap<Piece, T>();
  return (piece) => {
    let value = known.get(piece);
    if (value === undefined) known.set(piece, (value = make(piece)));
    return value;
  };
}

export const proofOf: (piece: Piece) => Proof = perPiece(proveSeam);

let last: readonly NumberPlace[] = [];

/** Every moving value. The same list as before while none of them has changed, so that an edit elsewhere draws no lane anew. */
export const movingOf: (piece: Piece) => readonly NumberPlace[] = perPiece((piece) => {
  const now = numbersOf(piece).filter((n) => isMoving(n.value));
  const before = new Map(last.map((n) => [addressKey(n.address), n]));
  const kept = now.map((n) => {
    const old = before.get(addressKey(n.address));
    return old && old.value === n.value && old.title === n.title && old.place === n.place && old.colour === n.colour && old.param === n.param ? old : n;
  });
  if (kept.length === last.length && kept.every((n, i) => n === last[i])) return last;
  last = kept;
  return kept;
});
