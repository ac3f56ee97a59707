import { EVEN } from './av1.server';
import { encode, type Exporter } from './exporter';
import { pixels, TAGGED, type Quality } from './movie';

const QP = { preview: 42, good: 26, lossless: 12 } as const;

/** Animated AVIF (AV1 Image File Format) by SVT-AV1. */
export const avif: Exporter = async (making) => {
  const { quality } = making.values as { quality: Quality };
  return [
    await encode(making, {
      filter: pixels('yuv420p10le'),
      args: [
        '-c:v',
        'libsvtav1',
        '-preset',
        '8',
        '-qp',
        `${QP[quality]}`,
        '-svtav1-params',
        EVEN,
        ...TAGGED,
        '-f',
        'avif',
      ],
    }),
  ];
};
