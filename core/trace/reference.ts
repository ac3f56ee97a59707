import { BITS } from './bits';
import { ball, pictureOf, settings, square, white } from './fixture';

/** A small picture with a known result, the same on every machine. */
export const REFERENCE = {
  size: { ...settings, width: 24, height: 16 },
  samples: 8,
  /** Of the sums as they lie in memory. */
  sha256: BITS.picture,
} as const;

export function referencePicture(): ReturnType<typeof pictureOf> {
  return pictureOf(
    [
      { mesh: ball(), surface: { baseColor: '#C0392B', roughness: 0.3, clearcoat: 0.5 } },
      { mesh: square(3, -1), surface: { baseColor: '#8899AA' } },
    ],
    [white, { type: 'ball', intensity: 4, at: [2, 2, 2], radius: 0.3, colour: [1, 1, 1], shadow: true }],
    { focalLength: 40, lensRadius: 0.05 },
  );
}
