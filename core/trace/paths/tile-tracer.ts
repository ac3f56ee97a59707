import type { Surfaces } from '../../finish/finish';
import type { DistanceField } from '../../shape/fractals/field';
import { needsOcclusion } from '../scene/trace-mesh';
import { MarchedFields, type PixelSize } from '../scene/distance-fields';
import { TraceMemory, type LentMemory } from '../memory/memory';
import { packSurfaces } from '../scene/surfaces';
import { FEATURES, pixelBytes, SUMS, type Tile, type TileResult } from './tile-result';

/** What the compiled tracer asks the host about a scene. */
export interface HostScene {
  /** Materials in the order they were packed, for their patterns. */
  readonly materials: readonly Surfaces[];
  /** Distance fields by their numbers, and the resolution they need. */
  readonly fields: readonly DistanceField[];
  readonly pixel: PixelSize;
  /** Pass numbers of a pixel. */
  readonly passSize: number;
}

/** A scene lent to another thread that traces tiles of it. */
export interface LentScene extends HostScene {
  readonly memory: LentMemory;
  /** Address of the scene table. */
  readonly table: number;
}

/** Traces tiles of a scene in memory. */
export class TileTracer {
  /** Memory above this address may be overwritten. */
  protected mark = 0;
  protected passSize = 0;

  constructor(protected memory: TraceMemory) {}

  /**
   * Samples `first` (inclusive) to `end` (exclusive) of a tile's pixels. With an error set, converged pixels get none;
   * which ones depends only on the rounds in which a tile is sampled.
   *
   * @param before sums of earlier samples to add to
   * @returns SUMS numbers per pixel, rows from the top
   */
  samples(tile: Tile, first: number, end: number, before?: TileResult['sums']): TileResult['sums'] {
    return this.work(tile, first, end, before ? { sums: before } : undefined, { features: false, look: true }).sums;
  }

  /**
   * The same with denoiser features and passes.
   *
   * @param how whether features are wanted, and whether to test now which pixels have converged
   * @returns also FEATURES numbers per pixel, and how many pixels got samples
   * @throws SceneGone if the lent scene has been replaced
   */
  work(
    { x, y, width, height }: Tile,
    first: number,
    end: number,
    before: Partial<TileResult> | undefined,
    { features: withFeatures, look }: { readonly features: boolean; readonly look: boolean },
  ): TileResult {
    const { memory } = this;
    memory.release(this.mark);
    const pixels = width * height;
    const at = memory.allocate(8 * SUMS * pixels);
    const featuresAt = withFeatures ? memory.allocate(4 * FEATURES * pixels) : 0;
    const numbers = this.passSize * pixels;
    const passesAt = numbers > 0 ? memory.allocate(4 * numbers) : 0;
    return memory.read(() => {
      if (passesAt) {
        const passes = memory.floats(passesAt, numbers);
        if (before?.passes) passes.set(before.passes);
        else passes.fill(0);
      }
      const sums = memory.doubles(at, SUMS * pixels);
      if (before?.sums) sums.set(before.sums);
      else sums.fill(0);
      if (withFeatures) {
        const features = memory.floats(featuresAt, FEATURES * pixels);
        if (before?.features) features.set(before.features);
        else features.fill(0);
      }
      const sampledPixels = memory.run.addSamples(x, y, width, height, first, end, at, featuresAt, passesAt, look);
      return {
        sums: new Float64Array(memory.doubles(at, SUMS * pixels)),
        features: new Float32Array(memory.floats(featuresAt, withFeatures ? FEATURES * pixels : 0)),
        ...(passesAt ? { passes: new Float32Array(memory.floats(passesAt, numbers)) } : {}),
        sampledPixels,
      };
    });
  }

  /** Bytes that a tile takes while it is traced. */
  protected tileBytes(pixels: number): number {
    // Up to three allocations, each aligned to 16.
    return pixels * pixelBytes(this.passSize) + 64;
  }
}

/** Traces tiles of scenes that another thread lays out, in that thread's memory. */
export class BorrowedTracer extends TileTracer {
  constructor(private lent: LentScene) {
    super(new TraceMemory(1, lent.memory));
    this.take(lent);
  }

  /** Whether another scene lies in the same memory. */
  has({ memory: { id, thread } }: LentScene): boolean {
    return this.lent.memory.id === id && this.lent.memory.thread === thread;
  }

  /** Switches to another scene in the same memory. */
  take(lent: LentScene): void {
    const { memory } = this;
    this.lent = lent;
    memory.take(lent.memory);
    attachHostScene(memory, lent);
    memory.run.loadScene(lent.table);
    this.mark = memory.mark;
    this.passSize = lent.passSize;
  }
}

/** An empty set of distance fields for these materials. */
export function marchedFieldsFor(materials: readonly Surfaces[], pixel: PixelSize): MarchedFields {
  return new MarchedFields(pixel, materials.some(needsOcclusion));
}

/** Gives a memory what its tracer asks the host. */
function attachHostScene(memory: TraceMemory, { materials, fields, pixel }: HostScene): void {
  for (const surfaces of materials) packSurfaces(surfaces, (one) => memory.patterns.add(one));
  memory.fields = marchedFieldsFor(materials, pixel);
  for (const field of fields) memory.fields.add(field);
}
