import { pictureAt, type PictureAt } from '../evaluate/picture-at';
import { pcg } from '../pattern/maths';
import type { Piece, RibbonDoc } from '../piece/piece';
import { instantsOf } from '../scene/shutter';
import type { Mesh } from '../shape/mesh';
import { roundsOf } from './tiles';
import { Tracer, type Tile, type TraceSettings, type Worked } from './tracer';

/** Instants of an exposure at most: each has its shapes and trees in memory. */
const MOST = 8;

/**
 * A frame at the instants of its exposure, as it is traced: one where the shutter stands open for an instant.
 *
 * @param shapeOf the shape of a ribbon at an unwrapped frame; undefined where it is not there
 */
export function instantPictures(
  piece: Piece,
  frame: number,
  shapeOf: (linked: RibbonDoc, frame: number) => Mesh | undefined,
): readonly PictureAt<Mesh>[] {
  const now = pictureAt(piece, frame, (r) => shapeOf(r, frame));
  const offsets = instantsOf(now.scene.camera.shutter, MOST);
  if (offsets.length === 1) return [now];
  return offsets.map((offset) => {
    const then = pictureAt(piece, frame + offset, (r) => shapeOf(r, frame + offset));
    // What is done to the finished picture is that of the frame itself.
    return { ...then, scene: { ...then.scene, picture: now.scene.picture, backdrop: now.scene.backdrop } };
  });
}

/** A frame that is traced, blurred by what moves while the shutter is open: each sample has its instant. */
export class Exposure {
  private readonly tracers: readonly Tracer[];

  /** @throws SceneTooLarge */
  constructor(pictures: readonly PictureAt<Mesh>[], settings: TraceSettings, free: readonly Tracer[] = []) {
    const tracers: Tracer[] = [];
    pictures.forEach((picture, i) => {
      const tracer = free[i] ?? new Tracer();
      tracer.load(picture, settings, tracers[0]);
      tracers.push(tracer);
    });
    this.tracers = tracers;
  }

  /** Those that another exposure may be traced with, after this one. */
  get free(): readonly Tracer[] {
    return this.tracers;
  }

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

/**
 * The instant of a sample. As many samples as there are instants have each of them once, in another order every time:
 * were it the same, samples of an instant would all lie in one part of the pixel, as points of a sequence do.
 */
function instantOf(n: number, count: number): number {
  return (n + pcg(Math.floor(n / count))) % count;
}
