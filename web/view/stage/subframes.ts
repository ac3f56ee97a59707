/**
 * Lens point of the nth sub-frame: points of the unit disc, uniform by area. The first is the centre, so that a moving
 * picture is not shifted.
 *
 * @param blades of the aperture, from 3; 0 for a round one
 */
export function lensOffset(n: number, blades = 0): readonly [number, number] {
  if (n === 0) return [0, 0];
  // The R2 sequence: one coordinate as a share of the area, the other as a share of the turn.
  const share = (n * 0.7548776662466927 + 0.5) % 1;
  const a = 2 * Math.PI * ((n * 0.5698402909980532) % 1);
  const r = Math.sqrt(share) * withinBlades(a, blades);
  return [r * Math.cos(a), r * Math.sin(a)];
}

/** Distance from the centre to the rim of a regular polygon in the unit disc, in a direction. */
function withinBlades(angle: number, blades: number): number {
  if (blades < 3) return 1;
  const half = Math.PI / blades;
  const off = (((angle % (2 * half)) + 2 * half) % (2 * half)) - half;
  return Math.cos(half) / Math.cos(off);
}

/**
 * Pixel offset of the nth sub-frame, in pixels from its centre, −½ ≤ x, y < ½: the R2 sequence (M. Roberts, “The
 * unreasonable effectiveness of quasirandom sequences”, 2018), which fills the pixel evenly however many there are. The
 * first is the centre. It depends on the index alone, so that any frame can be made by itself and frame N equals frame
 * 0.
 */
export function pixelOffset(n: number): readonly [number, number] {
  // The inverse of the plastic number, the real root of x³ = x + 1, and its square.
  const x = n * 0.7548776662466927 + 0.5;
  const y = n * 0.5698402909980532 + 0.5;
  return [x - Math.floor(x) - 0.5, y - Math.floor(y) - 0.5];
}

/**
 * Environment direction tested in the nth sub-frame: unit vectors uniform over the sphere (Archimedes: height is
 * uniform).
 */
export function domeDirection(n: number): readonly [number, number, number] {
  const y = 2 * ((n * 0.7548776662466927 + 0.25) % 1) - 1;
  const a = 2 * Math.PI * ((n * 0.5698402909980532 + 0.5) % 1);
  const r = Math.sqrt(Math.max(0, 1 - y * y));
  return [r * Math.cos(a), y, r * Math.sin(a)];
}

/** The same upwards alone, cosine-distributed for a level floor (Malley's method). */
export function domeUpward(n: number): readonly [number, number, number] {
  const share = (n * 0.7548776662466927 + 0.25) % 1;
  const a = 2 * Math.PI * ((n * 0.5698402909980532 + 0.5) % 1);
  const r = Math.sqrt(share);
  return [r * Math.cos(a), Math.sqrt(1 - share), r * Math.sin(a)];
}
