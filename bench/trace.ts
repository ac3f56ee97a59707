import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { Denoiser, emptyFeatures } from '@maypole/core/develop/denoise';
import { emptyLight } from '@maypole/core/develop/light';
import { withCopies } from '@maypole/core/copies/copies';
import { meshOf } from '@maypole/core/shape/builder';
import { uniformConnectivity, type Mesh } from '@maypole/core/shape/mesh';
import { randomSource, randomUnitVector } from '@maypole/core/maths/random';
import { drawTopologyOf } from '@maypole/core/shape/drawable';
import { ball, pictureOf, settings, white } from '@maypole/core/trace/fixture';
import { traceMeshOf } from '@maypole/core/trace/scene/trace-mesh';
import { TraceMemory } from '@maypole/core/trace/memory/memory';
import { MeshStore } from '@maypole/core/trace/scene/meshes';
import { bouncesOf, Tracer } from '@maypole/core/trace/paths/tracer';
import { embree, fastest, type Embree, type RayScene } from './embree';
import { alone, compare, type Row } from './table';

const RAYS = 5_000;

/** Rays from outside towards a ball, and from its inside all round, as bounced ones go. */
function raysOf(from: number, count = RAYS): Float32Array {
  const random = randomSource(3);
  const rays = new Float32Array(6 * count);
  for (let i = 0; i < count; i++) {
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
      () => built(tracer, picture),
      'three-mesh-bvh',
      () => new MeshBVH(geometry()),
    ),
  );
  const size = { ...settings, width: 96, height: 96, bounces: bouncesOf(6) };
  tracer.load(picture, size);
  const begun = performance.now();
  tracer.samples({ x: 0, y: 0, width: 96, height: 96 }, 0, 64);
  rows.push(alone('96 × 96 pixels, 64 samples, a ball in a white room, one core', performance.now() - begun));
  rows.push(box(), ...againstEmbree(), denoising());
  return rows;
}

/** The room of the literature, open to the front: a red and a blue wall, a ball, a lamp in the ceiling. */
function box(): Row {
  const [matt, grey] = [{ roughness: 1, specular: 0 }, '#BBBBBB'];
  const wall = (corner: readonly number[], a: readonly number[], b: readonly number[], baseColor: string) => ({
    mesh: meshOf(
      uniformConnectivity(4, 4, Uint32Array.of(0, 1, 2, 3)),
      Float32Array.from(
        [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1],
        ].flatMap(([s, t]) => corner.map((c, k) => c + s * a[k] + t * b[k])),
      ),
    ),
    surface: { ...matt, baseColor },
  });
  const [x, y, z] = [
    [2, 0, 0],
    [0, 2, 0],
    [0, 0, 2],
  ];
  const shapes = [
    wall([-1, -1, -1], z, x, grey),
    wall([-1, 1, -1], x, z, grey),
    wall([-1, -1, -1], x, y, grey),
    wall([-1, -1, -1], y, z, '#BB2222'),
    wall([1, -1, -1], z, y, '#2222BB'),
    { mesh: ball(0.5, 32), surface: { ...matt, baseColor: grey } },
  ];
  const lamp = {
    type: 'area',
    at: [0, 0.98, 0],
    target: [0, -1, 0],
    width: 0.5,
    height: 0.5,
    turn: 0,
    radiance: 12,
    seen: true,
    colour: [1, 1, 1],
    shadow: true,
  } as const;
  const tracer = new Tracer();
  const size = { ...settings, width: 128, height: 128, bounces: bouncesOf(6) };
  tracer.load(pictureOf(shapes, [lamp], { position: [0, 0, 5], focalLength: 60 }), size);
  const begun = performance.now();
  tracer.samples({ x: 0, y: 0, width: 128, height: 128 }, 0, 64);
  return alone(
    '128 × 128 pixels, 64 samples, a room with a ball and a lamp, 6 bounces, one core',
    performance.now() - begun,
  );
}

/** The best of some runs, in milliseconds. */
function best(work: () => void, runs = 7): number {
  let least = Infinity;
  for (let i = 0; i < runs; i++) {
    const begun = performance.now();
    work();
    least = Math.min(least, performance.now() - begun);
  }
  return least;
}

/** Turns of ours and of Embree, of which the best counts. */
const TURNS = 3;

