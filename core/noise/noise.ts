import type { Clock } from '../time/loop';
import type { Field } from './gradients';
import { noiseKind } from './kinds/index';

/** Everything that shapes a noise, evaluated at a moment. */
export interface NoiseSettings {
  readonly kind: string;
  /** Size of its features in metres, > 0, and along each axis on top of it. */
  readonly scale: number;
  readonly stretch: readonly [number, number, number];
  /** 1…8 layers, each half as large (lacunarity 2) and half as strong (gain ½). */
  readonly octaves: number;
  /** Factor on the value, then what is added to it. */
  readonly contrast: number;
  readonly brightness: number;
  /** The value is cut off below and above these. */
  readonly low: number;
  readonly high: number;
  readonly absolute: boolean;
  readonly invert: boolean;
  readonly seed: number;
  readonly rate: number;
}

const GAIN = 0.5;
const LACUNARITY = 2;
/** Moves each octave off the lattice of the one before, where gradient noise is 0. */
const OFFSET_XZ = 37.2713;
const OFFSET_Y = 71.9131;

/**
 * The finished scalar field at a moment of the loop, position in metres → value (nominally −1…1).
 * Fractional Brownian sum, then absolute, invert, contrast, brightness, clip, in this order.
 */
export function noiseField(s: NoiseSettings, clock: Clock): Field {
  const kind = noiseKind(s.kind);
  const octaves = Math.max(1, Math.min(8, Math.round(s.octaves)));
  const layers: Field[] = [];
  const weights: number[] = [];
  let total = 0;
  for (let o = 0; o < octaves; o++) {
    // The first octave has the seed itself, so that seed 0 is the published pattern.
    layers.push(kind.field(o === 0 ? s.seed : s.seed * 8 + o, s.rate, clock));
    weights.push(GAIN ** o);
    total += weights[o];
  }
  for (let o = 0; o < octaves; o++) weights[o] /= total;
  const fx = 1 / (s.scale * s.stretch[0]);
  const fy = 1 / (s.scale * s.stretch[1]);
  const fz = 1 / (s.scale * s.stretch[2]);
  const { absolute, invert, contrast, brightness, low, high } = s;
  const first = layers[0];
  return (x, y, z) => {
    x *= fx;
    y *= fy;
    z *= fz;
    let v: number;
    if (octaves === 1) v = first(x, y, z);
    else {
      v = 0;
      let f = 1;
      for (let o = 0; o < octaves; o++) {
        v += weights[o] * layers[o](x * f + o * OFFSET_XZ, y * f + o * OFFSET_Y, z * f + o * OFFSET_XZ);
        f *= LACUNARITY;
      }
    }
    if (absolute) v = Math.abs(v);
    if (invert) v = -v;
    v = v * contrast + brightness;
    return v < low ? low : v > high ? high : v;
  };
}
