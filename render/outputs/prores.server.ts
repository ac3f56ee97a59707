import { encode, makerOf } from './exporter';
import { pixels, TAGGED } from './movie';

/** ProRes 4444 (SMPTE RDD 36), straight alpha in 16 bits. */
export const prores = makerOf<{ readonly plays: number; readonly clear: boolean }>(async (making) => {
  const { plays, clear } = making.values;
  return [
    await encode(making, {
      plays,
      filter: pixels(clear ? 'yuva444p10le' : 'yuv444p10le'),
      args: [
        ...['-c:v', 'prores_ks', '-profile:v', '4444', '-vendor', 'apl0'],
        ...(clear ? ['-alpha_bits', '16'] : []),
        ...TAGGED,
      ],
    }),
  ];
});
