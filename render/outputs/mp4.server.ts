import { encode, makerOf } from './exporter';
import { pixels, TAGGED, type MovieValues } from './movie';

const CRF = { preview: 28, good: 17, lossless: 10 } as const;

/** H.264 (ITU-T H.264) by x264. */
export const h264 = ({ quality, whole }: Pick<MovieValues, 'quality' | 'whole'>) => ({
  filter: pixels('yuv420p'),
  args: [
    ...['-c:v', 'libx264', '-preset', quality === 'preview' ? 'veryfast' : 'medium', '-crf', `${CRF[quality]}`],
    // Keeps the small steps of soft shading, which the encoder would drop.
    ...['-tune', 'animation', '-aq-mode', '3'],
    // All frame types get equal quality; otherwise the first frame would be better than the last, visible as a pulse.
    ...(quality === 'preview' ? [] : ['-x264-params', 'ipratio=1.0:pbratio=1.0:mbtree=0']),
    ...(whole ? ['-g', '1'] : []),
    ...TAGGED,
    ...['-movflags', '+faststart'],
  ],
});

export const mp4 = makerOf<MovieValues>(async (making) => {
  const values = making.values;
  return [await encode(making, { plays: values.plays, ...h264(values) })];
});
