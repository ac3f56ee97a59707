import type { Mesh } from '../shape/mesh';

/** Connectivity is mostly shared from frame to frame; half of it stands for what is not. */
function bytesOf(mesh: Mesh): number {
  const { copies: c } = mesh;
  if (c) return c.matrices.byteLength + c.order.byteLength + c.source.byteLength + (c.colours?.byteLength ?? 0) + (c.looks?.byteLength ?? 0) + (c.late?.byteLength ?? 0) + (c.group?.byteLength ?? 0);
  return mesh.positions.byteLength + 2 * mesh.connectivity.corners.length;
}

/** Keys of shapes, wherever they were made: a shape made under a key is the same under it for good. */
const keys = new WeakMap<Mesh, string>();

/** Meshes by key, the least recently used let go first, within a budget of bytes. */
export class MeshCache {
  private readonly entries = new Map<string, Mesh>();
  private bytes = 0;

  constructor(private readonly budget = 256 * 1024 * 1024) {}

  get(key: string): Mesh | undefined {
    const mesh = this.entries.get(key);
    if (mesh) {
      this.entries.delete(key);
      this.entries.set(key, mesh);
    }
    return mesh;
  }

  set(key: string, mesh: Mesh): void {
    if (!keys.has(mesh)) keys.set(mesh, key);
    if (this.entries.has(key)) return;
    this.entries.set(key, mesh);
    this.bytes += bytesOf(mesh);
    for (const [old, m] of this.entries) {
      if (this.bytes <= this.budget || old === key) break;
      this.entries.delete(old);
      this.bytes -= bytesOf(m);
    }
  }

  /** Gives a shape that was made under no key one by which it is known from now on. */
  name(mesh: Mesh, key: string): void {
    if (!keys.has(mesh)) keys.set(mesh, key);
  }

  /** The key under which a shape was made. Throws a RangeError for one that has none: a number given here would be another one elsewhere. */
  keyOf(mesh: Mesh): string {
    const key = keys.get(mesh);
    if (key === undefined) throw new RangeError('This shape was made under no key; name it after the step that made it.');
    return key;
  }
}
