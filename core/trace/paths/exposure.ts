import { copyCount } from '../../copies/copies';
import { pictureAt, type PictureAt } from '../../evaluate/picture-at';
import { pcg } from '../../pattern/maths';
import type { Piece, RibbonDoc } from '../../piece/piece';
import { environmentOf } from '../../scene/kind';
import { instantsOf } from '../../scene/shutter';
import type { Mesh } from '../../shape/mesh';
import { Between } from './interpolation';
import { roundsOf, TILE_PIXELS } from './tiles';
import { BorrowedTracer, type LentScene, type TileTracer } from './tile-tracer';
import { Tracer, type TraceSettings } from './tracer';
import type { Tile, TileResult } from './tile-result';

/** Segments of an exposure within which vertices move in a straight line; also the least number of instants. */
const SEGMENTS = 8;
/** Most instants of an exposure. */
const MAX_INSTANTS = 64;
/** Memory budget in bytes for all instants of an exposure, beyond the first SEGMENTS. */
const BUDGET = 640 * 2 ** 20;

/**
 * The scene at each instant of the exposure; a single one if the shutter is closed at once. As many instants as
 * samples, from 8 to 64, but fewer for large scenes, since each has its own shapes and trees in memory. The number
 * depends on the piece alone, never on the machine.
 *
 * @param shapeOf evaluates a ribbon at an unwrapped frame; undefined if it is absent there
 * @param samples most samples of a pixel
 */
export function instantPictures(
  piece: Piece,
  frame: number,
  shapeOf: (linked: RibbonDoc, frame: number) => Mesh | undefined,
  samples: number,
): readonly PictureAt<Mesh>[] {
  const now = pictureAt(piece, frame, (r) => shapeOf(r, frame));
  const { shutter } = now.scene.camera;
  const most = Math.max(SEGMENTS, Math.min(MAX_INSTANTS, samples, Math.floor(BUDGET / bytesOf(now))));
  const offsets = instantsOf(shutter, most, MAX_INSTANTS);
  if (offsets.length === 1) return [now];
  const betweens = new Map<string, Between>();
  const between = (r: RibbonDoc, offset: number) => {
    let known = betweens.get(r.id);
    if (!known) {
      const ends = Array.from({ length: SEGMENTS + 1 }, (_, k) => shapeOf(r, frame + (k / SEGMENTS - 0.5) * shutter));
      betweens.set(r.id, (known = new Between(ends)));
    }
    return known.at((offset / shutter + 0.5) * SEGMENTS);
  };
  return offsets.map((offset) => {
    const then = pictureAt(piece, frame + offset, (r) =>
      offsets.length > SEGMENTS ? between(r, offset) : shapeOf(r, frame + offset),
    );
    // Picture effects are those of the frame itself.
    return { ...then, scene: { ...then.scene, picture: now.scene.picture, backdrop: now.scene.backdrop } };
  });
}

/** Approximate memory that a scene takes for tracing, in bytes, from measurements (docs/speed.md). */
function bytesOf({ ribbons, scene }: PictureAt<Mesh>): number {
  const shapes = new Set(ribbons.flatMap(({ shape }) => shape.copies?.sources ?? [shape]));
  const triangles = [...shapes].reduce(
    (sum, { connectivity: c }) => sum + c.corners.length - 2 * (c.faceStart.length - 1),
    0,
  );
  const copies = ribbons.reduce((sum, { shape }) => sum + (shape.copies ? copyCount(shape.copies) : 1), 0);
  const sky = environmentOf(scene.lights) ? 8 * 2 ** 20 : 0;
  return 2 ** 20 + 450 * triangles + 370 * copies + sky;
}

/** A frame lent to another thread that traces tiles of it: its scene at each instant. */
export type LentExposure = readonly LentScene[];

/** Traces tiles of a frame with motion blur: each sample has its own instant. */
export class TileExposure {
  constructor(private readonly tracers: readonly TileTracer[]) {}

  /**
   * Samples `first` (inclusive) to `end` (exclusive) of a tile: one round of `roundsOf`, which begins by testing which
   * pixels have converged. Yields between parts, so that the caller may stop.
   *
   * @param paths approximate number of paths per part
   */
  *round(
    tile: Tile,
    first: number,
    end: number,
    before: Partial<TileResult> | undefined,
    paths = 24_000,
  ): Generator<TileResult, void, void> {
    const step = Math.max(1, Math.floor(paths / (tile.width * tile.height)));
    let so = before;
    for (let n = first; n < end; n += step) {
      const part = this.work(tile, n, Math.min(end, n + step), so, n === first);
      yield part;
      if (part.sampledPixels === 0) return;
      so = part;
    }
  }

  /** All samples of a tile, round by round. */
  traced(tile: Tile, samples: number): TileResult {
    let so: TileResult | undefined;
    let before = 0;
    for (const end of roundsOf(samples)) {
      for (const part of this.round(tile, before, end, so)) so = part;
      before = end;
    }
    return so!;
  }

  private work(
    tile: Tile,
    first: number,
    end: number,
    before: Partial<TileResult> | undefined,
    look: boolean,
  ): TileResult {
    const count = this.tracers.length;
    if (count === 1) return this.tracers[0].work(tile, first, end, before, { features: true, look });
    let so: TileResult | undefined;
    for (let n = first; n < end; n++)
      so = this.tracers[instantOf(n, count)].work(tile, n, n + 1, so ?? before, {
        features: true,
        look: look && n === first,
      });
    return so!;
  }
}

/** A frame being traced. */
export class Exposure extends TileExposure {
  /** Tracers that the next exposure may reuse, after this one. */
  readonly free: readonly Tracer[];

  /**
   * @param threads how many trace it, this one included
   * @throws SceneTooLarge
   */
  constructor(
    pictures: readonly PictureAt<Mesh>[],
    settings: TraceSettings,
    free: readonly Tracer[] = [],
    threads = 1,
  ) {
    const tracers: Tracer[] = [];
    pictures.forEach((picture, i) => {
      const tracer = free[i]?.threads === threads ? free[i] : new Tracer(threads);
      tracer.load(picture, settings, tracers[0]);
      tracers.push(tracer);
    });
    super(tracers);
    this.free = tracers;
  }

  /**
   * Lends the frame to the other threads; valid until these tracers load another.
   *
   * @throws SceneTooLarge
   */
  lend(): readonly LentExposure[] {
    const instants = this.free.map((tracer) => tracer.lend(TILE_PIXELS));
    return instants[0].map((_, thread) => instants.map((lent) => lent[thread]));
  }
}

/** A frame that another thread has laid out in its memory. */
export class BorrowedExposure extends TileExposure {
  /** Tracers of this thread that the next exposure may reuse, after this one. */
  readonly free: readonly BorrowedTracer[];

  constructor(lent: LentExposure, free: readonly BorrowedTracer[] = []) {
    const tracers = lent.map((scene) => {
      const known = free.find((tracer) => tracer.has(scene));
      known?.take(scene);
      return known ?? new BorrowedTracer(scene);
    });
    super(tracers);
    this.free = tracers;
  }
}

/**
 * Instant of a sample. Each run of `count` samples visits every instant once, in a new order: in a fixed order the
 * points of the low-discrepancy sequence at one instant would cluster in a part of the pixel.
 */
function instantOf(n: number, count: number): number {
  return (n + pcg(Math.floor(n / count))) % count;
}
