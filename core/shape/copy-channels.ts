/**
 * What copies have of their own in place of their finish: values of channels of the surface, and
 * whose finish it is.
 */

/** How many numbers a copy has of each channel that may differ from copy to copy. Colours are sRGB 0…1, everything else as in a Surface. */
export const CHANNEL_WIDTH = { baseColor: 3, roughness: 1, metalness: 1 } as const;

export type CopyChannel = keyof typeof CHANNEL_WIDTH;

export const copyChannels = Object.keys(CHANNEL_WIDTH) as CopyChannel[];

/** By channel, its numbers for every copy one after the other; NaN where the copy has none of its own and the finish holds. */
export type CopyChannels = Readonly<Partial<Record<CopyChannel, Float32Array>>>;

/** Channels made anew from those that are there, each by its width; undefined where there are none. */
export function mapChannels(
  channels: CopyChannels | undefined,
  make: (values: Float32Array, width: number, channel: CopyChannel) => Float32Array,
): CopyChannels | undefined {
  if (!channels) return undefined;
  const out: Partial<Record<CopyChannel, Float32Array>> = {};
  for (const c of copyChannels) if (channels[c]) out[c] = make(channels[c], CHANNEL_WIDTH[c], c);
  return out;
}

/** The numbers of a channel to be written to, for so many copies: a copy of those there are, else all NaN. */
export function channelToWrite(channels: CopyChannels | undefined, channel: CopyChannel, count: number): Float32Array {
  return channels?.[channel]?.slice() ?? new Float32Array(CHANNEL_WIDTH[channel] * count).fill(NaN);
}

/** Every buffer of channels, for counting and handing over. */
export function channelBuffers(channels: CopyChannels | undefined): Float32Array[] {
  return channels ? copyChannels.flatMap((c) => (channels[c] ? [channels[c]] : [])) : [];
}
