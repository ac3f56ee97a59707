/**
 * Seeded random numbers, the same on every machine: the mulberry32 generator (T. Ettinger, public
 * domain, from memory), which passes the usual statistical batteries for 32-bit states.
 */
export function randomSource(seed: number): () => number {
  let a = (Math.imul(seed | 0, 0x9e3779b1) ^ 0x85ebca6b) >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A point spread evenly over the unit sphere (Archimedes: z is uniform). */
export function randomUnitVector(random: () => number): [number, number, number] {
  const z = 2 * random() - 1;
  const angle = 2 * Math.PI * random();
  const r = Math.sqrt(Math.max(0, 1 - z * z));
  return [r * Math.cos(angle), r * Math.sin(angle), z];
}
