/** What movies have in common: colours of ITU-R BT.709 in video range, and said so. */
export const TAGGED = [
  ...['-color_primaries', 'bt709', '-color_trc', 'bt709'],
  ...['-colorspace', 'bt709', '-color_range', 'tv'],
] as const;

/** Pictures in a form of pixels, their colours brought over exactly. */
export function pixels(form: string): string {
  const scaled =
    'scale=in_range=pc:out_range=tv:out_color_matrix=bt709:flags=accurate_rnd+full_chroma_int+full_chroma_inp';
  // Some encoders write what the pictures say of themselves, and not what they are told.
  return `${scaled},format=${form},setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709`;
}

export type Quality = 'preview' | 'good' | 'lossless';

export interface MovieValues {
  readonly quality: Quality;
  readonly plays: number;
  readonly whole: boolean;
}
