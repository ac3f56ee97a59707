import { matching, xyzToLinear } from '../maths/cie';

/** Wavelengths at which a film is looked at, in nanometres; see core/trace/assembly/film.ts. */
const WAVES = Array.from({ length: 40 }, (_, i) => 385 + 8 * i);

/**
 * What light of each wavelength counts in linear red, green and blue, so that an even spectrum is white.
 *
 * @returns 4 numbers a wavelength, the last of them free
 */
export function filmTable(): Float32Array {
  const parts = WAVES.map((w) => xyzToLinear(matching(w)));
  const white = [0, 1, 2].map((k) => parts.reduce((sum, p) => sum + p[k], 0));
  return Float32Array.from(parts.flatMap((p) => [...p.map((c, k) => c / white[k]), 0]));
}
