import { kernels, type Kernels } from '../kernels/kernels';
import type { Clock } from '../time/loop';
import { gradientTable } from './gradients';
import { featurePoints } from './feature-points';
import { CELLULAR_MEAN, CELLULAR_SPREAD } from './kinds/cellular';
import { EDGES_MEAN, EDGES_SPREAD } from './kinds/cellular-edges';
import { SECOND_MEAN, SECOND_SPREAD } from './kinds/cellular-second';
import { affineOf, layersOf, type NoiseSettings } from './noise';
import { permutation } from './permutation';

/** Below this many points, plain TypeScript finishes before buffers would be copied. */
const LEAST = 64;

/** Bytes of tables that the kernels build. */
const GRADIENT_TABLES = 18_608;
const CELL_TABLES = 416_960;

const CELLS: Partial<Record<string, { order: 'first' | 'second' | 'difference'; mean: number; spread: number }>> = {
  cellular: { order: 'first', mean: CELLULAR_MEAN, spread: CELLULAR_SPREAD },
  'cellular-second': { order: 'second', mean: SECOND_MEAN.euclidean, spread: SECOND_SPREAD.euclidean },
  'cellular-edges': { order: 'difference', mean: EDGES_MEAN.euclidean, spread: EDGES_SPREAD.euclidean },
};

/**
 * Values of the commonest kinds by compiled kernels; null for others, or without kernels. Within 1e−5 of the plain
 * TypeScript reference, and deterministic.
 */
export function sampleFast(s: NoiseSettings, clock: Clock, points: Float32Array): Float32Array | null {
  const count = points.length / 3;
  const k = count >= LEAST && hasKernel(s) ? kernels() : null;
  if (!k) return null;
  k.begin();
  const noise = prepared(k, s, clock);
  const out = k.room(4 * count);
  noise(k.put(points), count, out);
  return k.take(out, count);
}

/** Whether there is a kernel for a noise. */
export function hasKernel(s: Pick<NoiseSettings, 'kind' | 'metric'>): boolean {
  return s.kind === 'gradient' || (s.kind in CELLS && (s.metric ?? 'euclidean') === 'euclidean');
}

/**
 * A noise with its tables in the kernels' memory: writes values at `count` points, f32 ×3 each, as f32 each. Valid
 * until the next call begins.
 */
export function prepared(
  k: Kernels,
  s: NoiseSettings,
  clock: Clock,
): (points: number, count: number, out: number) => void {
  const { layers, tile } = layersOf(s);
  const cells = CELLS[s.kind];
  const work = k.room(cells ? CELL_TABLES : GRADIENT_TABLES);
  const runs = layers.map((layer) => {
    const affine = k.put(affineOf(s, clock, tile, layer.frequency, layer.offset));
    const perm = k.keep(permutation(layer.seed));
    if (!cells) {
      const g = k.put(fourFold(gradientTable(layer.seed, s.rate, clock)));
      return (at: number, count: number, out: number) =>
        k.run.gradient(at, count, affine, perm, g, layer.mask, layer.weight, work, out);
    }
    const q = k.put(fourFold(featurePoints(layer.seed, s.rate, clock, s.jitter ?? 1)));
    const { order, mean, spread } = cells;
    const weight = layer.weight * spread;
    if (order === 'first')
      return (at: number, count: number, out: number) =>
        k.run.cellular(at, count, affine, perm, q, layer.mask, mean, weight, work, out);
    return (at: number, count: number, out: number) =>
      k.run.cellularSecond(at, count, affine, perm, q, layer.mask, mean, weight, work, out, order === 'difference');
  });
  const bends = (s.absolute ? 1 : 0) + (s.invert ? 2 : 0);
  return (points, count, out) => {
    k.clear(out, 4 * count);
    for (const run of runs) run(points, count, out);
    k.run.finish(out, count, bends, s.contrast, s.brightness, s.low, s.high);
  };
}

/** Triples padded with a 0, as kernels read them. */
function fourFold(triples: Float64Array): Float32Array {
  const out = new Float32Array((4 * triples.length) / 3);
  for (let i = 0, j = 0; i < triples.length; i += 3, j += 4) for (let k = 0; k < 3; k++) out[j + k] = triples[i + k];
  return out;
}
