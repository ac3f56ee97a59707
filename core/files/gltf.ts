import { determinant } from '../maths/matrix';
import { strFromU8, strToU8 } from 'fflate';
import { WebIO, type JSONDocument, type Node, type Primitive } from '@gltf-transform/core';
import type { Mesh } from '../shape/mesh';
import { welded } from '../shape/weld';
import { boundsOf } from '../shape/measure';
import { jsonTooLarge } from '../declare/json-shape';
import { Soup } from './soup';
import { checkCounts, FileTrouble } from '../assets/trouble';

type Json = Record<string, unknown>;
const COMPONENT: Record<number, number> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const PARTS: Record<string, number> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT2: 4, MAT3: 9, MAT4: 16 };

/**
 * All meshes of a glTF 2.0 file (Khronos Group), binary or JSON with embedded data, merged into one shape with their
 * node transforms applied. glTF-Transform reads it after everything that could harm a reader has been ruled out.
 *
 * @throws FileTrouble
 */
export async function readGltf(bytes: Uint8Array): Promise<Mesh> {
  const binary = bytes.length > 4 && String.fromCharCode(...bytes.subarray(0, 4)) === 'glTF';
  const { json, resources } = binary ? container(bytes) : embedded(bytes);
  check(json, resources);
  let scene;
  try {
    const gltf = await new WebIO().readJSON({ json, resources } as unknown as JSONDocument);
    scene = gltf.getRoot();
  } catch (error) {
    throw new FileTrouble(
      `The glTF file cannot be read: ${error instanceof Error ? error.message : 'its parts do not fit together'}.`,
    );
  }
  const soup = new Soup();
  const roots = scene.getDefaultScene()?.listChildren() ?? scene.listNodes().filter((n) => !n.getParentNode());
  const visit = (node: Node) => {
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) add(soup, primitive, node.getWorldMatrix());
    node.listChildren().forEach(visit);
  };
  roots.forEach(visit);
  const mesh = soup.finish();
  const bounds = boundsOf(mesh.positions)!;
  // Files for rendering duplicate vertices wherever shading or texture coordinates break.
  return welded(mesh, 1e-6 * Math.max(...bounds.max.map((x, k) => x - bounds.min[k])));
}

function add(soup: Soup, primitive: Primitive, m: readonly number[]): void {
  if (primitive.getMode() !== 4) return;
  const position = primitive.getAttribute('POSITION');
  if (!position) return;
  const places = primitive.getAttribute('TEXCOORD_0');
  const first = soup.points;
  const p = [0, 0, 0];
  for (let i = 0; i < position.getCount(); i++) {
    position.getElement(i, p);
    soup.point(
      m[0] * p[0] + m[4] * p[1] + m[8] * p[2] + m[12],
      m[1] * p[0] + m[5] * p[1] + m[9] * p[2] + m[13],
      m[2] * p[0] + m[6] * p[1] + m[10] * p[2] + m[14],
    );
  }
  const index = primitive.getIndices();
  const count = index ? index.getCount() : position.getCount();
  const at = (i: number) => (index ? index.getScalar(i) : i);
  const uv = (i: number): number[] => {
    const t = [0, 0];
    places!.getElement(i, t);
    // In glTF the second texture coordinate runs downwards.
    return [t[0], 1 - t[1]];
  };
  const mirrored = determinant(m) < 0;
  for (let i = 0; i + 2 < count; i += 3) {
    const three = mirrored ? [at(i), at(i + 2), at(i + 1)] : [at(i), at(i + 1), at(i + 2)];
    soup.face(
      three.map((v) => first + v),
      places && three.every((v) => v < places.getCount()) ? three.flatMap(uv) : undefined,
    );
  }
}

/** Every platform has `atob`, though core is typed for none of them. */
function fromBase64(text: string): Uint8Array {
  try {
    return strToU8((globalThis as { atob?(text: string): string }).atob!(text), true);
  } catch {
    throw new FileTrouble('The data inside this glTF file is not base64; it is damaged.');
  }
}

interface Parts {
  readonly json: Json;
  readonly resources: Record<string, Uint8Array>;
}

/** A JSON description beyond this is refused. */
const LARGEST = { depth: 1000, values: 2_000_000 };

function parse(text: string): Json {
  const tooLarge = jsonTooLarge(text, LARGEST);
  if (tooLarge !== undefined)
    throw new FileTrouble(`The description of this glTF file cannot be read: ${tooLarge}. Export it with fewer parts.`);
  try {
    const json: unknown = JSON.parse(text);
    if (json && typeof json === 'object' && !Array.isArray(json)) return json as Json;
  } catch {
    // Reported below.
  }
  throw new FileTrouble(
    'This is not a glTF file: its description is not valid JSON. It may have been cut off; fetch it again.',
  );
}

