import { matching, xyzToLinear } from '../maths/cie';

/** Wavelengths of what is seen, in nanometres. */
const WAVES = Array.from({ length: 201 }, (_, i) => 380 + 2 * i);
/** Entries of the table, and nanometres from one to the next; see core/trace/assembly/film.ts. */
const ENTRIES = 1024;
const STEP = 8;
/** Of the last entries each counts less than the one before, so that nothing ends at once. */
const FADE = 64;

/**
 * What the cosine of the phase comes to in white light, for ways that are longer by −1 step, none, 1 step and so on: how
 * far colours of a thin film are from their mean.
 *
 * @returns linear red, green and blue and a free number, 4 numbers a step; 1, 1, 1 for a way that is not longer
 */
export function filmTable(): Float32Array {
  const parts = WAVES.map((w) => xyzToLinear(matching(w)));
  const white = [0, 1, 2].map((k) => parts.reduce((sum, p) => sum + p[k], 0));
  const table = new Float32Array(4 * (ENTRIES + 3));
  for (let i = 0; i < ENTRIES + 3; i++) {
    const longer = STEP * (i - 1);
    const left = Math.min(1, Math.max(0, (ENTRIES - i) / FADE));
    WAVES.forEach((wave, j) => {
      const cosine = left * Math.cos((2 * Math.PI * longer) / wave);
      for (let k = 0; k < 3; k++) table[4 * i + k] += (cosine * parts[j][k]) / white[k];
    });
  }
  return table;
}
