import { describe, expect, it } from 'vitest';
import { ball, pictureOf, settings, square, white } from '../fixture';
import { Exposure } from './exposure';
import { roundsOf, tilesOf } from './tiles';
import { bouncesOf, type TraceSettings } from './tracer';
import { COUNT, FEATURES, FOUND, SUMS, VALID, type TileResult } from './tile-result';

const size: TraceSettings = { ...settings, width: 32, height: 32, bounces: bouncesOf(4) };
const tile = { x: 0, y: 0, width: 32, height: 32 };

function traced(exposure: Exposure, samples: number, paths?: number): TileResult {
  let so: TileResult | undefined;
  let before = 0;
  for (const end of roundsOf(samples)) {
    for (const part of exposure.round(tile, before, end, so, paths)) so = part;
    before = end;
  }
  return so!;
}
const count = (w: TileResult, x: number, y: number) => w.sums[SUMS * (y * 32 + x) + COUNT];
const light = (w: TileResult, x: number, y: number) => w.sums[SUMS * (y * 32 + x)] / count(w, x, y);

describe('an exposure', () => {
  it('gives pixels that are good already no more samples, and those that are not as many as there are', () => {
    // A plain wall, and a ball in front of it whose outline and soft shadow take longest.
    const picture = pictureOf(
      [
        {
          mesh: square(5, -1),
          surface: { emissiveColor: '#FFFFFF', emissiveStrength: 0.5, baseColor: '#000000', specular: 0 },
        },
        { mesh: ball(0.5), surface: { roughness: 0.6 } },
      ],
      [{ type: 'ball', intensity: 9, at: [2, 2, 2], radius: 0.5, colour: [1, 1, 1], shadow: true }],
      { focalLength: 60 },
    );
    const least = 8;
    const even = traced(new Exposure([picture], size), 128);
    const adaptive = traced(new Exposure([picture], { ...size, error: 0.02, minSamples: least }), 128);
    expect(count(adaptive, 1, 1)).toBe(least);
    let most = 0;
    for (let y = 0; y < 32; y++) for (let x = 0; x < 32; x++) most = Math.max(most, count(adaptive, x, y));
    expect(most).toBe(128);
    // What they have is what all have where they have as many.
    for (let y = 0; y < 32; y++)
      for (let x = 0; x < 32; x++)
        if (count(adaptive, x, y) === 128) expect(light(adaptive, x, y)).toBe(light(even, x, y));
    // In other parts of a round it is the same picture.
    expect(traced(new Exposure([picture], { ...size, error: 0.02, minSamples: least }), 128, 3000).sums).toEqual(
      adaptive.sums,
    );
  });
  it('is blurred by what moves: an edge that goes over a pixel is there for its share of the time', () => {
    const at = (x: number) =>
      pictureOf(
        [
          {
            mesh: moved(square(1, 0), x),
            surface: { emissiveColor: '#FFFFFF', emissiveStrength: 1, baseColor: '#000000', specular: 0 },
          },
        ],
        [],
        {
          focalLength: 24,
          parallel: 4,
        },
      );
    // Its right edge goes from −½ to ½ in eight steps, 4 metres being 32 pixels: over 8 pixels, evenly.
    const instants = Array.from({ length: 8 }, (_, i) => at(-1.5 + (i + 0.5) / 8));
    const blurred = traced(new Exposure(instants, size), 512);
    for (let x = 12; x < 20; x++) expect(light(blurred, x, 16)).toBeCloseTo(1 - (x + 0.5 - 12) / 8, 1.5);
    expect(light(blurred, 6, 16)).toBeCloseTo(1, 5);
    expect(light(blurred, 22, 16)).toBe(0);
  });
  it('tells what is seen: its colour, the way it looks, and how far it is', () => {
    const picture = pictureOf([{ mesh: square(5, 1), surface: { baseColor: '#FFFFFF' } }], [white], {
      focalLength: 200,
    });
    const { features } = traced(new Exposure([picture], size), 4);
    const o = FEATURES * (16 * 32 + 16);
    const mean = [...features.subarray(o, o + FEATURES)].map((x) => x / 4);
    expect(mean.slice(0, 6)).toEqual([1, 1, 1, 0, 0, 1]);
    expect(mean[6]).toBeCloseTo(3, 2);
    expect(mean[FOUND]).toBe(1);
    expect(mean[VALID]).toBe(1);
  });
  it('puts every tile in its own order and comes to the same picture', () => {
    const whole = tilesOf(96, 64).map(({ x, y }) => `${x},${y}`);
    expect(new Set(whole).size).toBe(whole.length);
    expect(tilesOf(96, 64, [0.9, 0.1])[0]).toMatchObject({ x: 48, y: 0 });
  });
});

function moved(mesh: ReturnType<typeof square>, x: number): ReturnType<typeof square> {
  return { ...mesh, positions: mesh.positions.map((p, i) => (i % 3 === 0 ? p + x : p)) };
}
