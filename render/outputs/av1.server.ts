import { encode, makerOf } from './exporter';
import { pixels, TAGGED, type MovieValues } from './movie';

const QP = { preview: 45, good: 24, lossless: 12 } as const;

/** The same quality for all pictures, and no temporal filter for the first, which would show as a pulse at the seam. */
export const EVEN = 'rc=0:aq-mode=0:enable-tf=0';

/** AV1 (AV1 Bitstream & Decoding Process Specification) by SVT-AV1, in 10 bit. */
export const av1 = makerOf<MovieValues>(async (making) => {
  const { quality, plays, whole } = making.values;
  return [
    await encode(making, {
      plays,
      filter: pixels('yuv420p10le'),
      args: [
        ...[
          '-c:v',
          'libsvtav1',
          '-preset',
          quality === 'preview' ? '11' : '8',
          '-qp',
          `${QP[quality]}`,
          '-svtav1-params',
          EVEN,
        ],
        ...(whole ? ['-g', '1'] : []),
        ...TAGGED,
      ],
    }),
  ];
});
