import type { Tile } from '@maypole/core/trace/tracer';

/** How far a picture in true light has come, or how many frames of a loop are there. */
export type Traced =
  | {
      readonly type: 'picture';
      /** Samples that every pixel has which is not good with fewer, and how many there are at most. */
      readonly samples: number;
      readonly of: number;
      /** Share of the pixels that are good already. */
      readonly good: number;
      /** Seconds that are left, about; null where that cannot be told yet. */
      readonly left: number | null;
    }
  | { readonly type: 'loop'; readonly frames: number; readonly of: number };

/** Seconds before anything is said about how long it will take. */
const SURE = 2;

/** What tiles tell, as how far the whole picture is. */
export class Progress {
  private readonly begun = performance.now();
  private readonly tiles: Map<string, { samples: number; good: number; done: boolean; readonly pixels: number }>;
  private readonly pixels: number;

  constructor(
    tiles: readonly Tile[],
    private readonly most: number,
  ) {
    this.tiles = new Map(
      tiles.map((t) => [key(t), { samples: 0, good: 0, done: false, pixels: t.width * t.height }] as const),
    );
    this.pixels = tiles.reduce((n, t) => n + t.width * t.height, 0);
  }

  /** @param good pixels of the tile that are good, and `done` whether all of them are */
  take(tile: Tile, samples: number, good: number, done: boolean): Traced {
    const of = this.tiles.get(key(tile))!;
    of.samples = samples;
    of.good = done ? of.pixels : good;
    of.done = done || samples >= this.most;
    let [least, all, spent, left] = [this.most, 0, 0, 0];
    for (const t of this.tiles.values()) {
      if (!t.done) least = Math.min(least, t.samples);
      all += t.samples >= this.most ? t.pixels : t.good;
      spent += t.pixels * t.samples;
      if (!t.done) left += (t.pixels - t.good) * (this.most - t.samples);
    }
    const seconds = (performance.now() - this.begun) / 1000;
    return {
      type: 'picture',
      samples: least,
      of: this.most,
      good: all / this.pixels,
      // As if nothing more became good by itself: it is rather sooner.
      left: seconds < SURE ? null : (left * seconds) / Math.max(1, spent),
    };
  }
}

const key = ({ x, y }: Tile) => `${x},${y}`;

/** A time as one says it. */
export function aboutTime(seconds: number): string {
  if (seconds < 1) return 'a second';
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  return `${Math.round(seconds / 3600)} h`;
}
