import path from 'node:path';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import type { Surface } from '@maypole/core/finish/surface';
import { displayToLight, hexToLight } from '@maypole/core/maths/srgb';
import { drawBuffers, drawTopologyOf } from '@maypole/core/shape/drawable';
import type { Mesh } from '@maypole/core/shape/mesh';
import { frameRate } from '@maypole/core/time/loop';
import { brought, placedIn, ShapeTrouble, tracksOf, type Track } from '../shapes/moving';
import { short, TextFile } from '../shapes/text-file';
import { nearTo, placingOf } from '../shapes/turn';
import type { Exporter, ExportJob } from './exporter';

const MOST_BYTES = 4e9;

/**
 * OpenUSD as text: a mesh with points per frame for constant topology, a PointInstancer for copies, meshes with
 * time-sampled topology for the rest.
 */
export const usd: Exporter = async (making) => {
  const name = `${making.base}.usda`;
  const file = new TextFile(path.join(making.folder, name));
  try {
    await new Usd(making, file).write();
    return [name];
  } finally {
    file.close();
  }
};

const names = (numbers: ArrayLike<number>) => `[${Array.from(numbers).join(', ')}]`;

function triples(p: ArrayLike<number>, parts = 3): string {
  const out: string[] = [];
  for (let i = 0; i < p.length; i += parts) {
    const one: string[] = [];
    for (let k = 0; k < parts; k++) one.push(short(p[i + k]));
    out.push(`(${one.join(', ')})`);
  }
  return `[${out.join(', ')}]`;
}

class Usd {
  private readonly taken = new Set<string>();

  constructor(
    private readonly making: ExportJob,
    private readonly file: TextFile,
  ) {}

  async write(): Promise<void> {
    const { piece, frames, signal, onShare } = this.making;
    const { num, den } = frameRate(piece.loop.fps);
    const fps = num / den;
    const title = JSON.stringify(piece.name);
    this.file.write(
      `#usda 1.0\n(\n    defaultPrim = "Loop"\n    doc = ${title}\n    startTimeCode = ${frames[0]}\n    ` +
        `endTimeCode = ${frames[frames.length - 1]}\n    timeCodesPerSecond = ${fps}\n    framesPerSecond = ` +
        `${fps}\n    metersPerUnit = 1\n    upAxis = "Y"\n)\n\ndef Xform "Loop"\n{\n`,
    );
    const tracks = await tracksOf(piece, frames, new MeshCache(), signal);
    for (const [i, track] of tracks.entries()) {
      await this.track(track);
      onShare?.((i + 1) / tracks.length);
    }
    this.file.write('}\n');
  }

  /** A valid prim name, unique among its siblings. */
  private name(text: string): string {
    const plain =
      text
        .normalize('NFKD')
        .replace(/[^A-Za-z0-9_]+/g, '_')
        .replace(/^(\d)/, '_$1') || 'Ribbon';
    let [name, n] = [plain, 1];
    while (this.taken.has(name)) name = `${plain}_${++n}`;
    this.taken.add(name);
    return name;
  }

  private async turn(): Promise<void> {
    await new Promise((resolve) => setImmediate(resolve));
    this.making.signal?.throwIfAborted();
    if (this.file.bytes > MOST_BYTES)
      throw new ShapeTrouble(
        `The OpenUSD file would be larger than ${MOST_BYTES / 1e9} GB as text; deliver fewer frames, or glTF or PLY, which are binary.`,
      );
  }

