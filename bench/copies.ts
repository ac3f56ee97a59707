import FastNoiseLite from 'fastnoise-lite';
import { Euler, Matrix4, Quaternion, Vector3, Object3D } from 'three';
import { copyCount } from '@maypole/core/copies/copies';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { noiseField, type NoiseSettings } from '@maypole/core/noise/noise';
import { newRibbon, newStep, type StepDoc } from '@maypole/core/piece/piece';
import { alone, compare, type Row } from './table';

const loop = { frames: 100, fps: 25 };
const ribbon = (...steps: StepDoc[]) => ({
  ...newRibbon('geodesic', 0),
  steps: [newStep('geodesic', { frequency: 3, radius: 0.1 }), ...steps],
});
const NOISE = { scale: 1.5, rate: 0.7 };
const varied = (count: number) =>
  ribbon(
    newStep('repeat-grid', {
      columns: Math.round(Math.sqrt(count)),
      rows: Math.round(count / Math.round(Math.sqrt(count))),
      spacing: [0.3, 1, 0.3],
    }),
    newStep('vary', { what: 'shift', by: 'noise', shiftTo: [0, 1, 0], own: false, ...NOISE }),
    newStep('vary', { what: 'turn', by: 'noise', turnTo: [0, 90, 0], seed: 1, ...NOISE }),
    newStep('vary', { what: 'size', by: 'noise', sizeTo: 0.2, seed: 2, ...NOISE }),
    newStep('vary', { what: 'colour', by: 'place', axis: 'y' }),
  );

/** Frames one after the other, as a worker meets them: what stands still is known. */
function frames(r: ReturnType<typeof ribbon>): () => unknown {
  const cache = new MeshCache();
  let n = 0;
  return () => evaluateRibbon(r, loop, n++ % loop.frames, 'final', cache).mesh;
}

type Read = (x: number, y: number, z: number) => number;

/** Our own noise in plain TypeScript, moving. */
function ownNoise(frame: number): Read[] {
  const settings = (seed: number): NoiseSettings => ({
    kind: 'gradient',
    stretch: [1, 1, 1],
    octaves: 1,
    contrast: 1,
    brightness: 0,
    low: -1,
    high: 1,
    absolute: false,
    invert: false,
    seed,
    ...NOISE,
  });
  return [0, 1, 2].map((s) => noiseField(settings(s), { frame: frame % loop.frames, frames: loop.frames }));
}

/** The comparable noise of a public library, standing still. */
const publicNoise: Read[] = [0, 1, 2].map((seed) => {
  const n = new FastNoiseLite(seed);
  n.SetFrequency(1 / NOISE.scale);
  n.SetNoiseType(FastNoiseLite.NoiseType.Perlin);
  return (x, y, z) => n.GetNoise(x, y, z);
});

/** The same with objects and matrices of three.js, one after the other, and noise read place by place. */
function straightforward(count: number, noise: (frame: number) => Read[]): () => unknown {
  const side = Math.round(Math.sqrt(count));
  const object = new Object3D();
  const out = new Float32Array(16 * count);
  const colours = new Float32Array(3 * count);
  let n = 0;
  return () => {
    const [shift, turn, size] = noise(n++);
    for (let i = 0; i < count; i++) {
      const [x, z] = [0.3 * ((i % side) - side / 2), 0.3 * (Math.floor(i / side) - side / 2)];
      object.position.set(x, 0.5 + 0.5 * shift(x, 0, z), z);
      object.rotation.set(0, (Math.PI / 2) * (0.5 + 0.5 * turn(x, object.position.y, z)), 0);
      object.scale.setScalar(1 - 0.8 * (0.5 + 0.5 * size(x, object.position.y, z)));
      object.updateMatrix();
      object.matrix.toArray(out, 16 * i);
      const w = Math.max(0, Math.min(1, object.position.y));
      colours[3 * i] = w;
      colours[3 * i + 1] = 0.5;
      colours[3 * i + 2] = 1 - w;
    }
    return out;
  };
}

function median(times: number[]): number {
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
}

/** The median of some rounds, once the code is compiled and its memory is there. */
function timed(work: () => unknown, rounds: number): number {
  for (let i = 0; i < 2 * rounds; i++) work();
  return median(
    Array.from({ length: rounds }, () => {
      const from = performance.now();
      work();
      return performance.now() - from;
    }),
  );
}

export async function copies(): Promise<Row[]> {
  const rows: Row[] = [];
  rows.push(
    await compare(
      '100k copies: shift, turn and size by noise, colour; a frame',
      frames(varied(100_000)),
      'three.js Object3D, fastnoise-lite gradient',
      straightforward(100_000, () => publicNoise),
    ),
  );
  rows.push(
    await compare(
      'the same',
      frames(varied(100_000)),
      'three.js Object3D, our plain noise',
      straightforward(100_000, ownNoise),
    ),
  );
  const [m, q, p, s] = [new Matrix4(), new Quaternion(), new Vector3(1, 2, 3), new Vector3(1, 1, 1)];
  const grid = () => {
    const cache = new MeshCache();
    return evaluateRibbon(
      ribbon(newStep('repeat-rings', { shape: 'seeds', count: 100_000, gap: 0.1 })),
      loop,
      0,
      'final',
      cache,
    ).mesh;
  };
  rows.push(
    await compare('100k copies on a sunflower, from nothing', grid, 'three.js Matrix4.compose', () => {
      const out = new Float32Array(1_600_000);
      for (let i = 0; i < 100_000; i++) {
        const a = i * 2.39996;
        const r = 0.1 * Math.sqrt(i);
        p.set(r * Math.cos(a), 0, -r * Math.sin(a));
        m.compose(p, q.setFromEuler(new Euler(0, a, 0)), s).toArray(out, 16 * i);
      }
      return out;
    }),
  );
  for (const count of [1000, 10_000, 100_000, 1_000_000])
    rows.push(
      alone(`a frame of ${count.toLocaleString('en')} copies`, timed(frames(varied(count)), count > 100_000 ? 5 : 30)),
    );
  const kept = frames(varied(1_000_000))() as { copies: Parameters<typeof copyCount>[0] };
  const c = kept.copies;
  const bytes =
    c.matrices.byteLength + c.order.byteLength + c.source.byteLength + (c.channels?.baseColor?.byteLength ?? 0);
  rows.push(alone('1M copies: memory of a frame (limit 200 MB)', bytes / 1e6, 'MB'));
  const stream = ribbon(
    newStep('stream', {
      count: 100_000,
      life: 1,
      from: 'ball',
      current: 'curl',
      flow: 1,
      flowScale: 2,
      flowRate: 0.5,
      tinted: true,
    }),
  );
  const run = frames(stream);
  const from = performance.now();
  run();
  rows.push(alone('100k particles in a curl current: set-up, once', performance.now() - from));
  rows.push(alone('100k particles in a curl current: any frame after that (limit 80 ms)', timed(run, 15)));
  return rows;
}
