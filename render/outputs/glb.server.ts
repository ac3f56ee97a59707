import path from 'node:path';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { gltfMaterial } from '@maypole/core/files/gltf-material';
import type { Surface } from '@maypole/core/finish/surface';
import { drawBuffers, drawTopologyOf } from '@maypole/core/shape/drawable';
import type { Mesh } from '@maypole/core/shape/mesh';
import { frameRate } from '@maypole/core/time/loop';
import { ARRAY, ELEMENTS, GlbFile, MOST_GLB } from '../shapes/glb-file';
import { brought, placedIn, ShapeTrouble, tracksOf, type Track } from '../shapes/moving';
import { nearTo, placingOf } from '../shapes/turn';
import type { Exporter, ExportJob } from './exporter';

/** Most frames that have a shape of their own in the file. */
const MOST_SHAPES = 1000;
/** Most bytes of a file, within what glTF can count. */
const MOST_BYTES = Math.min(MOST_GLB, 2e9);

/**
 * glTF 2.0 (Khronos Group): a shape of constant topology as one mesh with a morph target per frame; copies as animated
 * nodes; a shape of changing topology as one node per frame, of which one has a scale other than 0. One loop, with the
 * first frame again at the end.
 */
export const glb: Exporter = async (making) => {
  const name = `${making.base}.glb`;
  const file = new GlbFile(path.join(making.folder, name));
  try {
    await new Glb(making, file).write();
    return [name];
  } finally {
    file.close();
  }
};

interface Shape {
  readonly mesh: number;
  /** Whether it has morph targets. */
  readonly moves: boolean;
}

class Glb {
  private readonly frames: readonly number[];
  /** Frames with keys: those of the loop, and the first again if the whole loop is there. */
  private readonly keys: readonly number[];
  private readonly times: number;
  private readonly used = new Set<string>();
  private readonly materials = new Map<string, number>();
  private readonly roots: number[] = [];
  private readonly samplers: object[] = [];
  private readonly channels: object[] = [];

  constructor(
    private readonly making: ExportJob,
    private readonly file: GlbFile,
  ) {
    const { frames, piece } = making;
    this.frames = frames;
    // Frame N is frame 0: it ends the last interval.
    const whole = frames.length === piece.loop.frames;
    this.keys = whole && frames.length > 1 ? [...frames, frames[0]] : frames;
    const { num, den } = frameRate(piece.loop.fps);
    this.times = file.accessor(
      Float32Array.from(this.keys, (_, i) => (i * den) / num),
      1,
      { bounds: true },
    );
  }

  async write(): Promise<void> {
    const { piece, signal, onShare } = this.making;
    const tracks = await tracksOf(piece, this.frames, new MeshCache(), signal);
    for (const [i, track] of tracks.entries()) {
      if (track.kind === 'shape') await this.one(track);
      else if (track.kind === 'copies') await this.copies(track);
      else await this.changing(track);
      onShare?.((i + 1) / tracks.length);
    }
    const scene = this.file.add('scenes', { name: piece.name, nodes: this.roots });
    if (this.channels.length > 0)
      this.file.add('animations', { name: 'Loop', samplers: this.samplers, channels: this.channels });
    this.file.finish({
      asset: { version: '2.0', generator: 'Maypole' },
      scene,
      ...(this.used.size > 0 ? { extensionsUsed: [...this.used] } : {}),
    });
  }

  private async turn(): Promise<void> {
    await new Promise((resolve) => setImmediate(resolve));
    this.making.signal?.throwIfAborted();
    if (this.file.bytes > MOST_BYTES)
      throw new ShapeTrouble(
        `The glTF file would be larger than ${MOST_BYTES / 1e9} GB; deliver fewer frames, fewer faces, or PLY shapes.`,
      );
  }

  private material(name: string, surface: Surface): number {
    const key = JSON.stringify([name, surface]);
    const known = this.materials.get(key);
    if (known !== undefined) return known;
    const { material, extensions } = gltfMaterial(name, surface);
    for (const e of extensions) this.used.add(e);
    const at = this.file.add('materials', material);
    this.materials.set(key, at);
    return at;
  }

