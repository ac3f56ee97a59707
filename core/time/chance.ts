/**
 * A number 0 ≤ x < 1 for each whole number, the same on every machine and whatever else is asked for:
 * two rounds of the 32-bit finalizer “lowbias32” (C. Wellons, public domain, from memory) over number
 * and seed.
 */
export function chanceOf(seed: number): (i: number) => number {
  const s = mix(Math.imul((seed | 0) + 0x9e3779b9, 0x85ebca6b) >>> 0);
  return (i) => mix((mix(i >>> 0) ^ s) >>> 0) / 4294967296;
}

function mix(x: number): number {
  x ^= x >>> 16;
  x = Math.imul(x, 0x7feb352d);
  x ^= x >>> 15;
  x = Math.imul(x, 0x846ca68b);
  x ^= x >>> 16;
  return x >>> 0;
}
