import type { Hit } from '@maypole/core/pattern/kind';
import { patternedAt, type PatternAt } from '@maypole/core/pattern/pattern-at';
import { lightToDisplay } from '@maypole/core/maths/srgb';

/** A point of a small ball seen from the front, with everything that patterns read. */
function hitOf(u: number, v: number): Hit<number> {
  const [x, y] = [2 * u - 1, 1 - 2 * v];
  const z = Math.sqrt(Math.max(0, 2.2 - x * x - y * y));
  return {
    form: [x, y, z],
    room: [x, y, z],
    uv: [u, v],
    facing: Math.max(0, 1 - (x * x + y * y) / 2),
    depth: 4 + 4 * v,
    occlusion: v,
    copy: {
      order: (Math.floor(4 * v) * 4 + Math.floor(4 * u)) / 16,
      id: Math.floor(4 * v) * 4 + Math.floor(4 * u),
      at: [x, y, 0],
    },
  };
}

/**
 * A small picture of layers, for a swatch.
 *
 * @param base the uniform value under them, in the channel's unit, or a colour in linear light
 * @returns size × size pixels of RGBA
 */
export function samplePattern(base: readonly number[], layers: readonly PatternAt[], size: number): Uint8ClampedArray {
  const out = new Uint8ClampedArray(4 * size * size);
  const values: number[][] = [];
  for (let j = 0; j < size; j++)
    for (let i = 0; i < size; i++) values.push(patternedAt(base, layers, hitOf((i + 0.5) / size, (j + 0.5) / size)));
  const colour = base.length === 3;
  const low = colour ? 0 : Math.min(...values.map((x) => x[0]));
  const high = colour ? 1 : Math.max(...values.map((x) => x[0]));
  values.forEach((x, i) => {
    for (let k = 0; k < 3; k++)
      out[4 * i + k] =
        255 * (colour ? lightToDisplay(x[k]) : high > low ? 0.1 + (0.85 * (x[0] - low)) / (high - low) : 0.5);
    out[4 * i + 3] = 255;
  });
  return out;
}