  /** A mesh with morph targets for further frames, each as its difference from the first. */
  private async shape(track: Track, first: Mesh, at: (frame: number) => Mesh): Promise<Shape | null> {
    const { positions, normals } = drawBuffers(first);
    const topology = drawTopologyOf(first.connectivity);
    if (topology.triangles.length === 0 && topology.lines.length === 0) return null;
    const attributes = {
      POSITION: this.file.accessor(positions, 3, { target: ARRAY, bounds: true }),
      ...(topology.triangles.length > 0 ? { NORMAL: this.file.accessor(normals, 3, { target: ARRAY }) } : {}),
    };
    const targets: object[] = [];
    const moves = this.frames.length > 1 && (await this.anyMoves(first, at));
    if (moves) {
      if (this.frames.length > MOST_SHAPES)
        throw new ShapeTrouble(
          `${track.name} has a shape of its own in each of ${this.frames.length} frames, and a glTF file holds ` +
            `${MOST_SHAPES}; deliver a part of the loop, or PLY shapes.`,
        );
      for (const frame of this.frames.slice(1)) {
        await this.turn();
        const then = drawBuffers(at(frame));
        const less = (a: Float32Array, b: Float32Array) => a.map((v, i) => v - b[i]);
        targets.push({
          POSITION: this.file.accessor(less(then.positions, positions), 3, { target: ARRAY, bounds: true }),
          ...(attributes.NORMAL === undefined
            ? {}
            : { NORMAL: this.file.accessor(less(then.normals, normals), 3, { target: ARRAY }) }),
        });
      }
    }
    const more = targets.length > 0 ? { targets } : {};
    const primitives: object[] = topology.groups.map(({ slot, start, count }) => ({
      attributes,
      indices: this.file.accessor(topology.triangles.slice(start, start + count), 1, { target: ELEMENTS }),
      material: this.material(track.name, track.surface(slot)),
      ...more,
    }));
    if (primitives.length === 0 || topology.lines.length > 0)
      primitives.push({
        attributes,
        mode: 1,
        indices: this.file.accessor(topology.lines, 1, { target: ELEMENTS }),
        material: this.material(track.name, track.surface(0)),
        ...more,
      });
    const weights = targets.length > 0 ? { weights: targets.map(() => 0) } : {};
    return { mesh: this.file.add('meshes', { name: track.name, primitives, ...weights }), moves };
  }

  private async anyMoves(first: Mesh, at: (frame: number) => Mesh): Promise<boolean> {
    for (const frame of this.frames.slice(1)) {
      await this.turn();
      const { positions } = at(frame);
      if (positions === first.positions) continue;
      for (let i = 0; i < positions.length; i++) if (positions[i] !== first.positions[i]) return true;
    }
    return false;
  }

  /** Weight of each morph target at each key: 1 at its own; between keys, linear. */
  private weights(): number {
    const shapes = this.frames.length - 1;
    const values = new Float32Array(this.keys.length * shapes);
    this.keys.forEach((frame, k) => {
      const own = this.frames.indexOf(frame) - 1;
      if (own >= 0) values[k * shapes + own] = 1;
    });
    return this.file.accessor(values, 1);
  }

  private weightsAccessor: number | undefined;

  private move(node: number, path: string, output: number, interpolation = 'LINEAR'): void {
    const sampler = this.samplers.push({ input: this.times, output, interpolation }) - 1;
    this.channels.push({ sampler, target: { node, path } });
  }

  private node(item: object, root = true): number {
    const node = this.file.add('nodes', item);
    if (root) this.roots.push(node);
    return node;
  }

  private async one(track: Track): Promise<void> {
    const shape = await this.shape(track, track.at(this.frames[0]), track.at);
    if (!shape) return;
    const node = this.node({ name: track.name, mesh: shape.mesh });
    if (shape.moves) this.move(node, 'weights', (this.weightsAccessor ??= this.weights()));
  }

