import FastNoiseLite from 'fastnoise-lite';
import { createNoise3D, createNoise4D } from 'simplex-noise';
import { noiseKind } from '@maypole/core/noise/kinds/index';
import { randomSource } from '@maypole/core/time/random';
import { compare, type Row } from './table';

const POINTS = 100_000;

/** A hundred thousand evaluations of each kind, at a moment of a moving loop. */
export async function noise(): Promise<Row[]> {
  const at = Float64Array.from({ length: POINTS * 3 }, ((random) => () => random() * 64)(randomSource(1)));
  const sweep = (f: (x: number, y: number, z: number) => number) => () => {
    let sum = 0;
    for (let i = 0; i < at.length; i += 3) sum += f(at[i], at[i + 1], at[i + 2]);
    return sum;
  };
  const clock = { frame: 17, frames: 100 };
  const ours = (kind: string) => noiseKind(kind).field(1, 1, clock);
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
    await compare('gradient noise, looping, 100k points', sweep(ours('gradient')), 'fastnoise-lite Perlin 3D, still', sweep((x, y, z) => perlin.GetNoise(x, y, z))),
    await compare('gradient noise, looping, 100k points', sweep(ours('gradient')), 'simplex-noise 3D, still', sweep(simplex3)),
    await compare('gradient noise, looping, 100k points', sweep(ours('gradient')), 'simplex-noise 4D, moving', sweep((x, y, z) => simplex4(x, y, z, 0.3))),
    await compare('cellular F1, looping, 100k points', sweep(ours('cellular')), 'fastnoise-lite cellular 3D, still', sweep((x, y, z) => cells.GetNoise(x, y, z))),
  ];
}
