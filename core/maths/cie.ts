/**
 * Colour matching functions of the CIE 1931 standard observer (2°), by the multi-lobe fit of C. Wyman,
 * P.-P. Sloan and P. Shirley, “Simple Analytic Approximations to the CIE XYZ Color Matching Functions”,
 * JCGT 2(2), 2013: within about 1 % of the largest value of the tables.
 */
const lobe = (wave: number, middle: number, below: number, above: number): number => {
  const t = (wave - middle) / (wave < middle ? below : above);
  return Math.exp(-0.5 * t * t);
};

/**
 * @param wave nanometres
 * @returns x̄, ȳ and z̄
 */
export function matching(wave: number): [number, number, number] {
  return [
    1.056 * lobe(wave, 599.8, 37.9, 31) + 0.362 * lobe(wave, 442, 16, 26.7) - 0.065 * lobe(wave, 501.1, 20.4, 26.2),
    0.821 * lobe(wave, 568.8, 46.9, 40.5) + 0.286 * lobe(wave, 530.9, 16.3, 31.1),
    1.217 * lobe(wave, 437, 11.8, 36) + 0.681 * lobe(wave, 459, 26, 13.8),
  ];
}

/** CIE XYZ to linear sRGB (IEC 61966-2-1). */
export function xyzToLinear([x, y, z]: readonly [number, number, number]): [number, number, number] {
  return [
    3.2406 * x - 1.5372 * y - 0.4986 * z,
    -0.9689 * x + 1.8758 * y + 0.0415 * z,
    0.0557 * x - 0.204 * y + 1.057 * z,
  ];
}

const [FIRST, LAST, STEP] = [380, 780, 2] as const;

/**
 * The colour of a surface that reflects some share of each wavelength, in white light: 1 at every
 * wavelength is 1, 1, 1.
 *
 * @param share 0…1 by nanometres
 * @returns linear sRGB; beyond 0…1 where a screen cannot show it
 */
export function colourOfSpectrum(share: (wave: number) => number): [number, number, number] {
  const [sum, white]: [number, number, number][] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (let wave = FIRST; wave <= LAST; wave += STEP) {
    const s = share(wave);
    matching(wave).forEach((m, k) => {
      sum[k] += s * m;
      white[k] += m;
    });
  }
  const full = xyzToLinear(white);
  return xyzToLinear(sum).map((c, k) => c / full[k]) as [number, number, number];
}