  private async copies(track: Track): Promise<void> {
    const start = track.at(this.frames[0]).copies!;
    const shapes: (Shape | null)[] = [];
    for (let s = 0; s < start.sources.length; s++)
      shapes.push(await this.shape(track, start.sources[s], (frame) => track.at(frame).copies!.sources[s]));
    const count = start.source.length;
    const keys = this.keys.length;
    const places = new Float32Array(3 * keys * count);
    const turns = new Float32Array(4 * keys * count);
    const sizes = new Float32Array(3 * keys * count);
    for (const [k, frame] of this.keys.entries()) {
      await this.turn();
      const { matrices } = track.at(frame).copies!;
      for (let c = 0; c < count; c++) {
        const { at, turn, size } = placingOf(matrices.subarray(16 * c, 16 * c + 16));
        const key = c * keys + k;
        places.set(at, 3 * key);
        sizes.set(size, 3 * key);
        turns.set(k === 0 ? turn : nearTo(turn, turns.subarray(4 * (key - 1), 4 * key)), 4 * key);
      }
    }
    const reach = reachOf(places);
    const children: number[] = [];
    for (let c = 0; c < count; c++) {
      const shape = shapes[start.source[c]];
      if (!shape) continue;
      if (c % 500 === 0) await this.turn();
      const [p, r, s] = [
        places.slice(3 * keys * c, 3 * keys * (c + 1)),
        turns.slice(4 * keys * c, 4 * keys * (c + 1)),
        sizes.slice(3 * keys * c, 3 * keys * (c + 1)),
      ];
      const node = this.node(
        {
          name: `${track.name} ${c + 1}`,
          mesh: shape.mesh,
          translation: [...p.subarray(0, 3)],
          rotation: [...r.subarray(0, 4)],
          scale: [...s.subarray(0, 3)],
        },
        false,
      );
      children.push(node);
      // Copies that move along a list jump from its end to its start, invisibly.
      const jumps = jumpsIn(p, reach / 2) ? 'STEP' : 'LINEAR';
      if (changes(p, 3)) this.move(node, 'translation', this.file.accessor(p, 3), jumps);
      if (changes(r, 4)) this.move(node, 'rotation', this.file.accessor(r, 4), jumps);
      if (changes(s, 3)) this.move(node, 'scale', this.file.accessor(s, 3), jumps);
      if (shape.moves) this.move(node, 'weights', (this.weightsAccessor ??= this.weights()));
    }
    if (children.length > 0) this.node({ name: track.name, children });
  }

  private async changing(track: Track): Promise<void> {
    const children: number[] = [];
    const { frames } = this;
    for (const frame of frames) {
      await this.turn();
      const meshes = placedIn(track.at(frame)).map(({ mesh, matrix }) =>
        matrix ? { ...mesh, positions: brought(mesh.positions, matrix) } : mesh,
      );
      const nodes: number[] = [];
      for (const mesh of meshes) {
        const shape = await this.shape(track, mesh, () => mesh);
        if (shape) nodes.push(this.node({ mesh: shape.mesh }, false));
      }
      if (nodes.length === 0) continue;
      const node = this.node({ name: `${track.name} at ${frame}`, children: nodes }, false);
      children.push(node);
      if (frames.length === 1) continue;
      const sizes = this.keys.flatMap((k) => (k === frame ? [1, 1, 1] : [0, 0, 0]));
      this.move(node, 'scale', this.file.accessor(Float32Array.from(sizes), 3), 'STEP');
    }
    if (children.length > 0) this.node({ name: track.name, children });
  }
}

function changes(values: Float32Array, parts: number): boolean {
  for (let i = parts; i < values.length; i++) if (values[i] !== values[i % parts]) return true;
  return false;
}

/** Largest extent of positions along an axis. */
function reachOf(places: Float32Array): number {
  let reach = 0;
  for (let k = 0; k < 3; k++) {
    let [low, high] = [Infinity, -Infinity];
    for (let i = k; i < places.length; i += 3) [low, high] = [Math.min(low, places[i]), Math.max(high, places[i])];
    reach = Math.max(reach, high - low);
  }
  return reach;
}

function jumpsIn(places: Float32Array, far: number): boolean {
  if (!(far > 0)) return false;
  for (let i = 3; i < places.length; i += 3)
    if (Math.hypot(places[i] - places[i - 3], places[i + 1] - places[i - 2], places[i + 2] - places[i - 1]) > far)
      return true;
  return false;
}
