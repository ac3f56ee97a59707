import type { Mesh } from '../shape/mesh';

/** Connectivity is mostly shared from frame to frame; half of it stands for what is not. */
function bytesOf(mesh: Mesh): number {
  return mesh.positions.byteLength + 2 * mesh.connectivity.corners.length;
}

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
    if (this.entries.has(key)) return;
    this.entries.set(key, mesh);
    this.bytes += bytesOf(mesh);
    for (const [old, m] of this.entries) {
      if (this.bytes <= this.budget || old === key) break;
      this.entries.delete(old);
      this.bytes -= bytesOf(m);
    }
  }
}
