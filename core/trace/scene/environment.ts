import { type LightAt, environmentOf, type EnvironmentAt } from '../../scene/kind';
import {
  environmentKey,
  environmentPicture,
  environmentStrength,
  type EnvironmentPicture,
} from '../../scene/environment/picture';
import type { TraceMemory } from '../memory/memory';

/** The environment map as the tracer takes it. */
export interface EnvironmentMap {
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
  /** Cumulative luminance of rows, and for each row of its pixels, 0…1. */
  readonly rows: Float32Array;
  readonly columns: Float32Array;
  /** Approximate irradiance: π times its mean luminance. */
  readonly power: number;
}

/** An environment map in memory; it comes first. */
export interface PlacedEnvironment {
  /** Identifies its contents. */
  readonly key: string;
  readonly width: number;
  readonly height: number;
  /** Addresses of its radiance (0 for none) and of its sampling tables. */
  readonly light: number;
  readonly rows: number;
  readonly columns: number;
  /** As of EnvironmentMap. */
  readonly power: number;
  /** Address behind it. */
  readonly end: number;
}

/** The environment map of a scene; null if it gives no light. */
export function environmentMapOf(lights: readonly LightAt[]): EnvironmentMap | null {
  const round = environmentOf(lights);
  const strength = round ? environmentStrength(round) : 0;
  const picture = strength > 0 ? environmentPicture(round!) : null;
  return picture && withSamplingTables(picture, strength);
}

/** Rotation of the environment, nine numbers by rows: tilt about x, then turn about y. */
export function environmentRotation(lights: readonly LightAt[]): readonly number[] {
  const { turn: about = 0, tilt: forward = 0 }: Partial<EnvironmentAt> = environmentOf(lights) ?? {};
  const turn = (about * Math.PI) / 180;
  const tilt = (forward * Math.PI) / 180;
  const [c, s, ct, st] = [Math.cos(turn), Math.sin(turn), Math.cos(tilt), Math.sin(tilt)];
  return [c, s * st, s * ct, 0, ct, -st, -s, c * st, c * ct];
}

/**
 * Puts the environment map into empty memory. A map that is there already stays: it is large, and most edits leave it
 * unchanged.
 *
 * @param there the map in this memory
 * @param other a map in the memory of another tracer that may be the same
 */
export function placeEnvironment(
  memory: TraceMemory,
  lights: readonly LightAt[],
  there?: PlacedEnvironment,
  other?: { readonly memory: TraceMemory; readonly sky: PlacedEnvironment },
): PlacedEnvironment {
  const round = environmentOf(lights);
  const key = round ? `${environmentStrength(round)}/${environmentKey(round)}` : '';
  if (there?.key === key) {
    memory.release(there.end);
    return there;
  }
  const sky = other?.sky.key === key ? copied(other.memory, other.sky) : environmentMapOf(lights);
  if (!sky) return { key, width: 0, height: 0, light: 0, rows: 0, columns: 0, power: 0, end: memory.mark };
  const { width, height, power } = sky;
  const [light, rows, columns] = [sky.light, sky.rows, sky.columns].map((x) => memory.put(x));
  return { key, width, height, light, rows, columns, power, end: memory.mark };
}

/** Views of a map in memory, valid until something else is laid out there. */
function copied(
  memory: TraceMemory,
  { width, height, light, rows, columns, power }: PlacedEnvironment,
): EnvironmentMap | null {
  if (!light) return null;
  return {
    width,
    height,
    light: memory.floats(light, 3 * width * height),
    rows: memory.floats(rows, height),
    columns: memory.floats(columns, width * height),
    power,
  };
}

function withSamplingTables({ width, height, values }: EnvironmentPicture, strength: number): EnvironmentMap {
  const light = values.map((x) => x * strength);
  const rows = new Float32Array(height);
  const columns = new Float32Array(width * height);
  let all = 0;
  let flats = 0;
  const ofRow = new Float64Array(height);
  for (let y = 0; y < height; y++) {
    // Rows near the poles cover a smaller solid angle.
    const flat = Math.cos(((y + 0.5) / height - 0.5) * Math.PI);
    let sum = 0;
    const ofPixel = new Float64Array(width);
    for (let x = 0; x < width; x++) {
      const o = 3 * (y * width + x);
      sum += 0.2126 * light[o] + 0.7152 * light[o + 1] + 0.0722 * light[o + 2];
      ofPixel[x] = sum;
    }
    for (let x = 0; x < width; x++) columns[y * width + x] = sum > 0 ? ofPixel[x] / sum : (x + 1) / width;
    all += sum * flat;
    flats += width * flat;
    ofRow[y] = all;
  }
  for (let y = 0; y < height; y++) rows[y] = all > 0 ? ofRow[y] / all : (y + 1) / height;
  return { width, height, light, rows, columns, power: (Math.PI * all) / flats };
}
