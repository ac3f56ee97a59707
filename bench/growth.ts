import { withCopies } from '@maypole/core/copies/copies';
import { randomSource } from '@maypole/core/maths/random';
import type { LightAt } from '@maypole/core/scene/kind';
import type { Mesh } from '@maypole/core/shape/mesh';
import { ball, pictureOf, settings, square, white } from '@maypole/core/trace/fixture';
import { bouncesOf, Tracer, type TraceSettings } from '@maypole/core/trace/paths/tracer';
import { alone, type Row } from './table';

/** Rounds of which the best counts. */
const ROUNDS = 3;

interface Try {
  readonly mesh: Mesh;
  readonly lights: readonly LightAt[];
  readonly samples: number;
  readonly settings: TraceSettings;
  /** Within a large ball, that no light leaves. */
  readonly closed?: boolean;
}

/** A ball before a wall, in a white room, under a lamp. */
const PLAIN: Try = {
  mesh: ball(0.6, 112),
  lights: [white, lamp(0)],
  samples: 16,
  settings: { ...settings, width: 128, height: 128, bounces: bouncesOf(4) },
};

/** How the time of a picture in true light grows with each thing that makes it large, the others staying as they are; one core. */
export function growth(): Promise<Row[]> {
  const rows: Row[] = [];
  const row = (name: string, change: Partial<Try>) => rows.push(...timed(name, { ...PLAIN, ...change }));
  for (const rings of [14, 28, 56, 112, 224, 448])
    row(`${4 * rings * (rings - 1)} triangles`, { mesh: ball(0.6, rings) });
  for (const count of [1, 10, 100, 1000, 10_000, 100_000])
    row(`${count} copies of 312 triangles`, { mesh: copies(count) });
  for (const count of [1, 2, 4, 8, 16, 32])
    row(`${count} lamps`, { lights: [white, ...Array.from({ length: count }, (_, i) => lamp(i))] });
  for (const samples of [4, 16, 64]) row(`${samples} samples`, { samples });
  for (const bounces of [0, 1, 2, 4, 8, 16])
    row(`${bounces} bounces, in a closed room`, {
      closed: true,
      settings: { ...PLAIN.settings, bounces: bouncesOf(bounces) },
    });
  for (const size of [64, 128, 256, 512])
    row(`${size} × ${size} pixels`, { settings: { ...PLAIN.settings, width: size, height: size } });
  return Promise.resolve(rows);
}

function timed(name: string, { mesh, lights, samples, settings, closed }: Try): Row[] {
  const matt = { roughness: 1, specular: 0 };
  const shapes = [{ mesh }, { mesh: square(3, -1), surface: matt }, { mesh: ball(6, 16), surface: matt }];
  const picture = pictureOf(closed ? shapes : shapes.slice(0, 2), lights, { focalLength: 70 });
  let [laid, traced] = [Infinity, Infinity];
  for (let i = 0; i < ROUNDS; i++) {
    const tracer = new Tracer();
    const begun = performance.now();
    tracer.load(picture, settings);
    const there = performance.now();
    tracer.samples({ x: 0, y: 0, width: settings.width, height: settings.height }, 0, samples);
    laid = Math.min(laid, there - begun);
    traced = Math.min(traced, performance.now() - there);
  }
  return [alone(`${name}: laid out`, laid), alone(`${name}: ${samples} samples a pixel`, traced)];
}

function lamp(i: number): LightAt {
  return { type: 'ball', intensity: 4, at: [1.5, 1 + 0.2 * i, 1.5], radius: 0.05, colour: [1, 1, 1], shadow: true };
}

/** Small balls in a cube as large as the one ball: the more, the smaller. */
function copies(count: number): Mesh {
  const random = randomSource(8);
  const size = 0.6 / Math.cbrt(count);
  const matrices = new Float32Array(16 * count);
  for (let i = 0; i < matrices.length; i += 16) {
    const at = [random(), random(), random()].map((x) => 1.2 * x - 0.6);
    matrices.set([size, 0, 0, 0, 0, size, 0, 0, 0, 0, size, 0, ...at, 1], i);
  }
  return withCopies({
    sources: [ball(1, 13)],
    source: new Uint16Array(count),
    matrices,
    order: Float32Array.from({ length: count }, (_, i) => i),
    places: count,
  });
}