function container(bytes: Uint8Array): Parts {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 20 || view.getUint32(8, true) > bytes.length)
    throw new FileTrouble(
      `The file breaks off after ${bytes.length} bytes${bytes.length >= 12 ? ` of ${view.getUint32(8, true)}` : ''}; fetch it again.`,
    );
  const length = view.getUint32(12, true);
  if (view.getUint32(16, true) !== 0x4e4f534a || 20 + length > bytes.length)
    throw new FileTrouble('The first part of this glTF file is damaged; fetch it again.');
  const json = parse(strFromU8(bytes.subarray(20, 20 + length)));
  const resources: Record<string, Uint8Array> = {};
  const second = 20 + length;
  if (second + 8 <= bytes.length) {
    const size = view.getUint32(second, true);
    if (second + 8 + size > bytes.length)
      throw new FileTrouble('The data of this glTF file breaks off; fetch it again.');
    // The name under which the library looks for the binary chunk.
    resources['@glb.bin'] = bytes.slice(second + 8, second + 8 + size);
  }
  return { json, resources };
}

function embedded(bytes: Uint8Array): Parts {
  const json = parse(strFromU8(bytes));
  const resources: Record<string, Uint8Array> = {};
  for (const buffer of listOf(json, 'buffers')) {
    const uri = buffer.uri;
    if (typeof uri !== 'string' || !uri.startsWith('data:')) continue;
    const comma = uri.indexOf(',');
    resources[uri] = fromBase64(uri.slice(comma + 1));
  }
  return { json, resources };
}

function listOf(json: Json, name: string): Json[] {
  const list = json[name];
  if (list === undefined) return [];
  if (!Array.isArray(list) || list.some((x) => !x || typeof x !== 'object'))
    throw new FileTrouble(`The list of ${name} in this glTF file is not a list; export it again.`);
  return list as Json[];
}

const whole = (x: unknown): x is number => Number.isInteger(x) && (x as number) >= 0;

/** What must hold before the library may build anything: no external references, no index out of range, no cycles. */
function check(json: Json, resources: Record<string, Uint8Array>): void {
  const version = (json.asset as Json | undefined)?.version;
  if (typeof version !== 'string' || !version.startsWith('2'))
    throw new FileTrouble(`This is glTF ${JSON.stringify(version ?? 'without a version')}; version 2 is wanted.`);
  const required = json.extensionsRequired;
  if (Array.isArray(required) && required.length > 0)
    throw new FileTrouble(`The file cannot be read without ${required.join(', ')}; export it without compression.`);
  const buffers = listOf(json, 'buffers');
  buffers.forEach((b, i) => {
    if (typeof b.uri === 'string' && !b.uri.startsWith('data:'))
      throw new FileTrouble(
        `The file keeps its data in another file, “${b.uri.slice(0, 60)}”; export it as GLB, or with the data inside.`,
      );
    const data = typeof b.uri === 'string' ? resources[b.uri] : resources['@glb.bin'];
    if (!whole(b.byteLength) || !data || data.length < b.byteLength)
      throw new FileTrouble(
        `Buffer ${i} claims ${String(b.byteLength)} bytes, and there are ${data?.length ?? 0}; the file is cut off or damaged.`,
      );
  });
  // Images are not read, and images in other files must not be requested.
  delete json.images;
  delete json.textures;
  delete json.materials;
  for (const m of listOf(json, 'meshes'))
    for (const p of Array.isArray(m.primitives) ? (m.primitives as Json[]) : []) delete p.material;
  const views = listOf(json, 'bufferViews');
  views.forEach((v, i) => {
    const buffer = buffers[v.buffer as number];
    const offset = v.byteOffset ?? 0;
    if (!buffer || !whole(offset) || !whole(v.byteLength) || offset + v.byteLength > (buffer.byteLength as number))
      throw new FileTrouble(`View ${i} of the data reaches beyond it; the file is damaged.`);
  });
  const accessors = listOf(json, 'accessors');
  let zeros = 0;
  accessors.forEach((a, i) => {
    // Up to six indices per vertex.
    checkCounts(whole(a.count) ? Math.ceil((a.count as number) / 6) : NaN, 0);
    const size = COMPONENT[a.componentType as number];
    const parts = PARTS[a.type as string];
    if (!size || !parts)
      throw new FileTrouble(`Accessor ${i} holds numbers of an unknown kind; export the file again.`);
    checkSparse(a, i, views);
    if (a.bufferView === undefined) {
      // An accessor without data stands for zeros: free in the file, but not in memory.
      zeros += (a.count as number) * size * parts;
      if (zeros > MOST_ZEROS)
        throw new FileTrouble(
          `The file claims ${Math.round(zeros / 1e6)} MB of numbers that it does not hold; the most is ` +
            `${MOST_ZEROS / 1e6} MB. Export it with its data.`,
        );
      return;
    }
    const view = views[a.bufferView as number];
    const offset = a.byteOffset ?? 0;
    const stride = (view?.byteStride as number | undefined) ?? size * parts;
    if (
      !view ||
      !whole(offset) ||
      offset + ((a.count as number) - 1) * stride + size * parts > (view.byteLength as number)
    )
      throw new FileTrouble(
        `Accessor ${i} claims ${String(a.count)} elements, more than its data holds; the file is damaged.`,
      );
  });
  const nodes = listOf(json, 'nodes');
  const state = new Uint8Array(nodes.length);
  const walk = (n: unknown, depth: number): void => {
    if (!whole(n) || n >= nodes.length)
      throw new FileTrouble(`The file names node ${String(n)}, and there are ${nodes.length}; export it again.`);
    if (state[n] === 1 || depth > 500)
      throw new FileTrouble(`Node ${n} is its own descendant, which cannot be drawn; export the file again.`);
    if (state[n] === 2) return;
    state[n] = 1;
    const children = nodes[n].children;
    if (Array.isArray(children)) children.forEach((c) => walk(c, depth + 1));
    state[n] = 2;
  };
  nodes.forEach((_, i) => walk(i, 0));
  checkDrawn(json, nodes, accessors);
}

