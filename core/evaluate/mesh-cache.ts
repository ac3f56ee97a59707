import { channelBuffers } from '../shape/copy-channels';
import { derivedBuffers, type Connectivity, type Mesh } from '../shape/mesh';

/** Keys of shapes, wherever they were made: a shape keeps its key for good. */
const keys = new WeakMap<Mesh, string>();

/** Buffers of a shape; any of them may be shared with others. */
function buffersOf({ connectivity, positions, copies: c }: Mesh): ArrayBufferView[] {
  const own = [positions, ...connectivityBuffers(connectivity)];
  if (!c) return own;
  const lists = [
    c.matrices,
    c.order,
    c.source,
    ...channelBuffers(c.channels),
    c.materialIndices,
    c.late,
    c.group,
    c.ids,
  ].filter((x) => x !== undefined);
  return [...own, ...lists, ...c.sources.flatMap(buffersOf)];
}

function connectivityBuffers({
  faceStart,
  corners,
  shadingGroups,
  slots,
  uv,
  curves,
}: Connectivity): ArrayBufferView[] {
  return [faceStart, corners, shadingGroups, slots, uv, curves?.start, curves?.points, curves?.closed].filter(
    (x) => x !== undefined,
  );
}

function connectivitiesOf({ connectivity, copies }: Mesh): Connectivity[] {
  return [connectivity, ...(copies?.sources ?? []).flatMap(connectivitiesOf)];
}

/** Meshes by key, evicting the least recently used, within a budget of bytes. Shared buffers count once. */
export class MeshCache {
  private readonly entries = new Map<string, Mesh>();
  private readonly buffers = new Map<ArrayBufferLike, number>();
  private readonly connectivities = new Map<Connectivity, number>();
  private bytes = 0;

  constructor(private readonly budget = 256 * 1024 * 1024) {}

  /** Bytes held by all shapes, and by tables derived from their connectivities. */
  get held(): number {
    let sum = this.bytes;
    const seen = new Set<ArrayBufferLike>();
    for (const c of this.connectivities.keys())
      for (const buffer of derivedBuffers(c)) {
        if (seen.has(buffer) || this.buffers.has(buffer)) continue;
        seen.add(buffer);
        sum += buffer.byteLength;
      }
    return sum;
  }

  get(key: string): Mesh | undefined {
    const mesh = this.entries.get(key);
    if (mesh) {
      this.entries.delete(key);
      this.entries.set(key, mesh);
    }
    return mesh;
  }

  set(key: string, mesh: Mesh): void {
    this.name(mesh, key);
    if (this.entries.has(key)) return;
    this.entries.set(key, mesh);
    this.take(mesh, 1);
    if (this.held <= this.budget) return;
    for (const [old, m] of this.entries) {
      if (old === key || this.held <= this.budget) break;
      this.entries.delete(old);
      this.take(m, -1);
    }
  }

  /** Assigns a key to a shape that has none. */
  name(mesh: Mesh, key: string): void {
    if (!keys.has(mesh)) keys.set(mesh, key);
  }

  /** The key of a shape. Throws a RangeError if it has none: a number assigned here would differ elsewhere. */
  keyOf(mesh: Mesh): string {
    const key = keys.get(mesh);
    if (key === undefined)
      throw new RangeError('This shape was made under no key; name it after the step that made it.');
    return key;
  }

  private take(mesh: Mesh, by: 1 | -1): void {
    for (const { buffer } of buffersOf(mesh)) this.bytes += counted(this.buffers, buffer, by) * buffer.byteLength;
    for (const c of connectivitiesOf(mesh)) counted(this.connectivities, c, by);
  }
}

/** Counts references; returns 1 for the first, −1 when the last is gone, else 0. */
function counted<T>(uses: Map<T, number>, thing: T, by: 1 | -1): 1 | 0 | -1 {
  const before = uses.get(thing) ?? 0;
  if (before + by === 0) uses.delete(thing);
  else uses.set(thing, before + by);
  return before === 0 ? 1 : before + by === 0 ? -1 : 0;
}
