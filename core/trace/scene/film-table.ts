import { matching, xyzToLinear } from '../../maths/cie';

/** Visible wavelengths in nanometres. */
const WAVES = Array.from({ length: 201 }, (_, i) => 380 + 2 * i);
/** Entries of the table, and nanometres between them; see core/trace/assembly/surfaces/film.ts. */
const ENTRIES = 1024;
const STEP = 8;
/** The last entries fade out, so that the table has no sudden end. */
const FADE = 64;

/**
 * Mean cosine of the phase in white light for path differences of −1 step, 0, 1 step and so on: how far the colours of
 * a thin film are from their mean.
 *
 * @returns linear red, green, blue and a spare number, 4 numbers per step; 1, 1, 1 at a difference of 0
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
