import { vec3, type Vec3 } from '../maths/vec3';
import { phaseOf } from '../time/phase';
import { rational } from '../maths/rational';
import type { Clock } from '../time/loop';
import { matrixOf, turnXYZ } from '../maths/quaternion';
import type { Field } from './gradients';
import { USUAL_NOISE, type Metric, type NoiseOptions } from './kind';
import { noiseKind } from './kinds/index';

/** Everything that shapes a noise, evaluated at a moment. Optional values have defaults. */
export interface NoiseSettings {
  readonly kind: string;
  /** Feature size in metres, > 0, and a factor for each axis. */
  readonly scale: number;
  readonly stretch: Vec3;
  /** 1…8 octaves; each has `lacunarity` times as many features and `gain` times the strength of the one before. */
  readonly octaves: number;
  readonly gain?: number;
  readonly lacunarity?: number;
  /** Factor on the value, then offset. */
  readonly contrast: number;
  readonly brightness: number;
  /** The value is clamped to this range. */
  readonly low: number;
  readonly high: number;
  readonly absolute: boolean;
  readonly invert: boolean;
  readonly seed: number;
  readonly rate: number;
  /** Offset of the pattern in metres, and rotation in degrees about x, then y, then z. */
  readonly shift?: Vec3;
  readonly turn?: Vec3;
  /** Whole tiles travelled per loop along each axis of the pattern; 0 stands still. */
  readonly travel?: Vec3;
  /** Features per tile of a travelling pattern: 2, 4, 8 … 256. */
  readonly tile?: number;
  /** Repeats after `tile` features along each axis even if it does not travel; for positions that are periodic. */
  readonly wraps?: boolean;
  readonly metric?: Metric;
  readonly jitter?: number;
}

/** Offsets each octave from the lattice of the one before, where gradient noise is 0. */
export const OCTAVE_OFFSET = [37.2713, 71.9131, 37.2713] as const;

/**
 * The scalar field at a moment of the loop, position in metres → value, nominally −1…1. Fractional Brownian sum, then
 * absolute, invert, contrast, brightness and clip, in this order.
 *
 * A pattern may also travel: it then repeats after `tile` features and advances by whole tiles per loop, so that it
 * closes whatever its rate. Octaves then double their frequency, so that they tile too.
 */
export function noiseField(s: NoiseSettings, clock: Clock): Field {
  const kind = noiseKind(s.kind);
  const { layers: list, tile } = layersOf(s);
  const octaves = list.length;
  const layers = list.map((l) =>
    kind.field(l.seed, s.rate, clock, {
      ...USUAL_NOISE,
      metric: s.metric ?? 'euclidean',
      jitter: s.jitter ?? 1,
      mask: l.mask,
    } satisfies NoiseOptions),
  );
  const place = placing(s, clock, tile);
  const { absolute, invert, contrast, brightness, low, high } = s;
  const first = layers[0];
  const at: [number, number, number] = [0, 0, 0];
  return (px, py, pz) => {
    place(px, py, pz, at);
    const [x, y, z] = at;
    let v: number;
    if (octaves === 1) v = first(x, y, z);
    else {
      v = 0;
      for (let o = 0; o < octaves; o++) {
        const { weight, frequency: f, offset } = list[o];
        v += weight * layers[o](x * f + offset[0], y * f + offset[1], z * f + offset[2]);
      }
    }
    if (absolute) v = Math.abs(v);
    if (invert) v = -v;
    v = v * contrast + brightness;
    return v < low ? low : v > high ? high : v;
  };
}

/** One octave of a noise. */
export interface Layer {
  readonly seed: number;
  readonly weight: number;
  /** Factor on positions, then offset. */
  readonly frequency: number;
  readonly offset: readonly [number, number, number];
  /** See NoiseOptions. */
  readonly mask: number;
}

