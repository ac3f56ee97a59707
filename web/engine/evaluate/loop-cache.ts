import { instanceBuffers } from './instances';
import type { DrawablePart } from '@/view/stage/frame';
import type { CopiesNote, Problem } from '@maypole/core/evaluate/ribbon';
import type { CopyFacts, Topology } from './protocol';

/** One shape of a ribbon, with its instances if it has copies. */
export interface RibbonPart extends DrawablePart {
  readonly topology: Topology;
}

/** A ribbon's shape at a frame, ready to draw. */
export interface RibbonGeometry {
  readonly key: string;
  readonly parts: readonly RibbonPart[];
  readonly facts?: CopyFacts;
  readonly problems: readonly Problem[];
  readonly notes: readonly CopiesNote[];
}

/** A part without its instances. */
type Body = Pick<RibbonPart, 'key' | 'topology' | 'positions' | 'normals' | 'occlusion'>;

/**
 * Shapes by ribbon fingerprint and frame, within a budget of bytes. A static ribbon has the same key at every frame and
 * is stored once; so are the sources of copies, at whatever frames and places. Shapes of earlier edits stay while there
 * is room, so that undo is instant.
 */
export class LoopCache {
  private readonly loops = new Map<string, Map<number, RibbonGeometry>>();
  private readonly byKey = new Map<string, { geometry: RibbonGeometry; uses: number }>();
  private readonly bodies = new Map<string, { body: Body; uses: number }>();
  private readonly connectivities = new Map<string, number>();
  private bytes = 0;
  private last = 0;

  /** @param onRelease called with every dropped shape */
  constructor(
    readonly budget: number,
    private readonly onRelease: (fingerprint: string, frame: number) => void = () => undefined,
  ) {}

  /** Bytes held: buffers of shapes and instances, and the connectivities they share. */
  get held(): number {
    return this.bytes;
  }

  /** Available frames of a ribbon. */
  framesOf(fingerprint: string): Iterable<number> {
    return this.loops.get(fingerprint)?.keys() ?? [];
  }

  /** How many more shapes like the last fit, below 1 if none does. */
  room(): number {
    if (this.bytes >= this.budget) return 0;
    return this.last > 0 ? Math.floor((this.budget - this.bytes) / this.last) : Infinity;
  }

  /** How many shapes like the last the whole budget holds. */
  capacity(): number {
    return this.last > 0 ? Math.floor(this.budget / this.last) : Infinity;
  }

  get(fingerprint: string, frame: number): RibbonGeometry | undefined {
    return this.loops.get(fingerprint)?.get(frame);
  }

  /** A shape by its key, at whatever frame. */
  shape(key: string): RibbonGeometry | undefined {
    return this.byKey.get(key)?.geometry;
  }

  /** A part by its key. */
  body(key: string): Body | undefined {
    return this.bodies.get(key)?.body;
  }

  /**
   * Keys of a ribbon worth telling a worker: any of its shapes, since a static ribbon has only that, and sources of its
   * copies that are likely to be needed again.
   */
  keysOf(fingerprint: string, most = 400): string[] {
    const loop = this.loops.get(fingerprint);
    const first = loop?.values().next().value;
    if (!loop || !first) return [];
    const keys = new Set([first.key]);
    if (first.facts) for (const g of loop.values()) for (const p of g.parts) if (keys.size < most) keys.add(p.key);
    return [...keys];
  }

  set(fingerprint: string, frame: number, geometry: RibbonGeometry): void {
    let loop = this.loops.get(fingerprint);
    if (!loop) this.loops.set(fingerprint, (loop = new Map()));
    if (loop.has(frame)) return;
    loop.set(frame, geometry);
    const known = this.byKey.get(geometry.key);
    if (known) {
      known.uses++;
      this.last = 0;
      return;
    }
    const before = this.bytes;
    this.byKey.set(geometry.key, { geometry, uses: 1 });
    this.bytes += placesSize(geometry);
    for (const part of geometry.parts) {
      const body = this.bodies.get(part.key);
      if (body) body.uses++;
      else {
        this.bodies.set(part.key, { body: part, uses: 1 });
        this.bytes += bodySize(part);
        const { key } = part.topology;
        const uses = this.connectivities.get(key) ?? 0;
        this.connectivities.set(key, uses + 1);
        if (uses === 0) this.bytes += topologySize(part.topology);
      }
    }
    this.last = this.bytes - before;
  }

  /** Marks a fingerprint as just used. */
  touch(fingerprint: string): void {
    const loop = this.loops.get(fingerprint);
    if (!loop) return;
    this.loops.delete(fingerprint);
    this.loops.set(fingerprint, loop);
  }

  /** Drops fingerprints not in `keep`, least recently used first, until the budget holds. */
  trim(keep: ReadonlySet<string>): void {
    for (const [fingerprint, loop] of this.loops) {
      if (this.bytes <= this.budget) return;
      if (keep.has(fingerprint)) continue;
      this.loops.delete(fingerprint);
      for (const [frame, geometry] of loop) this.release(fingerprint, frame, geometry);
    }
  }

  /**
   * If even the loops in use do not fit, drops the frames farthest ahead of a frame: they are made again when shown.
   * The frame itself stays.
   */
  shed(frame: number, frames: number): void {
    if (this.bytes <= this.budget) return;
    const ahead = (f: number) => (((f - frame) % frames) + frames) % frames;
    const held = [...this.loops].flatMap(([fingerprint, loop]) =>
      [...loop.keys()].filter((f) => f !== frame).map((f) => ({ fingerprint, loop, f, far: ahead(f) })),
    );
    held.sort((a, b) => b.far - a.far);
    for (const { fingerprint, loop, f } of held) {
      if (this.bytes <= this.budget) return;
      const geometry = loop.get(f)!;
      loop.delete(f);
      this.release(fingerprint, f, geometry);
    }
  }

  /** Keys of topologies in use. */
  topologies(): Set<string> {
    return new Set([...this.bodies.values()].map((e) => e.body.topology.key));
  }

  private release(fingerprint: string, frame: number, geometry: RibbonGeometry): void {
    this.onRelease(fingerprint, frame);
    const known = this.byKey.get(geometry.key);
    if (!known || --known.uses > 0) return;
    this.byKey.delete(geometry.key);
    this.bytes -= placesSize(geometry);
    for (const part of geometry.parts) {
      const body = this.bodies.get(part.key);
      if (!body || --body.uses > 0) continue;
      this.bodies.delete(part.key);
      this.bytes -= bodySize(part);
      const { key } = part.topology;
      const uses = this.connectivities.get(key)! - 1;
      if (uses > 0) this.connectivities.set(key, uses);
      else {
        this.connectivities.delete(key);
        this.bytes -= topologySize(part.topology);
      }
    }
  }
}

function bodySize(part: RibbonPart): number {
  return part.positions.byteLength + part.normals.byteLength + (part.occlusion?.byteLength ?? 0);
}

function topologySize({ triangles, edges, lines, uv }: RibbonPart['topology']): number {
  return triangles.byteLength + edges.byteLength + lines.byteLength + (uv?.byteLength ?? 0);
}

function placesSize(g: RibbonGeometry): number {
  let sum = (g.facts?.order.byteLength ?? 0) + (g.facts?.late?.byteLength ?? 0);
  for (const { instances: i } of g.parts) if (i) for (const buffer of instanceBuffers(i)) sum += buffer.byteLength;
  return sum;
}
