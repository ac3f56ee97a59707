import FastNoiseLite from 'fastnoise-lite';
import { createNoise3D, createNoise4D } from 'simplex-noise';
import { withoutKernels } from '@maypole/core/kernels/kernels';
import { sampleNoise } from '@maypole/core/noise/sample';
import { randomSource } from '@maypole/core/maths/random';
import { compare, type Row } from './table';

const POINTS = 100_000;

/** A hundred thousand evaluations of each kind, at a moment of a moving loop. */
export async function noise(): Promise<Row[]> {
  const at = Float64Array.from(
    { length: POINTS * 3 },
    (
      (random) => () =>
        random() * 64
    )(randomSource(1)),
  );
  const sweep = (f: (x: number, y: number, z: number) => number) => () => {
    let sum = 0;
    for (let i = 0; i < at.length; i += 3) sum += f(at[i], at[i + 1], at[i + 2]);
    return sum;
  };
  const clock = { frame: 17, frames: 100 };
  const points = Float32Array.from(at);
  const ours = (kind: string) => () =>
    sampleNoise(
      {
        kind,
        scale: 1,
        stretch: [1, 1, 1],
        octaves: 1,
        contrast: 1,
        brightness: 0,
        low: -5,
        high: 5,
        absolute: false,
        invert: false,
        seed: 1,
        rate: 1,
      },
      clock,
      points,
    );
  const fast = (type: string) => {
    const n = new FastNoiseLite(1);
    n.SetFrequency(1);
    n.SetNoiseType(type);
    return n;
  };
  const perlin = fast(FastNoiseLite.NoiseType.Perlin);
  const cells = fast(FastNoiseLite.NoiseType.Cellular);
  cells.SetCellularDistanceFunction(FastNoiseLite.CellularDistanceFunction.Euclidean);
  cells.SetCellularReturnType(FastNoiseLite.CellularReturnType.Distance);
  const simplex3 = createNoise3D();
  const simplex4 = createNoise4D();
  return [
    await compare(
      'gradient noise, looping, 100k points',
      ours('gradient'),
      'fastnoise-lite Perlin 3D, still',
      sweep((x, y, z) => perlin.GetNoise(x, y, z)),
    ),
    await compare('gradient noise, looping, 100k points', ours('gradient'), 'simplex-noise 3D, still', sweep(simplex3)),
    await compare(
      'gradient noise, looping, 100k points',
      ours('gradient'),
      'simplex-noise 4D, moving',
      sweep((x, y, z) => simplex4(x, y, z, 0.3)),
    ),
    await compare(
      'cellular F1, looping, 100k points',
      ours('cellular'),
      'fastnoise-lite cellular 3D, still',
      sweep((x, y, z) => cells.GetNoise(x, y, z)),
    ),
    await compare('gradient noise, looping, 100k points', ours('gradient'), 'ours in plain TypeScript', () =>
      withoutKernels(ours('gradient')),
    ),
    await compare('cellular F1, looping, 100k points', ours('cellular'), 'ours in plain TypeScript', () =>
      withoutKernels(ours('cellular')),
    ),
  ];
}
