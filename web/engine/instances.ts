import { CHANNEL_WIDTH, channelBuffers, copyChannels, mapChannels } from '@maypole/core/copies/channels';
import type { Copies } from '@maypole/core/shape/mesh';
import type { Instances } from './protocol';

/** Copies sorted by what is copied and by whose finish it wears, in fresh buffers; what no copy is of is left out. */
export function instancesOf(copies: Copies): { source: number; instances: Instances }[] {
  const { source, matrices, channels, sources, wears, wardrobe, order, places, ids } = copies;
  const finishes = 1 + (wears ? wardrobe!.length : 0);
  const boxOf = wears ? (i: number) => source[i] * finishes + wears[i] : (i: number) => source[i];
  const counts = new Uint32Array(sources.length * finishes);
  for (let i = 0; i < source.length; i++) counts[boxOf(i)]++;
  const made = Array.from(counts, (n, box) => ({
    source: Math.floor(box / finishes),
    instances: {
      matrices: new Float32Array(16 * n),
      numbers: new Uint32Array(n),
      order: new Float32Array(n),
      ids: new Uint32Array(n),
      ...(channels ? { channels: mapChannels(channels, (_, width) => new Float32Array(width * n)) } : {}),
      ...(box % finishes > 0 ? { wears: wardrobe![(box % finishes) - 1] } : {}),
    } satisfies Instances as Instances,
  }));
  const at = new Uint32Array(counts.length);
  for (let i = 0; i < source.length; i++) {
    const box = boxOf(i);
    const to = made[box].instances;
    const o = at[box]++;
    for (let k = 0; k < 16; k++) to.matrices[16 * o + k] = matrices[16 * i + k];
    to.numbers[o] = i;
    to.order[o] = order[i] / places;
    to.ids[o] = ids ? ids[i] : i;
    if (channels)
      for (const c of copyChannels) {
        const [from, width] = [channels[c], CHANNEL_WIDTH[c]];
        if (from) for (let k = 0; k < width; k++) to.channels![c]![width * o + k] = from[width * i + k];
      }
  }
  return made.filter((_, box) => counts[box] > 0);
}

/** Every buffer of a list of copies, for counting and handing over. */
export function instanceBuffers({
  matrices,
  numbers,
  order,
  ids,
  channels,
}: Instances): (Float32Array | Uint32Array)[] {
  return [matrices, numbers, order, ids, ...channelBuffers(channels)];
}