/** The octaves of the settings, and the lattice period of their sum (0 if it need not repeat). */
export function layersOf(
  s: Pick<NoiseSettings, 'kind' | 'octaves' | 'seed' | 'gain' | 'lacunarity' | 'wraps' | 'travel' | 'tile'>,
): { layers: Layer[]; tile: number } {
  const tiles = noiseKind(s.kind).tiles ?? 1;
  const travels = tiles > 0 && (s.wraps === true || (s.travel !== undefined && s.travel.some((t) => t !== 0)));
  const octaves = Math.max(1, Math.min(8, Math.round(s.octaves)));
  const gain = s.gain ?? 0.5;
  const lacunarity = travels ? 2 : (s.lacunarity ?? 2);
  const tile = travels ? tileOf(s.tile) : 256;
  let total = 0;
  for (let o = 0; o < octaves; o++) total += gain ** o;
  const layers = Array.from({ length: octaves }, (_, o): Layer => ({
    // The first octave has the seed itself, so that seed 0 is the published pattern.
    seed: o === 0 ? s.seed : s.seed * 8 + o,
    weight: gain ** o / total,
    frequency: lacunarity ** o,
    offset: vec3((k) => o * OCTAVE_OFFSET[k]),
    mask: Math.min(256, tile * 2 ** o) - 1,
  }));
  return { layers, tile: travels ? tile * tiles : 0 };
}

/** How far a travelling pattern has moved along each of its axes, in lattice cells. */
export function travelled(s: NoiseSettings, clock: Clock, tile: number): number[] {
  return (s.travel ?? [0, 0, 0]).map((t) => (tile === 0 ? 0 : tile * phaseOf(rational(Math.round(t)), clock)));
}

/** Features after which a pattern repeats: a power of two from 2 to 256. */
export function tileOf(asked: number | undefined): number {
  return 2 ** Math.round(Math.log2(Math.max(2, Math.min(256, asked ?? 8))));
}

/** From metres to the pattern's lattice: shift, inverse rotation, scale, and travel. */
function placing(
  s: NoiseSettings,
  clock: Clock,
  tile: number,
): (x: number, y: number, z: number, to: [number, number, number]) => void {
  const [fx, fy, fz] = s.stretch.map((k) => 1 / (s.scale * k));
  const [sx, sy, sz] = s.shift ?? [0, 0, 0];
  const [gx, gy, gz] = travelled(s, clock, tile);
  const [ax, ay, az] = s.turn ?? [0, 0, 0];
  if (ax === 0 && ay === 0 && az === 0)
    return (x, y, z, to) => {
      to[0] = (x - sx) * fx - gx;
      to[1] = (y - sy) * fy - gy;
      to[2] = (z - sz) * fz - gz;
    };
  const m = matrixOf(turnXYZ([ax, ay, az]));
  return (x, y, z, to) => {
    const [u, v, w] = [x - sx, y - sy, z - sz];
    // The pattern is rotated, so positions are rotated by the inverse: the transpose.
    to[0] = (m[0] * u + m[3] * v + m[6] * w) * fx - gx;
    to[1] = (m[1] * u + m[4] * v + m[7] * w) * fy - gy;
    to[2] = (m[2] * u + m[5] * v + m[8] * w) * fz - gz;
  };
}

/**
 * From metres to the lattice of an octave: rows of a 3 × 4 matrix.
 *
 * @param tile lattice period of the sum; see layersOf
 */
export function affineOf(
  s: NoiseSettings,
  clock: Clock,
  tile: number,
  frequency = 1,
  offset: readonly [number, number, number] = [0, 0, 0],
): Float64Array {
  const m = matrixOf(turnXYZ(s.turn ?? [0, 0, 0]));
  const shift = s.shift ?? [0, 0, 0];
  const gone = travelled(s, clock, tile);
  const out = new Float64Array(12);
  for (let r = 0; r < 3; r++) {
    const f = 1 / (s.scale * s.stretch[r]);
    let away = 0;
    for (let c = 0; c < 3; c++) {
      // The pattern is rotated, so positions are rotated by the inverse: the transpose.
      out[4 * r + c] = frequency * f * m[3 * c + r];
      away += f * m[3 * c + r] * shift[c];
    }
    out[4 * r + 3] = frequency * (-away - gone[r]) + offset[r];
  }
  return out;
}