/** Most bytes of accessors without data. */
const MOST_ZEROS = 64e6;

/** Sparse values: no more than the accessor has elements, and within their data. */
function checkSparse(a: Json, i: number, views: readonly Json[]): void {
  const sparse = a.sparse as Json | undefined;
  if (sparse === undefined) return;
  const { count, indices, values } = (sparse ?? {}) as { count?: unknown; indices?: Json; values?: Json };
  const fits = (part: Json | undefined, size: number | undefined) => {
    const view = part && views[part.bufferView as number];
    const offset = part?.byteOffset ?? 0;
    return view && size && whole(offset) && offset + (count as number) * size <= (view.byteLength as number);
  };
  const size = COMPONENT[a.componentType as number] * PARTS[a.type as string];
  if (
    !whole(count) ||
    count > (a.count as number) ||
    !fits(indices, COMPONENT[indices?.componentType as number]) ||
    !fits(values, size)
  )
    throw new FileTrouble(
      `Accessor ${i} replaces ${String(count)} of its ${String(a.count)} elements, and there is no room for ` +
        'them in its data; the file is damaged.',
    );
}

/**
 * Refuses a scene that instantiates more than a shape may have, before anything is merged: a mesh counts as often as
 * nodes show it.
 */
function checkDrawn(json: Json, nodes: readonly Json[], accessors: readonly Json[]): void {
  const meshes = listOf(json, 'meshes');
  const countOf = (x: unknown) => (whole(x) && whole(accessors[x]?.count) ? (accessors[x].count as number) : 0);
  const sizes = meshes.map((m) => {
    const list = Array.isArray(m.primitives) ? (m.primitives as Json[]) : [];
    return list.reduce<[number, number]>(
      ([points, faces], p) => {
        const own = countOf((p.attributes as Json | undefined)?.POSITION);
        return [points + own, faces + Math.floor((p.indices === undefined ? own : countOf(p.indices)) / 3)];
      },
      [0, 0],
    );
  });
  // A node may have several parents, so a mesh counts once for each path to it.
  const known = new Map<number, [number, number]>();
  const drawn = (n: number): [number, number] => {
    const done = known.get(n);
    if (done) return done;
    const own = whole(nodes[n].mesh) ? (sizes[nodes[n].mesh as number] ?? [0, 0]) : [0, 0];
    const children = Array.isArray(nodes[n].children) ? (nodes[n].children as number[]) : [];
    const sum = children
      .map(drawn)
      .reduce<[number, number]>(([p, f], [q, g]) => [Math.min(1e12, p + q), Math.min(1e12, f + g)], [own[0], own[1]]);
    known.set(n, sum);
    return sum;
  };
  const below = new Set(nodes.flatMap((n) => (Array.isArray(n.children) ? (n.children as number[]) : [])));
  const roots = nodes.map((_, i) => i).filter((i) => !below.has(i));
  const [points, faces] = roots.map(drawn).reduce<[number, number]>(([p, f], [q, g]) => [p + q, f + g], [0, 0]);
  checkCounts(points, faces);
}
