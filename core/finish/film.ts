import { colourOfSpectrum } from '../maths/cie';

/**
 * Reflectance of a thin film on a clear body at one wavelength: Airy's sum over all reflections inside the film, for
 * both polarisations (M. Born and E. Wolf, Principles of Optics, section 7.6).
 *
 * @param film index of refraction of the film, and of the body below it, both ≥ 1
 * @param thickness nanometres
 * @param wave nanometres
 * @param cosine of the angle of incidence, 0…1
 */
export function filmReflectance(film: number, body: number, thickness: number, wave: number, cosine: number): number {
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  const inside = (n: number) => Math.sqrt(Math.max(0, 1 - (sine / n) ** 2));
  const [c1, c2, c3] = [cosine, inside(film), inside(body)];
  const phase = (4 * Math.PI * film * thickness * c2) / wave;
  const swings = [
    // Perpendicular (s) and parallel (p): Fresnel amplitudes at both interfaces.
    [(c1 - film * c2) / (c1 + film * c2), (film * c2 - body * c3) / (film * c2 + body * c3)],
    [(film * c1 - c2) / (film * c1 + c2), (body * c2 - film * c3) / (body * c2 + film * c3)],
  ];
  const shares = swings.map(([a, b]) => {
    const both = 2 * a * b * Math.cos(phase);
    return (a * a + b * b + both) / (1 + a * a * b * b + both);
  });
  return (shares[0] + shares[1]) / 2;
}

/** The same as a colour in white light, linear sRGB. */
export function filmColour(film: number, body: number, thickness: number, cosine: number): [number, number, number] {
  return colourOfSpectrum((wave) => filmReflectance(film, body, thickness, wave, cosine));
}
