/**
 * A distance bound: at most the distance from a place to the set, below or at 0 within it. Places and sets are
 * about as large as the unit ball.
 */
export type DistanceBound = (x: number, y: number, z: number) => number;

/**
 * Power bulb: z → zⁿ + c in spherical coordinates (D. White & P. Nylander, 2009), its distance bounded
 * by ¼·r·ln r / |dr| (J. C. Hart, D. J. Sandin & L. H. Kauffman, “Ray tracing deterministic 3-D
 * fractals”, SIGGRAPH 1989): an estimate, since its power is no true one of numbers.
 *
 * @param power n, 2…16
 * @param phase radians added to both angles each time
 */
export function powerBulb(power: number, phase: number, iterations: number): DistanceBound {
  return (cx, cy, cz) => {
    let [x, y, z] = [cx, cy, cz];
    let dr = 1;
    let r = Math.sqrt(x * x + y * y + z * z);
    for (let i = 0; i < iterations; i++) {
      if (r > 8 || r === 0) break;
      const theta = Math.acos(Math.max(-1, Math.min(1, z / r))) * power + phase;
      const phi = Math.atan2(y, x) * power + phase;
      const grown = r ** (power - 1);
      dr = power * grown * dr + 1;
      const zr = grown * r;
      const s = Math.sin(theta);
      x = zr * s * Math.cos(phi) + cx;
      y = zr * s * Math.sin(phi) + cy;
      z = zr * Math.cos(theta) + cz;
      r = Math.sqrt(x * x + y * y + z * z);
    }
    return r > 1 ? (0.25 * Math.log(r) * r) / dr : 0;
  };
}

/**
 * Julia set of quaternions q → q² + c, its slice where the last part is 0 (A. Norton, “Generation and
 * display of geometric fractals in 3-D”, SIGGRAPH 1982); distance as above.
 */
export function quaternionJulia(c: readonly [number, number, number, number], iterations: number): DistanceBound {
  const [ca, cb, cc, cd] = c;
  return (x, y, z) => {
    let [a, b, d, e] = [x, y, z, 0];
    let dr = 1;
    let square = a * a + b * b + d * d;
    for (let i = 0; i < iterations && square < 16; i++) {
      dr *= 2 * Math.sqrt(square);
      const real = a * a - b * b - d * d - e * e + ca;
      b = 2 * a * b + cb;
      d = 2 * a * d + cc;
      e = 2 * a * e + cd;
      a = real;
      square = a * a + b * b + d * d + e * e;
    }
    const r = Math.sqrt(square);
    return r > 1 ? (0.25 * r * Math.log(r)) / Math.max(1e-12, dr) : 0;
  };
}

/**
 * Box and sphere fold (T. Lowe, “What is a Mandelbox?”, 2010): fold into a box, turn inside out about a
 * ball, grow, move on. Distance (|z| − reach) / |dr| with the running derivative.
 *
 * @param scale −3…3, not between −1 and 1
 * @param turn radians by which each round is turned about the upright axis
 */
export function boxFold(scale: number, turn: number, iterations: number): DistanceBound {
  const [min2, fixed2] = [0.25, 1];
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  /** Beyond this everything goes off for good. */
  const reach = scale > 1 ? (2 * (scale + 1)) / (scale - 1) : 2;
  // The set is as large as its reach: brought to the unit ball.
  const size = reach * Math.sqrt(3);
  const fold = (v: number) => (v > 1 ? 2 - v : v < -1 ? -2 - v : v);
  return (px, py, pz) => {
    const [cx, cy, cz] = [px * size, py * size, pz * size];
    let [x, y, z] = [cx, cy, cz];
    let dr = 1;
    for (let i = 0; i < iterations; i++) {
      x = fold(x);
      y = fold(y);
      z = fold(z);
      const r2 = x * x + y * y + z * z;
      const k = r2 < min2 ? fixed2 / min2 : r2 < fixed2 ? fixed2 / r2 : 1;
      const [tx, tz] = [cos * x - sin * z, sin * x + cos * z];
      x = scale * k * tx + cx;
      y = scale * k * y + cy;
      z = scale * k * tz + cz;
      dr = dr * Math.abs(scale) * k + 1;
      if (x * x + y * y + z * z > 1e12) break;
    }
    return Math.max(0, Math.sqrt(x * x + y * y + z * z) - size) / dr / size;
  };
}

