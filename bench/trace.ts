import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { randomSource, randomUnitVector } from '@maypole/core/maths/random';
import { drawTopologyOf } from '@maypole/core/shape/drawable';
import { ball, pictureOf, settings, white } from '@maypole/core/trace/fixture';
import { bouncesOf, Tracer } from '@maypole/core/trace/tracer';
import { alone, compare, type Row } from './table';

const RAYS = 5_000;

/** Rays from outside towards a ball, and from its inside all round, as bounced ones go. */
function raysOf(from: number): Float32Array {
  const random = randomSource(3);
  const rays = new Float32Array(6 * RAYS);
  for (let i = 0; i < RAYS; i++) {
    const place = randomUnitVector(random).map((x) => from * x);
    const aim = randomUnitVector(random).map((x) => 0.9 * x);
    rays.set([...place, ...aim.map((x, k) => x - place[k])], 6 * i);
  }
  return rays;
}

/** True light: rays, trees and whole paths. */
export async function trace(): Promise<Row[]> {
  const mesh = ball(1, 224);
  const picture = pictureOf([{ mesh }], [white], { focalLength: 40 });
  const triangles = drawTopologyOf(mesh.connectivity).triangles;
  const geometry = () => {
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(mesh.positions, 3));
    g.setIndex(new BufferAttribute(triangles.slice(), 1));
    return g;
  };
  const tracer = new Tracer();
  tracer.load(picture, settings);
  const bvh = new MeshBVH(geometry());
  const rows: Row[] = [];
  for (const [words, from] of [
    ['from outside', 4],
    ['from within', 0.5],
  ] as const) {
    const rays = raysOf(from);
    const ray = new Ray();
    const [place, way] = [new Vector3(), new Vector3()];
    rows.push(
      await compare(
        `${RAYS} first hits ${words}, ${triangles.length / 3} triangles`,
        () => tracer.trace(rays),
        'three-mesh-bvh',
        () => {
          for (let i = 0; i < RAYS; i++) {
            place.fromArray(rays, 6 * i);
            way.fromArray(rays, 6 * i + 3).normalize();
            bvh.raycastFirst(ray.set(place, way), DoubleSide);
          }
        },
      ),
    );
  }
  rows.push(
    await compare(
      'tree, with shape laid out in memory',
      () => tracer.load(picture, settings),
      'three-mesh-bvh',
      () => new MeshBVH(geometry()),
    ),
  );
  const size = { ...settings, width: 96, height: 96, bounces: bouncesOf(6) };
  tracer.load(picture, size);
  const begun = performance.now();
  tracer.samples({ x: 0, y: 0, width: 96, height: 96 }, 0, 64);
  rows.push(alone('96 × 96 pixels, 64 samples, a ball in a white room, one core', performance.now() - begun));
  return rows;
}
