/** Common to movies: ITU-R BT.709 in video range, and tagged as such. */
export const TAGGED = [
  ...['-color_primaries', 'bt709', '-color_trc', 'bt709'],
  ...['-colorspace', 'bt709', '-color_range', 'tv'],
] as const;

/**
 * Converts pictures to a pixel format with colours within half a step (Rec. ITU-R BT.709-6, 3.3 and 4.6): by zimg,
 * because ffmpeg's default conversion makes 16-bit pixels too bright by up to four steps of 10-bit.
 */
export function pixels(form: string): string {
  const scaled =
    'zscale=matrixin=gbr:rangein=full:primariesin=709:transferin=709:' +
    'matrix=709:range=limited:primaries=709:transfer=709:dither=none';
  // Some encoders write the tags of the pictures and ignore the command line.
  return `${scaled},format=${form},setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709`;
}

export type Quality = 'preview' | 'good' | 'lossless';

export interface MovieValues {
  readonly quality: Quality;
  readonly plays: number;
  readonly whole: boolean;
}