/**
 * Menger sponge (K. Menger, 1926): a cube of which every third is taken out, and so on with the cubes
 * that are left. Its distance is the largest of that to the cube and of those into the holes.
 *
 * @param hole share of the middle third that is taken out, 0…1
 * @param turn radians by which each smaller round is turned about the diagonal
 */
export function mengerSponge(hole: number, turn: number, iterations: number): DistanceBound {
  const edge = 1 / Math.sqrt(3);
  const [c, s] = [Math.cos(turn), Math.sin(turn) / Math.sqrt(3)];
  // A turn about the diagonal (1, 1, 1), as its three numbers (Rodrigues).
  const [m0, m1, m2] = [c + (1 - c) / 3, (1 - c) / 3 - s, (1 - c) / 3 + s];
  return (px, py, pz) => {
    const outside = Math.max(Math.abs(px), Math.abs(py), Math.abs(pz)) - edge;
    let d = outside;
    // In cells of the round: −1…1 from side to side.
    let [x, y, z] = [px / edge, py / edge, pz / edge];
    let cell = edge;
    for (let i = 0; i < iterations; i++) {
      if (turn !== 0) {
        const turnedX = m0 * x + m1 * y + m2 * z;
        const turnedY = m2 * x + m0 * y + m1 * z;
        z = m1 * x + m2 * y + m0 * z;
        x = turnedX;
        y = turnedY;
      }
      const ax = Math.abs(x - 2 * Math.round(x / 2));
      const ay = Math.abs(y - 2 * Math.round(y / 2));
      const az = Math.abs(z - 2 * Math.round(z / 2));
      const across = Math.min(Math.max(ax, ay), Math.max(ay, az), Math.max(az, ax));
      d = Math.max(d, (hole / 3 - across) * cell);
      x *= 3;
      y *= 3;
      z *= 3;
      cell /= 3;
    }
    return d;
  };
}

/**
 * Apollonian net: space folded into a cell and turned inside out about a ball, again and again
 * (after I. Quilez, “Apollonian”, 2013; the distance to the floor of each cell over the growth).
 *
 * @param grow 0.8…1.6: how strongly it is turned inside out
 * @param angle radians by which the cell's middle goes round
 */
export function apollonian(grow: number, angle: number, iterations: number): DistanceBound {
  const [ox, oz] = [0.12 * Math.cos(angle), 0.12 * Math.sin(angle)];
  return (px, py, pz) => {
    let [x, y, z] = [1.6 * px + ox, 1.6 * py, 1.6 * pz + oz];
    let scale = 1.6;
    for (let i = 0; i < iterations; i++) {
      x = x - 2 * Math.round(x / 2);
      y = y - 2 * Math.round(y / 2);
      z = z - 2 * Math.round(z / 2);
      const k = grow / Math.max(1e-9, x * x + y * y + z * z);
      x *= k;
      y *= k;
      z *= k;
      scale *= k;
    }
    return (0.25 * Math.abs(y)) / scale;
  };
}

/**
 * A lattice without end of rounded cubes joined by rods.
 *
 * @param spacing from one to the next
 * @param solid half the edge of a cube, and the radius of a rod, as shares of it
 * @param along how far it has gone along its diagonal, in spacings
 */
export function roundedLattice(spacing: number, solid: number, rod: number, along: number): DistanceBound {
  const half = spacing * solid;
  const round = 0.35 * half;
  const around = (v: number) => v - spacing * Math.round(v / spacing);
  return (px, py, pz) => {
    const [x, y, z] = [
      Math.abs(around(px - along * spacing)),
      Math.abs(around(py - along * spacing)),
      Math.abs(around(pz - along * spacing)),
    ];
    const [qx, qy, qz] = [x - half + round, y - half + round, z - half + round];
    const [ax, ay, az] = [Math.max(qx, 0), Math.max(qy, 0), Math.max(qz, 0)];
    const cube = Math.sqrt(ax * ax + ay * ay + az * az) + Math.min(Math.max(qx, qy, qz), 0) - round;
    const rods = Math.min(Math.hypot(x, y), Math.hypot(y, z), Math.hypot(z, x)) - rod * spacing;
    return Math.min(cube, rods);
  };
}
