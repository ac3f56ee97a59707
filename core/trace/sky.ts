import { type LightAt, surroundOf, type SurroundAt } from '../scene/kind';
import { surroundKey, surroundPicture, surroundStrength, type RoundPicture } from '../scene/surround/picture';
import type { TraceMemory } from './memory';

/** The sky as the tracer takes it. */
export interface Sky {
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
  /** Share of the light up to and with each row; then, for each row, up to and with each pixel. */
  readonly rows: Float32Array;
  readonly columns: Float32Array;
  /** About how much light it brings to a place: π times its mean brightness. */
  readonly power: number;
}

/** A sky as it lies in memory, the first of what is there. */
export interface PlacedSky {
  /** What tells it from others. */
  readonly key: string;
  readonly width: number;
  readonly height: number;
  /** Addresses: of its light, 0 where there is none, and of the shares of it. */
  readonly light: number;
  readonly rows: number;
  readonly columns: number;
  /** As of Sky. */
  readonly power: number;
  /** Where what comes after it begins. */
  readonly end: number;
}

/** What is all round, where there is light. */
export function skyOf(lights: readonly LightAt[]): Sky | null {
  const round = surroundOf(lights);
  const strength = round ? surroundStrength(round) : 0;
  const picture = strength > 0 ? surroundPicture(round!) : null;
  return picture && tables(picture, strength);
}

/** The turn of a sky, nine numbers by rows: it leans forward about x, then turns about y. */
export function skyTurn(lights: readonly LightAt[]): readonly number[] {
  const { turn: about = 0, tilt: forward = 0 }: Partial<SurroundAt> = surroundOf(lights) ?? {};
  const turn = (about * Math.PI) / 180;
  const tilt = (forward * Math.PI) / 180;
  const [c, s, ct, st] = [Math.cos(turn), Math.sin(turn), Math.cos(tilt), Math.sin(tilt)];
  return [c, s * st, s * ct, 0, ct, -st, -s, c * st, c * ct];
}

/**
 * Puts the sky in memory that nothing else is in. One that lies there already stays: it is large, and most edits leave it
 * as it is.
 *
 * @param there what lies in this memory
 * @param other one in the memory of another tracer, which may be the same
 */
export function placeSky(
  memory: TraceMemory,
  lights: readonly LightAt[],
  there?: PlacedSky,
  other?: { readonly memory: TraceMemory; readonly sky: PlacedSky },
): PlacedSky {
  const round = surroundOf(lights);
  const key = round ? `${surroundStrength(round)}/${surroundKey(round)}` : '';
  if (there?.key === key) {
    memory.release(there.end);
    return there;
  }
  const sky = other?.sky.key === key ? copied(other.memory, other.sky) : skyOf(lights);
  if (!sky) return { key, width: 0, height: 0, light: 0, rows: 0, columns: 0, power: 0, end: memory.mark };
  const { width, height, power } = sky;
  const [light, rows, columns] = [sky.light, sky.rows, sky.columns].map((x) => memory.put(x));
  return { key, width, height, light, rows, columns, power, end: memory.mark };
}

/** A sky in memory, good until something else is laid out there. */
function copied(memory: TraceMemory, { width, height, light, rows, columns, power }: PlacedSky): Sky | null {
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

function tables({ width, height, values }: RoundPicture, strength: number): Sky {
  const light = values.map((x) => x * strength);
  const rows = new Float32Array(height);
  const columns = new Float32Array(width * height);
  let all = 0;
  let flats = 0;
  const ofRow = new Float64Array(height);
  for (let y = 0; y < height; y++) {
    // Rows near straight up and down cover less of the sky.
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