  private material(name: string, s: Surface, under: string): string {
    const [r, g, b] = hexToLight(s.baseColor).map(short);
    const emitted = hexToLight(s.emissiveTinted ? s.baseColor : s.emissiveColor).map((c) =>
      short(c * s.emissiveStrength),
    );
    this.file.write(
      `        def Material "${name}"\n        {\n            token outputs:surface.connect = ` +
        `<${under}/${name}/Surface.outputs:surface>\n            def Shader "Surface"\n            {\n           ` +
        `     uniform token info:id = "UsdPreviewSurface"\n                color3f inputs:diffuseColor = (${r}, ` +
        `${g}, ${b})\n                color3f inputs:emissiveColor = (${emitted.join(', ')})\n                ` +
        `float inputs:metallic = ${short(s.metalness)}\n                float inputs:roughness = ` +
        `${short(s.roughness)}\n                float inputs:ior = ${short(s.ior)}\n                float ` +
        `inputs:clearcoat = ${short(s.clearcoat)}\n                float inputs:clearcoatRoughness = ` +
        `${short(s.clearcoatRoughness)}\n                float inputs:opacity = ` +
        `${short(s.alpha * (1 - s.transmission))}\n                token outputs:surface\n            }\n        ` +
        '}\n',
    );
    return `${under}/${name}`;
  }

  private async track(track: Track): Promise<void> {
    const name = this.name(track.name);
    const under = `/Loop/${name}`;
    this.file.write(`    def Scope "${name}"\n    {\n`);
    const finishes = new Finishes(track, (slot, called) => this.material(called, track.surface(slot), under));
    if (track.kind === 'copies') await this.copies(track, under, finishes);
    else await this.mesh('Shape', (f) => whole(track.at(f)), finishes, track.kind === 'changing', '        ');
    this.file.write('    }\n');
  }

  /** A value at every frame; once if it is constant. */
  private async samples(
    indent: string,
    declared: string,
    at: (frame: number) => string,
    interpolation?: string,
  ): Promise<void> {
    const { frames } = this.making;
    const first = at(frames[0]);
    const meant = interpolation ? ` (\n${indent}    interpolation = "${interpolation}"\n${indent})` : '';
    let moves = false;
    for (const frame of frames.slice(1)) {
      if (moves) break;
      await this.turn();
      moves = at(frame) !== first;
    }
    if (!moves) return this.file.write(`${indent}${declared} = ${first}${meant}\n`);
    if (meant) this.file.write(`${indent}${declared}${meant}\n`);
    this.file.write(`${indent}${declared}.timeSamples = {\n`);
    for (const frame of frames) {
      await this.turn();
      this.file.write(`${indent}    ${frame}: ${at(frame)},\n`);
    }
    this.file.write(`${indent}}\n`);
  }

  private async mesh(
    name: string,
    at: (frame: number) => Mesh,
    finishes: Finishes,
    changes: boolean,
    indent: string,
  ): Promise<void> {
    const inner = `${indent}    `;
    const first = at(this.making.frames[0]);
    const curves = first.connectivity.corners.length === 0;
    this.file.write(
      `${indent}def ${curves ? 'BasisCurves' : 'Mesh'} "${name}" (\n${inner}prepend apiSchemas = ` +
        `["MaterialBindingAPI"]\n${indent})\n${indent}{\n`,
    );
    this.file.write(`${inner}rel material:binding = <${finishes.of(0)}>\n`);
    await this.samples(inner, 'float3[] extent', (f) => triples(boundsOf(at(f).positions)));
    this.file.write(
      `${inner}color3f[] primvars:displayColor = [${finishes.colour}] (\n${inner}    interpolation = "constant"\n${inner})\n`,
    );
    if (curves) {
      this.file.write(`${inner}uniform token type = "linear"\n`);
      const lines = (f: number) => drawTopologyOf(at(f).connectivity).lines;
      await this.samples(inner, 'int[] curveVertexCounts', (f) => names(new Array(lines(f).length / 2).fill(2)));
      await this.samples(inner, 'point3f[] points', (f) => {
        const p = at(f).positions;
        const { source } = drawTopologyOf(at(f).connectivity);
        return triples(Array.from(lines(f)).flatMap((v) => [0, 1, 2].map((k) => p[3 * source[v] + k])));
      });
      this.file.write(`${inner}float[] widths = [0.004] (\n${inner}    interpolation = "constant"\n${inner})\n`);
    } else {
      this.file.write(`${inner}uniform token subdivisionScheme = "none"\n${inner}uniform bool doubleSided = 1\n`);
      const counts = (f: number) => {
        const { faceStart } = at(f).connectivity;
        return names(Array.from(faceStart.subarray(1), (end, i) => end - faceStart[i]));
      };
      const corners = (f: number) => names(at(f).connectivity.corners);
      if (changes) {
        await this.samples(inner, 'int[] faceVertexCounts', counts);
        await this.samples(inner, 'int[] faceVertexIndices', corners);
      } else {
        this.file.write(`${inner}int[] faceVertexCounts = ${counts(this.making.frames[0])}\n`);
        this.file.write(`${inner}int[] faceVertexIndices = ${corners(this.making.frames[0])}\n`);
      }
      await this.samples(inner, 'point3f[] points', (f) => triples(at(f).positions));
      await this.samples(inner, 'normal3f[] normals', (f) => triples(normalsOf(at(f))), 'faceVarying');
      await this.subsets(at, finishes, changes, inner);
    }
    this.file.write(`${indent}}\n`);
  }

