/** What movies have in common: colours of ITU-R BT.709 in video range, and said so. */
export const TAGGED = [
  ...['-color_primaries', 'bt709', '-color_trc', 'bt709'],
  ...['-colorspace', 'bt709', '-color_range', 'tv'],
] as const;

/**
 * Pictures in a form of pixels, their colours brought over to half a step (Rec. ITU-R BT.709-6, 3.3 and 4.6): by zimg,
 * since the usual conversion makes 16 bits a pixel too bright by up to four steps of 10.
 */
export function pixels(form: string): string {
  const scaled =
    'zscale=matrixin=gbr:rangein=full:primariesin=709:transferin=709:' +
    'matrix=709:range=limited:primaries=709:transfer=709:dither=none';
  // Some encoders write what the pictures say of themselves, and not what they are told.
  return `${scaled},format=${form},setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709`;
}

export type Quality = 'preview' | 'good' | 'lossless';

export interface MovieValues {
  readonly quality: Quality;
  readonly plays: number;
  readonly whole: boolean;
}
