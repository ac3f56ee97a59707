import { chanceOf, mix32 } from '../time/chance';

/** The first primes, bases of the Halton sequence. */
const BASES = [2, 3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37] as const;
/** Points per block of the Latin hypercube. */
const BLOCK = 64;

/**
 * Low-discrepancy points of a unit cube, so that few tries cover much: point `i`, value `j` of the Halton sequence (J.
 * H. Halton, 1960), each value shifted by a random number from the seed (R. Cranley, T. Patterson, 1976). Halton's
 * bases serve twelve values; further ones are a Latin hypercube in blocks (M. D. McKay, R. J. Beckman, W. J. Conover,
 * 1979).
 *
 * @example
 * const u = spread(7);
 * u(0, 0); // 0 ≤ u < 1, the same on every machine
 */
export function spread(seed: number): (i: number, j: number) => number {
  const shift = chanceOf(seed);
  return (i, j) => {
    const x = j < BASES.length ? radicalInverse(i + 1, BASES[j]) + shift(j) : latin(i, j, seed);
    return x - Math.floor(x);
  };
}

/** The radical inverse of an integer (van der Corput). */
export function radicalInverse(i: number, base: number): number {
  let [x, place] = [0, 1];
  for (let n = i; n > 0; n = Math.floor(n / base)) x += (n % base) * (place /= base);
  return x;
}

function latin(i: number, j: number, seed: number): number {
  const block = Math.floor(i / BLOCK);
  const own = mix32(Math.imul(seed + 1, 0x9e3779b1) ^ mix32(j + 1013 * block));
  // Exclusive or, then an odd factor: both permute the numbers of a block, whose size is a power of two.
  const stratum = (Math.imul((i % BLOCK) ^ (own & (BLOCK - 1)), (own >>> 6) | 1) + (own >>> 16)) & (BLOCK - 1);
  return (stratum + chanceOf(own)(i)) / BLOCK;
}