  /** Faces with their own material. */
  private async subsets(
    at: (frame: number) => Mesh,
    finishes: Finishes,
    changes: boolean,
    indent: string,
  ): Promise<void> {
    const used = new Set<number>();
    for (const f of changes ? this.making.frames : [this.making.frames[0]])
      for (const slot of at(f).connectivity.slots ?? []) used.add(slot);
    used.delete(0);
    if (used.size === 0) return;
    this.file.write(`${indent}uniform token subsetFamily:materialBind:familyType = "nonOverlapping"\n`);
    for (const slot of [...used].sort((a, b) => a - b)) {
      const inner = `${indent}    `;
      this.file.write(
        `${indent}def GeomSubset "${calledBy(slot)}" (\n${inner}prepend apiSchemas = ["MaterialBindingAPI"]\n${indent})\n` +
          `${indent}{\n${inner}uniform token elementType = "face"\n${inner}uniform token familyName = "materialBind"\n` +
          `${inner}rel material:binding = <${finishes.of(slot)}>\n`,
      );
      const faces = (f: number) =>
        names(Array.from(at(f).connectivity.slots ?? []).flatMap((s, i) => (s === slot ? [i] : [])));
      if (changes) await this.samples(inner, 'int[] indices', faces);
      else this.file.write(`${inner}int[] indices = ${faces(this.making.frames[0])}\n`);
      this.file.write(`${indent}}\n`);
    }
  }

  private async copies(track: Track, under: string, finishes: Finishes): Promise<void> {
    const { frames } = this.making;
    const first = track.at(frames[0]).copies!;
    const list = first.sources.map((_, i) => `<${under}/Copies/Shapes/Shape_${i}>`);
    this.file.write('        def PointInstancer "Copies"\n        {\n');
    this.file.write(`            int[] protoIndices = ${names(first.source)}\n`);
    this.file.write(`            rel prototypes = [${list.join(', ')}]\n`);
    const placings = (f: number) => {
      const { matrices } = track.at(f).copies!;
      return Array.from(first.source, (_, c) => placingOf(matrices.subarray(16 * c, 16 * c + 16)));
    };
    const sides = placings(frames[0]).map((p) => p.turn);
    await this.samples('            ', 'point3f[] positions', (f) => triples(placings(f).flatMap((p) => [...p.at])));
    await this.samples('            ', 'float3[] scales', (f) => triples(placings(f).flatMap((p) => [...p.size])));
    // The real part comes first. Readers without quatf support use the coarser ones.
    const turns = (f: number) =>
      triples(
        placings(f).flatMap((p, c) => {
          const [x, y, z, w] = nearTo(p.turn, sides[c]);
          return [w, x, y, z];
        }),
        4,
      );
    await this.samples('            ', 'quatf[] orientationsf', turns);
    await this.samples('            ', 'quath[] orientations', turns);
    await this.samples('            ', 'float3[] extent', (f) => triples(boundsOfCopies(track.at(f))));
    if (first.channels?.baseColor)
      await this.samples(
        '            ',
        'color3f[] primvars:displayColor',
        (f) => triples(coloursOf(track.at(f).copies!.channels!.baseColor!, finishes.base)),
        'varying',
      );
    this.file.write('            def Scope "Shapes"\n            {\n');
    for (let s = 0; s < first.sources.length; s++)
      await this.mesh(`Shape_${s}`, (f) => track.at(f).copies!.sources[s], finishes, false, '                ');
    this.file.write('            }\n        }\n');
  }
}

