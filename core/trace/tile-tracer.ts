import type { Surfaces } from '../finish/finish';
import type { DistanceField } from '../shape/fractals/field';
import { asksForCrevices } from './drawn';
import { MarchedFields, type PixelSize } from './marched';
import { TraceMemory, type LentMemory } from './memory';
import { surfaceBlock } from './surfaces';
import { FEATURES, pixelBytes, SUMS, type Tile, type Worked } from './worked';

/** What the compiled tracer asks back about a scene that lies in memory. */
export interface Told {
  /** What is worn, in the order in which it was laid out, for its patterns. */
  readonly worn: readonly Surfaces[];
  /** Endless forms by their numbers, and how finely they are told apart. */
  readonly fields: readonly DistanceField[];
  readonly pixel: PixelSize;
  /** Numbers that are kept of a pixel for passes. */
  readonly passSize: number;
}

/** A scene as another thread is given it to trace tiles of. */
export interface LentScene extends Told {
  readonly memory: LentMemory;
  /** Where the table of the scene lies. */
  readonly table: number;
}

/** Traces tiles of a scene that lies in memory. */
export class TileTracer {
  /** What lies above may be overwritten. */
  protected mark = 0;
  protected passSize = 0;

  constructor(protected memory: TraceMemory) {}

  /**
   * Samples `first` up to, without, `end` of the pixels of a tile. Where an error is set, pixels that are good are left
   * as they are: the same ones, if the steps in which a tile is sampled are.
   *
   * @param before sums of the samples before, to be added to
   * @returns SUMS numbers a pixel, rows from the top
   */
  samples(tile: Tile, first: number, end: number, before?: Worked['sums']): Worked['sums'] {
    return this.work(tile, first, end, before ? { sums: before } : undefined, { features: false, look: true }).sums;
  }

  /**
   * The same with what is met first, for denoising and for passes.
   *
   * @param how whether that is wanted, and whether it is looked at now which pixels are good
   * @returns also FEATURES numbers a pixel, and how many pixels have got samples
   * @throws SceneGone where the scene was lent, and is there no more
   */
  work(
    { x, y, width, height }: Tile,
    first: number,
    end: number,
    before: Partial<Worked> | undefined,
    { features: withFeatures, look }: { readonly features: boolean; readonly look: boolean },
  ): Worked {
    const { memory } = this;
    memory.release(this.mark);
    const pixels = width * height;
    const at = memory.room(8 * SUMS * pixels);
    const met = withFeatures ? memory.room(4 * FEATURES * pixels) : 0;
    const numbers = this.passSize * pixels;
    const told = numbers > 0 ? memory.room(4 * numbers) : 0;
    return memory.read(() => {
      if (told) {
        const passes = memory.floats(told, numbers);
        if (before?.passes) passes.set(before.passes);
        else passes.fill(0);
      }
      const sums = memory.doubles(at, SUMS * pixels);
      if (before?.sums) sums.set(before.sums);
      else sums.fill(0);
      if (withFeatures) {
        const features = memory.floats(met, FEATURES * pixels);
        if (before?.features) features.set(before.features);
        else features.fill(0);
      }
      const worked = memory.run.addSamples(x, y, width, height, first, end, at, met, told, look);
      return {
        sums: new Float64Array(memory.doubles(at, SUMS * pixels)),
        features: new Float32Array(memory.floats(met, withFeatures ? FEATURES * pixels : 0)),
        ...(told ? { passes: new Float32Array(memory.floats(told, numbers)) } : {}),
        worked,
      };
    });
  }

  /** Bytes that a tile of so many pixels takes while it is worked on. */
  protected tileBytes(pixels: number): number {
    // Up to three stretches, each from a multiple of 16 on.
    return pixels * pixelBytes(this.passSize) + 64;
  }
}

/** Traces tiles of scenes that another thread lays out, in the memory of that thread. */
export class BorrowedTracer extends TileTracer {
  constructor(private lent: LentScene) {
    super(new TraceMemory(1, lent.memory));
    this.take(lent);
  }

  /** Whether another scene lies in the same memory. */
  has({ memory: { id, thread } }: LentScene): boolean {
    return this.lent.memory.id === id && this.lent.memory.thread === thread;
  }

  /** Goes over to another scene in the same memory. */
  take(lent: LentScene): void {
    const { memory } = this;
    this.lent = lent;
    memory.take(lent.memory);
    tellMemory(memory, lent);
    memory.run.takeScene(lent.table);
    this.mark = memory.mark;
    this.passSize = lent.passSize;
  }
}

/** Endless forms, none yet, that wear this. */
export function fieldsUnder(worn: readonly Surfaces[], pixel: PixelSize): MarchedFields {
  return new MarchedFields(pixel, worn.some(asksForCrevices));
}

/** Tells a memory what its tracer asks back. */
function tellMemory(memory: TraceMemory, { worn, fields, pixel }: Told): void {
  for (const surfaces of worn) surfaceBlock(surfaces, (one) => memory.worn.add(one));
  memory.fields = fieldsUnder(worn, pixel);
  for (const field of fields) memory.fields.add(field);
}
