import { encode, makerOf } from './exporter';
import { pixels, TAGGED, type MovieValues } from './movie';

const CRF = { preview: 38, good: 22, lossless: 10 } as const;

/** VP9 (VP9 Bitstream Specification) by libvpx; with transparency, a second stream holds the alpha. */
export const vp9 = ({
  quality,
  whole,
  clear = false,
}: Pick<MovieValues, 'quality' | 'whole'> & { clear?: boolean }) => ({
  filter: pixels(clear ? 'yuva420p' : 'yuv420p'),
  args: [
    ...['-c:v', 'libvpx-vp9', '-crf', `${CRF[quality]}`, '-b:v', '0', '-row-mt', '1'],
    ...['-deadline', 'good', '-cpu-used', quality === 'preview' ? '5' : '3'],
    // Alternate reference frames cannot be combined with alpha.
    ...(clear ? ['-auto-alt-ref', '0', '-metadata:s:v:0', 'alpha_mode=1'] : []),
    ...(whole ? ['-g', '1'] : []),
    ...TAGGED,
  ],
});

export const webm = makerOf<MovieValues & { readonly clear: boolean }>(async (making) => {
  const values = making.values;
  return [await encode(making, { plays: values.plays, ...vp9(values) })];
});