/** The name of a material in the file. */
const calledBy = (slot: number) => (slot === 0 ? 'Finish' : `Finish_${slot}`);

/** The materials of a ribbon, each written once, before the prims that are bound to it. */
class Finishes {
  private readonly paths = new Map<number, string>();
  readonly colour: string;
  /** The base colour of the main material, in linear light. */
  readonly base: readonly number[];

  constructor(track: Track, write: (slot: number, called: string) => string) {
    this.base = hexToLight(track.surface(0).baseColor);
    const [r, g, b] = this.base.map(short);
    this.colour = `(${r}, ${g}, ${b})`;
    for (const slot of [0, ...track.slots]) this.paths.set(slot, write(slot, calledBy(slot)));
  }

  of(slot: number): string {
    return this.paths.get(slot) ?? this.paths.get(0)!;
  }
}

/** Colours of copies in linear light; the material's for copies without one. */
const coloursOf = (display: Float32Array, base: readonly number[]) =>
  display.map((c, i) => (Number.isNaN(c) ? base[i % 3] : displayToLight(c)));

/** Minimum and maximum x, y and z; an empty box for no points. */
function boundsOf(p: ArrayLike<number>): number[] {
  if (p.length === 0) return [0, 0, 0, 0, 0, 0];
  const out = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i++) {
    const k = i % 3;
    if (p[i] < out[k]) out[k] = p[i];
    if (p[i] > out[3 + k]) out[3 + k] = p[i];
  }
  return out;
}

/** A box around all copies: around the boxes of their sources, transformed. */
function boundsOfCopies(mesh: Mesh): number[] {
  const boxes = mesh.copies!.sources.map((s) => {
    const b = boundsOf(s.positions);
    const corners = Array.from({ length: 8 }, (_, c) => [0, 1, 2].map((k) => b[k + ((c >> k) & 1) * 3]));
    return Float32Array.from(corners.flat());
  });
  const c = mesh.copies!;
  const all: number[] = [];
  for (let i = 0; i < c.source.length; i++)
    all.push(...boundsOf(brought(boxes[c.source[i]], c.matrices.subarray(16 * i, 16 * i + 16))));
  return boundsOf(all);
}

/** The normal of every corner of every face. */
function normalsOf(mesh: Mesh): Float32Array {
  const { cornerVertex } = drawTopologyOf(mesh.connectivity);
  const { normals } = drawBuffers(mesh);
  const out = new Float32Array(3 * cornerVertex.length);
  cornerVertex.forEach((v, i) => out.set(normals.subarray(3 * v, 3 * v + 3), 3 * i));
  return out;
}

/** Everything that is placed, as one mesh. */
function whole(mesh: Mesh): Mesh {
  const placed = placedIn(mesh);
  if (placed.length === 1 && !placed[0].matrix) return mesh;
  const positions: number[] = [];
  const [starts, corners, slots, groups]: number[][] = [[0], [], [], []];
  for (const { mesh: one, matrix } of placed) {
    const first = positions.length / 3;
    for (const v of brought(one.positions, matrix)) positions.push(v);
    const { faceStart, corners: c, slots: own, shadingGroups } = one.connectivity;
    for (let f = 0; f + 1 < faceStart.length; f++) {
      for (let k = faceStart[f]; k < faceStart[f + 1]; k++) corners.push(first + c[k]);
      starts.push(corners.length);
      slots.push(own?.[f] ?? 0);
      groups.push(shadingGroups?.[f] ?? 0);
    }
  }
  return {
    connectivity: {
      vertexCount: positions.length / 3,
      faceStart: Uint32Array.from(starts),
      corners: Uint32Array.from(corners),
      slots: Uint8Array.from(slots),
      shadingGroups: Uint16Array.from(groups),
    },
    positions: Float32Array.from(positions),
  };
}
