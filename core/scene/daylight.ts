import { xyzToLinear } from '../maths/cie';
import { vec3, type Vec3 } from '../maths/vec3';

/**
 * Sky and sun by A. J. Preetham, P. Shirley, B. Smits, “A Practical Analytic Model for Daylight”, SIGGRAPH 1999: the
 * distribution of R. Perez et al. with coefficients linear in turbidity, and sunlight attenuated by air, haze and
 * ozone. Constants are from memory; tests check them against the model's own zenith values.
 */
interface Perez {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
}

const linear = (t: number, rows: readonly (readonly [number, number])[]): Perez => {
  const [a, b, c, d, e] = rows.map(([k, m]) => k * t + m);
  return { a, b, c, d, e };
};

const coefficients = (t: number) => ({
  Y: linear(t, [
    [0.1787, -1.463],
    [-0.3554, 0.4275],
    [-0.0227, 5.3251],
    [0.1206, -2.5771],
    [-0.067, 0.3703],
  ]),
  x: linear(t, [
    [-0.0193, -0.2592],
    [-0.0665, 0.0008],
    [-0.0004, 0.2125],
    [-0.0641, -0.8989],
    [-0.0033, 0.0452],
  ]),
  y: linear(t, [
    [-0.0167, -0.2608],
    [-0.095, 0.0092],
    [-0.0079, 0.2102],
    [-0.0441, -1.6537],
    [-0.0109, 0.0529],
  ]),
});

const ZENITH_X = [
  [0.00166, -0.00375, 0.00209, 0],
  [-0.02903, 0.06377, -0.03202, 0.00394],
  [0.11693, -0.21196, 0.06052, 0.25886],
] as const;

const ZENITH_Y = [
  [0.00275, -0.0061, 0.00317, 0],
  [-0.04214, 0.0897, -0.04153, 0.00516],
  [0.15346, -0.26756, 0.0667, 0.26688],
] as const;

function zenithChroma(rows: readonly (readonly number[])[], t: number, s: number): number {
  const by = [t * t, t, 1];
  return rows.reduce((sum, [a, b, c, d], i) => sum + by[i] * (((a * s + b) * s + c) * s + d), 0);
}

const perez = ({ a, b, c, d, e }: Perez, cosTheta: number, gamma: number, cosGamma: number) =>
  (1 + a * Math.exp(b / cosTheta)) * (1 + c * Math.exp(d * gamma) + e * cosGamma * cosGamma);

/** A sky of clear daylight. */
export interface DaylightSky {
  /** CIE Y at the zenith in thousand candela per square metre, and x and y. */
  readonly zenith: { readonly Y: number; readonly x: number; readonly y: number };
  /** Radiance from a direction not below the horizon, linear sRGB, in thousand candela per square metre. */
  colour(direction: Vec3): Vec3;
}

/**
 * @param sun unit vector to the sun, above the horizon
 * @param turbidity 1.7 for pure mountain air to 10 for haze
 */
export function daylightSky(sun: Vec3, turbidity: number): DaylightSky {
  const t = turbidity;
  const s = Math.acos(Math.max(-1, Math.min(1, sun[1])));
  const chi = (4 / 9 - t / 120) * (Math.PI - 2 * s);
  const zenith = {
    Y: (4.0453 * t - 4.971) * Math.tan(chi) - 0.2155 * t + 2.4192,
    x: zenithChroma(ZENITH_X, t, s),
    y: zenithChroma(ZENITH_Y, t, s),
  };
  const by = coefficients(t);
  const [names, cosSun] = [['Y', 'x', 'y'] as const, Math.max(0, sun[1])];
  const scale = names.map((n) => zenith[n] / perez(by[n], 1, s, cosSun));
  return {
    zenith,
    colour(direction) {
      const cosTheta = Math.max(0.01, direction[1]);
      const cosGamma = Math.max(
        -1,
        Math.min(
          1,
          direction.reduce((sum, x, k) => sum + x * sun[k], 0),
        ),
      );
      const [Y, x, y] = names.map((n, i) => scale[i] * perez(by[n], cosTheta, Math.acos(cosGamma), cosGamma));
      return xyYToLinear(x, y, Math.max(0, Y));
    },
  };
}

/** CIE xyY to linear sRGB (IEC 61966-2-1), nothing below 0. */
function xyYToLinear(x: number, y: number, Y: number): Vec3 {
  const [X, Z] = [(x / y) * Y, ((1 - x - y) / y) * Y];
  const out = xyzToLinear([X, Y, Z]);
  return vec3((k) => Math.max(0, out[k]));
}

/** Sunlight above the atmosphere, in thousand lux. */
export const ABOVE_THE_AIR = 128;

/** Wavelengths in micrometres that stand for red, green and blue. */
const WAVES = [0.61, 0.55, 0.465] as const;

/** Absorption of ozone per centimetre at those (the Chappuis band, approximately). */
const OZONE = [0.12, 0.085, 0.01] as const;

/** Transmittance of the atmosphere for sunlight, red, green and blue, 0…1. */
export function sunlightLeft(sun: Vec3, turbidity: number): Vec3 {
  const s = Math.acos(Math.max(0, Math.min(1, sun[1])));
  // Relative optical mass (Kasten 1966 as in the paper).
  const mass = 1 / (Math.cos(s) + 0.15 * (93.885 - (s * 180) / Math.PI) ** -1.253);
  const haze = 0.04608 * turbidity - 0.04586;
  return WAVES.map((w, k) => {
    const air = Math.exp(-0.008735 * w ** -4.08 * mass);
    const aerosol = Math.exp(-haze * w ** -1.3 * mass);
    return air * aerosol * Math.exp(-OZONE[k] * 0.35 * mass);
  }) as [number, number, number];
}
