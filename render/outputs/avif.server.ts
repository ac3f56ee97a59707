import { encode, type Maker } from './maker';
import { pixels, TAGGED, type Quality } from './movie';

const CRF = { preview: 42, good: 26, lossless: 12 } as const;

/** Animated AVIF (AV1 Image File Format) by SVT-AV1. */
export const avif: Maker = async (making) => {
  const { quality } = making.values as { quality: Quality };
  return [
    await encode(making, {
      filter: pixels('yuv420p10le'),
      args: ['-c:v', 'libsvtav1', '-preset', '8', '-crf', `${CRF[quality]}`, ...TAGGED, '-f', 'avif'],
    }),
  ];
};