/** Rays through large shapes and through many copies of a small one, against Embree: the best of both. */
function againstEmbree(): Row[] {
  const count = 200_000;
  const rows: Row[] = [];
  const row = (name: string, ours: number, peer: number) =>
    rows.push({ name, ours, peer, peerName: 'Embree 3', unit: 'ms', ratio: ours / peer });
  const copies = new Float32Array(16 * 100_000);
  const random = randomSource(8);
  for (let i = 0; i < copies.length; i += 16) {
    const at = [random(), random(), random()].map((x) => 40 * x - 20);
    copies.set([0.15, 0, 0, 0, 0, 0.15, 0, 0, 0, 0, 0.15, 0, ...at, 1], i);
  }
  const scenes = [
    { words: '200k triangles', mesh: ball(1, 224), matrices: new Float32Array(0), from: [4, 0.5] },
    { words: '1.3M triangles', mesh: ball(1, 570), matrices: new Float32Array(0), from: [4, 0.5] },
    { words: '100k copies of 320 triangles', mesh: ball(1, 9), matrices: copies, from: [30] },
  ];
  for (const { words, mesh, matrices, from } of scenes) {
    const many = matrices.length > 0;
    const shape = many ? copiesOf(mesh, matrices) : mesh;
    const picture = pictureOf([{ mesh: shape }], []);
    const tracer = new Tracer();
    for (const distance of from) {
      const rays = raysOf(distance, count);
      const scene: RayScene = {
        points: mesh.positions,
        corners: drawTopologyOf(mesh.connectivity).triangles.slice(),
        matrices: byRows(matrices),
        rays,
      };
      tracer.load(picture, settings);
      const found = tracer.trace(rays);
      const hits = found.far.reduce((n, far) => n + (far >= 0 ? 1 : 0), 0);
      const where = many ? '' : distance > 1 ? ', from outside' : ', from within';
      const single = !many && distance > 1;
      const took = [Infinity, Infinity, Infinity, Infinity];
      let peer: Embree | null = null;
      // In turns: on a busy machine both meet the same weather.
      for (let i = 0; i < TURNS; i++) {
        const one = embree(scene);
        if (!one) return rows;
        peer = peer ? fastest(one, peer) : one;
        const times = [best(() => tracer.trace(rays)), best(() => tracer.trace(rays, true))];
        if (single)
          times.push(
            best(() => built(tracer, picture), 3),
            refitting(mesh),
          );
        times.forEach((time, k) => (took[k] = Math.min(took[k], time)));
      }
      if (!peer) return rows;
      // Edges may be met by one and missed by the other.
      if (Math.abs(hits - peer.hits) > 1e-4 * count)
        throw new Error(`${words}: ${hits} hits, Embree has ${peer.hits}.`);
      const [first, any, tree, refit] = took;
      row(`${count} first hits, ${words}${where} (${hits} met; Embree ${peer.hits})`, first, peer.first);
      row(`${count} shadow rays, ${words}${where}`, any, peer.any);
      if (!single) continue;
      row(`tree of ${words}, with all a shape needs`, tree, peer.build);
      row(`refit of the tree of ${words}`, refit, peer.refit);
    }
  }
  return rows;
}

/** The upper three rows of matrices by columns. */
function byRows(matrices: Float32Array): Float32Array {
  const out = new Float32Array((matrices.length / 16) * 12);
  for (let i = 0; i < matrices.length / 16; i++)
    for (let r = 0; r < 3; r++) for (let k = 0; k < 4; k++) out[12 * i + 4 * r + k] = matrices[16 * i + 4 * k + r];
  return out;
}

/** Lays a picture out with all its trees: none is left of the one before. */
function built(tracer: Tracer, picture: Parameters<Tracer['load']>[0]): void {
  tracer.load(pictureOf([], []), settings);
  tracer.load(picture, settings);
}

/** The time in which the tree of a shape is refitted to where its corners are now. */
function refitting(mesh: Mesh): number {
  const [memory, drawn] = [new TraceMemory(), traceMeshOf(mesh, false)];
  const room = new MeshStore(memory, [drawn], 1);
  const { firstNode, endNode } = room.place(drawn).span!;
  const then = memory.put(leaning(mesh).positions);
  const corners = memory.put(drawn.triangles);
  const [whole, space] = [memory.allocate(32), memory.allocate(32 * (endNode - firstNode))];
  return best(
    () => void memory.run.refitTree(room.nodeBase, firstNode, endNode, room.packetBase, then, corners, 0, whole, space),
  );
}

/** The same triangles, each corner moved to the side by its height. */
function leaning(mesh: Mesh): Mesh {
  return { ...mesh, positions: mesh.positions.map((x, i) => (i % 3 === 0 ? x + 0.1 * mesh.positions[i + 1] : x)) };
}

function copiesOf(mesh: Mesh, matrices: Float32Array): Mesh {
  const n = matrices.length / 16;
  return withCopies({
    sources: [mesh],
    source: new Uint16Array(n),
    matrices,
    order: Float32Array.from({ length: n }, (_, i) => i),
    places: n,
  });
}

/** The time in which the grain of a million pixels is taken out. */
function denoising(): Row {
  const [light, guides] = [emptyLight(1000, 1000), emptyFeatures(1000, 1000, 1)];
  const random = randomSource(4);
  light.values.forEach((_, i) => (light.values[i] = random()));
  guides.features.fill(0.7);
  guides.variance.fill(0.01);
  const denoiser = new Denoiser();
  return alone(
    'grain of a million pixels taken out',
    best(() => denoiser.denoised(light, guides), 4),
  );
}
