import { copyCount } from '../copies/copies';
import { pictureAt, type PictureAt } from '../evaluate/picture-at';
import { pcg } from '../pattern/maths';
import type { Piece, RibbonDoc } from '../piece/piece';
import { surroundOf } from '../scene/kind';
import { instantsOf } from '../scene/shutter';
import type { Mesh } from '../shape/mesh';
import { Between } from './between';
import { roundsOf, TILE_PIXELS } from './tiles';
import { BorrowedTracer, type LentScene, type TileTracer } from './tile-tracer';
import { Tracer, type TraceSettings } from './tracer';
import type { Tile, Worked } from './worked';

/** Stretches of an exposure between whose ends shapes go straight, and instants at least. */
const STRETCHES = 8;
/** Instants of an exposure at most. */
const MOST = 64;
/** Bytes that all instants of an exposure may take together, where there are more than STRETCHES of them. */
const BUDGET = 640 * 2 ** 20;

/**
 * A frame at the instants of its exposure, as it is traced: one where the shutter stands open for an instant. As many as
 * there are samples, 8 to 64: each has its shapes and trees in memory, so of a large scene there are fewer. How many
 * depends on the piece alone, and on no machine.
 *
 * @param shapeOf the shape of a ribbon at an unwrapped frame; undefined where it is not there
 * @param samples that a pixel gets at most
 */
export function instantPictures(
  piece: Piece,
  frame: number,
  shapeOf: (linked: RibbonDoc, frame: number) => Mesh | undefined,
  samples: number,
): readonly PictureAt<Mesh>[] {
  const now = pictureAt(piece, frame, (r) => shapeOf(r, frame));
  const { shutter } = now.scene.camera;
  const most = Math.max(STRETCHES, Math.min(MOST, samples, Math.floor(BUDGET / bytesOf(now))));
  const offsets = instantsOf(shutter, most, MOST);
  if (offsets.length === 1) return [now];
  const betweens = new Map<string, Between>();
  const between = (r: RibbonDoc, offset: number) => {
    let known = betweens.get(r.id);
    if (!known) {
      const ends = Array.from({ length: STRETCHES + 1 }, (_, k) => shapeOf(r, frame + (k / STRETCHES - 0.5) * shutter));
      betweens.set(r.id, (known = new Between(ends)));
    }
    return known.at((offset / shutter + 0.5) * STRETCHES);
  };
  return offsets.map((offset) => {
    const then = pictureAt(piece, frame + offset, (r) =>
      offsets.length > STRETCHES ? between(r, offset) : shapeOf(r, frame + offset),
    );
    // What is done to the finished picture is that of the frame itself.
    return { ...then, scene: { ...then.scene, picture: now.scene.picture, backdrop: now.scene.backdrop } };
  });
}

/** About as many bytes as a picture takes in memory to be traced, by what was measured (docs/speed.md). */
function bytesOf({ ribbons, scene }: PictureAt<Mesh>): number {
  const shapes = new Set(ribbons.flatMap(({ shape }) => shape.copies?.sources ?? [shape]));
  const triangles = [...shapes].reduce(
    (sum, { connectivity: c }) => sum + c.corners.length - 2 * (c.faceStart.length - 1),
    0,
  );
  const copies = ribbons.reduce((sum, { shape }) => sum + (shape.copies ? copyCount(shape.copies) : 1), 0);
  const sky = surroundOf(scene.lights) ? 8 * 2 ** 20 : 0;
  return 2 ** 20 + 450 * triangles + 370 * copies + sky;
}

/** A frame as another thread is given it to trace tiles of: its scene at each instant. */
export type LentExposure = readonly LentScene[];

/** Traces tiles of a frame, blurred by what moves while the shutter is open: each sample has its instant. */
export class TileExposure {
  constructor(private readonly tracers: readonly TileTracer[]) {}

  /**
   * Samples `first` up to, without, `end` of a tile: a round, see `roundsOf`, at whose beginning it is looked at which
   * pixels are good. It is worked in parts, so that one may look in between whether it is still wanted.
   *
   * @param paths that are followed in a part, about
   */
  *round(
    tile: Tile,
    first: number,
    end: number,
    before: Partial<Worked> | undefined,
    paths = 24_000,
  ): Generator<Worked, void, void> {
    const step = Math.max(1, Math.floor(paths / (tile.width * tile.height)));
    let so = before;
    for (let n = first; n < end; n += step) {
      const part = this.work(tile, n, Math.min(end, n + step), so, n === first);
      yield part;
      if (part.worked === 0) return;
      so = part;
    }
  }

  /** All samples of a tile, round by round. */
  traced(tile: Tile, samples: number): Worked {
    let so: Worked | undefined;
    let before = 0;
    for (const end of roundsOf(samples)) {
      for (const part of this.round(tile, before, end, so)) so = part;
      before = end;
    }
    return so!;
  }

  private work(tile: Tile, first: number, end: number, before: Partial<Worked> | undefined, look: boolean): Worked {
    const count = this.tracers.length;
    if (count === 1) return this.tracers[0].work(tile, first, end, before, { features: true, look });
    let so: Worked | undefined;
    for (let n = first; n < end; n++)
      so = this.tracers[instantOf(n, count)].work(tile, n, n + 1, so ?? before, {
        features: true,
        look: look && n === first,
      });
    return so!;
  }
}

/** A frame that is traced. */
export class Exposure extends TileExposure {
  /** Those that another exposure may be traced with, after this one. */
  readonly free: readonly Tracer[];

  /**
   * @param threads how many are to trace it, this one among them
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
   * The frame for each of the other threads: until another is traced with the same tracers.
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
  /** Those that another exposure of the same thread may be traced with, after this one. */
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
 * The instant of a sample. As many samples as there are instants have each of them once, in another order every time:
 * were it the same, samples of an instant would all lie in one part of the pixel, as points of a sequence do.
 */
function instantOf(n: number, count: number): number {
  return (n + pcg(Math.floor(n / count))) % count;
}
