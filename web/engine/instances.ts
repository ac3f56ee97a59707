import type { Copies } from '@maypole/core/shape/mesh';
import type { Instances } from './protocol';

/** Copies sorted by what is copied, in fresh buffers; sources of which there is no copy are left out. */
export function instancesOf(copies: Copies): { source: number; instances: Instances }[] {
  const { source, matrices, colours, looks, sources } = copies;
  const counts = new Uint32Array(sources.length);
  for (const s of source) counts[s]++;
  const made = sources.map((_, s) => ({
    matrices: new Float32Array(16 * counts[s]),
    numbers: new Uint32Array(counts[s]),
    ...(colours ? { colours: new Float32Array(3 * counts[s]) } : {}),
    ...(looks ? { looks: new Float32Array(2 * counts[s]) } : {}),
  }));
  const at = new Uint32Array(sources.length);
  for (let i = 0; i < source.length; i++) {
    const to = made[source[i]];
    const o = at[source[i]]++;
    for (let k = 0; k < 16; k++) to.matrices[16 * o + k] = matrices[16 * i + k];
    to.numbers[o] = i;
    if (colours) for (let k = 0; k < 3; k++) to.colours![3 * o + k] = colours[3 * i + k];
    if (looks) for (let k = 0; k < 2; k++) to.looks![2 * o + k] = looks[2 * i + k];
  }
  return made.flatMap((instances, s) => (counts[s] > 0 ? [{ source: s, instances }] : []));
}
