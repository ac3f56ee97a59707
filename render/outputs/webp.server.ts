import { encode, type Exporter } from './exporter';
import type { Quality } from './movie';

const QUALITY = { preview: 60, good: 85, lossless: 98 } as const;

/** Animated WebP (RFC 9649) by libwebp, looping endlessly. */
export const webp: Exporter = async (making) => {
  const { quality, clear } = making.values as { quality: Quality; clear: boolean };
  return [
    await encode(making, {
      eight: true,
      filter: `format=${clear ? 'bgra' : 'bgr0'}`,
      args: [
        '-c:v',
        'libwebp_anim',
        '-quality',
        `${QUALITY[quality]}`,
        '-compression_level',
        '4',
        '-loop',
        '0',
        '-f',
        'webp',
      ],
    }),
  ];
};
