/**
 * A random number 0 ≤ x < 1 for each integer, the same on every machine and independent of other queries: the 32-bit
 * finalizer of MurmurHash3 (A. Appleby, public domain) over number and seed.
 */
export function chanceOf(seed: number): (i: number) => number {
  const s = mix32(Math.imul((seed | 0) + 0x9e3779b9, 0x85ebca6b));
  return (i) => mix32(mix32(i) ^ s) / 4294967296;
}

/** MurmurHash3's fmix32: every bit of the input affects every bit of the result. */
export function mix32(x: number): number {
  let h = x >>> 0;
  h ^= h >>> 16;
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  h ^= h >>> 16;
  return h >>> 0;
}
