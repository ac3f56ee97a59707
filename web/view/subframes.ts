/**
 * Where on the lens the nth picture of a frame looks from: points of the unit disc, evenly by area.
 * The first is the middle, so that a picture that moves is not shifted.
 *
 * @param blades corners of the opening, from 3; 0 for a round one
 */
export function lensOffset(n: number, blades = 0): readonly [number, number] {
  if (n === 0) return [0, 0];
  // The R2 sequence, its one half as a share of the area and its other as a share of the turn.
  const share = (n * 0.7548776662466927 + 0.5) % 1;
  const a = 2 * Math.PI * ((n * 0.5698402909980532) % 1);
  const r = Math.sqrt(share) * withinBlades(a, blades);
  return [r * Math.cos(a), r * Math.sin(a)];
}

/** How far the side of a regular polygon in the unit disc lies from its middle, in a direction. */
function withinBlades(angle: number, blades: number): number {
  if (blades < 3) return 1;
  const half = Math.PI / blades;
  const off = (((angle % (2 * half)) + 2 * half) % (2 * half)) - half;
  return Math.cos(half) / Math.cos(off);
}

/**
 * Where within a pixel the nth picture of a frame is taken, in pixels from its middle, −½ ≤ x, y < ½:
 * the R2 sequence (M. Roberts, “The unreasonable effectiveness of quasirandom sequences”, 2018),
 * which fills the pixel evenly however many there are. The first is taken in the middle. It depends
 * on the number alone, so that any frame can be made by itself and frame N is frame 0.
 */
export function pixelOffset(n: number): readonly [number, number] {
  // The inverse of the plastic number, the real root of x³ = x + 1, and its square.
  const x = n * 0.7548776662466927 + 0.5;
  const y = n * 0.5698402909980532 + 0.5;
  return [x - Math.floor(x) - 0.5, y - Math.floor(y) - 0.5];
}

/**
 * The direction light from all round is looked at in the nth picture of a frame: unit vectors spread
 * evenly over the sphere (Archimedes: height is uniform).
 */
export function domeDirection(n: number): readonly [number, number, number] {
  const y = 2 * ((n * 0.7548776662466927 + 0.25) % 1) - 1;
  const a = 2 * Math.PI * ((n * 0.5698402909980532 + 0.5) % 1);
  const r = Math.sqrt(Math.max(0, 1 - y * y));
  return [r * Math.cos(a), y, r * Math.sin(a)];
}

/** The same upwards alone, as often as a level floor is lit from there: evenly over its projection (Malley's method). */
export function domeUpward(n: number): readonly [number, number, number] {
  const share = (n * 0.7548776662466927 + 0.25) % 1;
  const a = 2 * Math.PI * ((n * 0.5698402909980532 + 0.5) % 1);
  const r = Math.sqrt(share);
  return [r * Math.cos(a), Math.sqrt(1 - share), r * Math.sin(a)];
}
