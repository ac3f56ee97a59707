import type { Problem } from '@maypole/core/evaluate/ribbon';
import type { Topology } from './protocol';

/** A ribbon's shape at a frame, ready to draw. */
export interface RibbonGeometry {
  readonly key: string;
  readonly topology: Topology;
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly problems: readonly Problem[];
}

/**
 * Shapes by what they depend on (the ribbon's fingerprint) and frame, within a budget of bytes.
 * A still ribbon has the same key at every frame and costs its buffers once. Shapes of earlier
 * edits stay while there is room, so that undo shows at once.
 */
export class LoopCache {
  private readonly loops = new Map<string, Map<number, RibbonGeometry>>();
  private readonly byKey = new Map<string, { geometry: RibbonGeometry; uses: number }>();
  private bytes = 0;

  constructor(readonly budget: number) {}

  get(fingerprint: string, frame: number): RibbonGeometry | undefined {
    return this.loops.get(fingerprint)?.get(frame);
  }

  /** A shape known under a key, at whatever frame. */
  shape(key: string): RibbonGeometry | undefined {
    return this.byKey.get(key)?.geometry;
  }

  /** Any one key of a ribbon: worth naming to a worker, since a still ribbon has only that. */
  anyKey(fingerprint: string): string | undefined {
    return this.loops.get(fingerprint)?.values().next().value?.key;
  }

  set(fingerprint: string, frame: number, geometry: RibbonGeometry): void {
    let loop = this.loops.get(fingerprint);
    if (!loop) this.loops.set(fingerprint, (loop = new Map()));
    if (loop.has(frame)) return;
    loop.set(frame, geometry);
    const known = this.byKey.get(geometry.key);
    if (known) known.uses++;
    else {
      this.byKey.set(geometry.key, { geometry, uses: 1 });
      this.bytes += sizeOf(geometry);
    }
  }

  /** Marks a fingerprint as just used. */
  touch(fingerprint: string): void {
    const loop = this.loops.get(fingerprint);
    if (!loop) return;
    this.loops.delete(fingerprint);
    this.loops.set(fingerprint, loop);
  }

  /** Lets go of fingerprints not in `keep`, the longest unused first, until the budget holds. */
  trim(keep: ReadonlySet<string>): void {
    for (const [fingerprint, loop] of this.loops) {
      if (this.bytes <= this.budget) return;
      if (keep.has(fingerprint)) continue;
      for (const geometry of loop.values()) this.release(geometry);
      this.loops.delete(fingerprint);
    }
  }

  isFull(): boolean {
    return this.bytes >= this.budget;
  }

  /** Keys of topologies that some shape still uses. */
  topologies(): Set<string> {
    return new Set([...this.byKey.values()].map((e) => e.geometry.topology.key));
  }

  private release(geometry: RibbonGeometry): void {
    const known = this.byKey.get(geometry.key);
    if (!known || --known.uses > 0) return;
    this.byKey.delete(geometry.key);
    this.bytes -= sizeOf(geometry);
  }
}

function sizeOf(g: RibbonGeometry): number {
  return g.positions.byteLength + g.normals.byteLength;
}
