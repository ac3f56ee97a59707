import { encode, makerOf } from './exporter';
import { pixels, TAGGED, type MovieValues } from './movie';

const CRF = { preview: 28, good: 17, lossless: 10 } as const;

/** H.264 (ITU-T H.264) by x264. */
export const h264 = ({ quality, whole }: Pick<MovieValues, 'quality' | 'whole'>) => ({
  filter: pixels('yuv420p'),
  args: [
    ...['-c:v', 'libx264', '-preset', quality === 'preview' ? 'veryfast' : 'medium', '-crf', `${CRF[quality]}`],
    // Soft shading keeps its steps small where the encoder would take them for nothing.
    ...['-tune', 'animation', '-aq-mode', '3'],
    // All kinds of pictures are kept as well as each other: the first would be better than the last, and be seen as a pulse.
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
