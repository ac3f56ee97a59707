import { encode, makerOf } from './exporter';
import { pixels, TAGGED, type MovieValues } from './movie';

const CRF = { preview: 30, good: 19, lossless: 12 } as const;

/** H.265 (ITU-T H.265) by x265. */
export const hevc = makerOf<MovieValues & { readonly bits: '8' | '10' }>(async (making) => {
  const { quality, plays, whole, bits } = making.values;
  // As for H.264: no frame type gets better quality than the others.
  const even = quality === 'preview' ? '' : ':ipratio=1.0:pbratio=1.0:cutree=0';
  return [
    await encode(making, {
      plays,
      filter: pixels(bits === '10' ? 'yuv420p10le' : 'yuv420p'),
      args: [
        ...['-c:v', 'libx265', '-preset', quality === 'preview' ? 'veryfast' : 'medium', '-crf', `${CRF[quality]}`],
        ...['-x265-params', `log-level=error${even}${whole ? ':keyint=1' : ''}`, '-tag:v', 'hvc1'],
        ...TAGGED,
        ...['-movflags', '+faststart'],
      ],
    }),
  ];
});
