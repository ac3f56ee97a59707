/**
 * What copies have of their own in place of their finish: values of channels of the surface, and
 * whose finish it is.
 */

/** Numbers per copy of each channel that may differ. Colours are sRGB 0…1, everything else as in a Surface. */
export const CHANNEL_WIDTH = { baseColor: 3, roughness: 1, metalness: 1 } as const;

export type CopyChannel = keyof typeof CHANNEL_WIDTH;

export const copyChannels = Object.keys(CHANNEL_WIDTH) as CopyChannel[];

/** By channel, the numbers of all copies; NaN where a copy keeps the material's. */
export type CopyChannels = Readonly<Partial<Record<CopyChannel, Float32Array>>>;

/** New channels from existing ones, each with its width; undefined if there are none. */
export function mapChannels(
  channels: CopyChannels | undefined,
  make: (values: Float32Array, width: number, channel: CopyChannel) => Float32Array,
): CopyChannels | undefined {
  if (!channels) return undefined;
  const out: Partial<Record<CopyChannel, Float32Array>> = {};
  for (const c of copyChannels) if (channels[c]) out[c] = make(channels[c], CHANNEL_WIDTH[c], c);
  return out;
}

/** A writable channel for so many copies: a copy of the existing one, or all NaN. */
export function channelToWrite(channels: CopyChannels | undefined, channel: CopyChannel, count: number): Float32Array {
  return channels?.[channel]?.slice() ?? new Float32Array(CHANNEL_WIDTH[channel] * count).fill(NaN);
}

/** Every buffer of channels, for counting and transferring. */
export function channelBuffers(channels: CopyChannels | undefined): Float32Array[] {
  return channels ? copyChannels.flatMap((c) => (channels[c] ? [channels[c]] : [])) : [];
}
