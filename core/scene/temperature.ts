/**
 * Colour of a black body in linear sRGB, largest component 1: the Planckian locus by the cubic approximation of Kim et
 * al. (US patent 7024034, 2002) in CIE 1931 xy, then XYZ to sRGB by the matrix of IEC 61966-2-1. Colours outside sRGB
 * are clipped.
 *
 * @param kelvin clamped to 1667…25000
 */
export function blackBody(kelvin: number): readonly [number, number, number] {
  const t = Math.max(1667, Math.min(25_000, kelvin));
  const k = 1000 / t;
  const x =
    t <= 4000
      ? -0.2661239 * k ** 3 - 0.2343589 * k ** 2 + 0.8776956 * k + 0.17991
      : -3.0258469 * k ** 3 + 2.1070379 * k ** 2 + 0.2226347 * k + 0.24039;
  const y =
    t <= 2222
      ? -1.1063814 * x ** 3 - 1.3481102 * x ** 2 + 2.18555832 * x - 0.20219683
      : t <= 4000
        ? -0.9549476 * x ** 3 - 1.37418593 * x ** 2 + 2.09137015 * x - 0.16748867
        : 3.081758 * x ** 3 - 5.8733867 * x ** 2 + 3.75112997 * x - 0.37001483;
  const [X, Y, Z] = [x / y, 1, (1 - x - y) / y];
  const rgb = [
    3.2404542 * X - 1.5371385 * Y - 0.4985314 * Z,
    -0.969266 * X + 1.8760108 * Y + 0.041556 * Z,
    0.0556434 * X - 0.2040259 * Y + 1.0572252 * Z,
  ].map((c) => Math.max(0, c));
  const most = Math.max(...rgb);
  return [rgb[0] / most, rgb[1] / most, rgb[2] / most];
}
