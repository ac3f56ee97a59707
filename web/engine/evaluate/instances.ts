import { CHANNEL_WIDTH, channelBuffers, copyChannels, mapChannels } from '@maypole/core/shape/copy-channels';
import type { Copies } from '@maypole/core/shape/mesh';
import type { Instances } from './protocol';

/** Groups copies by source and material, in fresh buffers; unused sources are left out. */
export function instancesOf(copies: Copies): { source: number; instances: Instances }[] {
  const { source, matrices, channels, sources, materialIndices, materialRibbons, order, places, ids } = copies;
  const finishes = 1 + (materialIndices ? materialRibbons!.length : 0);
  const boxOf = materialIndices ? (i: number) => source[i] * finishes + materialIndices[i] : (i: number) => source[i];
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
      ...(box % finishes > 0 ? { materialRibbon: materialRibbons![(box % finishes) - 1] } : {}),
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

/** Every buffer of a list of copies, for counting and transfer. */
export function instanceBuffers({
  matrices,
  numbers,
  order,
  ids,
  channels,
}: Instances): (Float32Array | Uint32Array)[] {
  return [matrices, numbers, order, ids, ...channelBuffers(channels)];
}
