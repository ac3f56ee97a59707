import { widened } from '../../declare/widen';
import { centresOf, knowCentres, withCopies } from '../../copies/copies';
import { kernels } from '../../kernels/kernels';
import { hasKernel, prepared } from '../../noise/sample-fast';
import type { Copies, Mesh } from '../../shape/mesh';
import { blendTable } from '../../time/colours/space';
import type { StepContext } from '../step';
import { lags } from './lagging';
import { BETWEEN, type VaryValues } from './vary-values';
import { noiseOf, weightsOf } from './vary-weights';

/** Copies per block: 256 KB of matrices, which stay in the processor's cache from change to change. */
const BLOCK = 4096;
/** Below this many copies, plain TypeScript finishes before tables would be laid out. */
const LEAST = 64;

/** Whether kernels can make the changes: no region, no delay, and only matrices or colours. */
export function inKernels(v: VaryValues): boolean {
  return (
    ['shift', 'turn', 'size', 'stretch', 'colour'].includes(v.what) &&
    v.region === 'all' &&
    !lags(v) &&
    (v.by !== 'noise' || hasKernel(noiseOf(v)))
  );
}

/** One change to the copies whose matrices, positions and weights are in the kernels' memory. */
interface Change {
  /** Writes the weights of `count` copies, from copy `first` on. */
  weigh(first: number, count: number): void;
  apply(count: number): void;
}

/**
 * Applies changes in sequence, block by block, so that matrices are read and written once however many changes there
 * are. The plain loops of `change` are the reference; matrices agree within 1e−5, relative to their size. Null if
 * kernels cannot do it.
 */
export function changedInKernels(list: readonly VaryValues[], copies: Copies, context: StepContext): Mesh | null {
  const n = copies.source.length;
  const k = n >= LEAST && list.every(inKernels) ? kernels() : null;
  if (!k) return null;
  // Weights that do not depend on positions come first, because computing them may use the kernels.
  const dealt = list.map((v) => (v.by === 'noise' || v.by === 'place' ? null : weightsOf(v, copies, context)));
  const moves = list.some((v) => v.what !== 'colour');
  const shifts = list.some((v) => v.what === 'shift');
  const { run } = k;
  k.begin();
  const m = k.room(64 * (BLOCK + 1));
  const points = k.room(12 * BLOCK);
  const weights = k.room(4 * BLOCK);
  const tint = k.room(12 * BLOCK);
  const lengths = k.room(32);
  const changes = list.map((v, i): Change => {
    const apply = applied(v);
    const clamp = (count: number) => v.clamp && run.finish(weights, count, 0, 1, 0, 0, 1);
    const known = dealt[i];
    if (known) return { weigh: (first, count) => k.write(weights, known.subarray(first, first + count)), apply };
    if (v.by === 'place') {
      const axis = ['x', 'y', 'z', 'out'].indexOf(v.axis);
      const span = v.highAt - v.lowAt || 1e-9;
      return {
        weigh: (_first, count) => {
          run.placed(points, count, axis, v.lowAt, span, weights);
          clamp(count);
        },
        apply,
      };
    }
    const noise = prepared(k, noiseOf(v), context.clock);
    return {
      weigh: (_first, count) => {
        noise(points, count, weights);
        clamp(count);
      },
      apply,
    };
  });

  function applied(v: VaryValues): (count: number) => void {
    if (v.what === 'colour') {
      const table = k!.put(blendTable(v.colourFrom, v.colourTo));
      return (count) => run.coloured(weights, count, table, tint);
    }
    const { names, width } = BETWEEN[v.what]!;
    const [[x, y, z], [u, s, t]] = names.map((name) =>
      width === 1
        ? [0, 1, 2].map(() => widened<Record<string, number>>(v)[name])
        : widened<Record<string, number[]>>(v)[name],
    );
    if (v.what === 'shift')
      return (count) => run.shifted(m, count, weights, x, y, z, u - x, s - y, t - z, v.own, points);
    if (v.what === 'turn') return (count) => run.turned(m, count, weights, x, y, z, u - x, s - y, t - z, lengths);
    return (count) => run.sized(m, count, weights, x, y, z, u - x, s - y, t - z);
  }

  const before = moves ? null : centresOf(copies);
  const matrices = moves ? new Float32Array(16 * n) : copies.matrices;
  const centres = shifts ? new Float32Array(3 * n) : null;
  const colours = list.some((v) => v.what === 'colour') ? new Float32Array(3 * n) : copies.channels?.baseColor;
  for (let first = 0; first < n; first += BLOCK) {
    const count = Math.min(BLOCK, n - first);
    if (before) k.write(points, before.subarray(3 * first, 3 * (first + count)));
    else {
      k.write(m, copies.matrices.subarray(16 * first, 16 * (first + count)));
      run.centres(m, count, points);
    }
    for (const c of changes) {
      c.weigh(first, count);
      c.apply(count);
    }
    if (moves) k.takeInto(matrices, 16 * first, m, 16 * count);
    if (centres) k.takeInto(centres, 3 * first, points, 3 * count);
    if (colours !== copies.channels?.baseColor) k.takeInto(colours!, 3 * first, tint, 3 * count);
  }
  if (moves) knowCentres(matrices, centres ?? centresOf(copies));
  return withCopies({
    ...copies,
    matrices,
    ...(colours ? { channels: { ...copies.channels, baseColor: colours } } : {}),
  });
}
