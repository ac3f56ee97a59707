import { COUNT, CLAMPED, SUMS, type Tile } from '@maypole/core/trace/paths/tile-result';

/** Progress of a picture in true light, or of the frames of a loop. */
export type Traced =
  | {
      readonly type: 'picture';
      /** Samples of every pixel that has not converged earlier, and most samples. */
      readonly samples: number;
      readonly of: number;
      /** Share of converged pixels. */
      readonly good: number;
      /** Estimated seconds left; null if unknown. */
      readonly left: number | null;
      /** Seconds spent, and number of pixels. */
      readonly spent: number;
      readonly pixels: number;
      /** Share of the light removed by the firefly clamp. */
      readonly leftOut: number;
    }
  | { readonly type: 'loop'; readonly frames: number; readonly of: number };

/** Seconds before an estimate is given. */
const SURE = 2;

/** Combines the progress of tiles. */
export class Progress {
  private readonly begun = performance.now();
  private readonly tiles: Map<
    string,
    { samples: number; good: number; done: boolean; light: number; leftOut: number; readonly pixels: number }
  >;
  private readonly pixels: number;

  constructor(
    tiles: readonly Tile[],
    private readonly most: number,
  ) {
    this.tiles = new Map(
      tiles.map((t) => {
        const none = { samples: 0, good: 0, done: false, light: 0, leftOut: 0 };
        return [key(t), { ...none, pixels: t.width * t.height }] as const;
      }),
    );
    this.pixels = tiles.reduce((n, t) => n + t.width * t.height, 0);
  }

  /** @param done whether all pixels of the tile have converged */
  take(tile: Tile, samples: number, sums: Float64Array, done: boolean): Traced {
    const of = this.tiles.get(key(tile))!;
    Object.assign(of, { samples, ...lightIn(sums) });
    of.good = done ? of.pixels : goodIn(sums, samples);
    of.done = done || samples >= this.most;
    let [least, all, spent, left, light, leftOut] = [this.most, 0, 0, 0, 0, 0];
    for (const t of this.tiles.values()) {
      if (!t.done) least = Math.min(least, t.samples);
      all += t.samples >= this.most ? t.pixels : t.good;
      spent += t.pixels * t.samples;
      light += t.light;
      leftOut += t.leftOut;
      if (!t.done) left += (t.pixels - t.good) * (this.most - t.samples);
    }
    const seconds = (performance.now() - this.begun) / 1000;
    return {
      type: 'picture',
      samples: least,
      of: this.most,
      good: all / this.pixels,
      // Assumes no further convergence: it will rather be sooner.
      spent: seconds,
      pixels: this.pixels,
      left: seconds < SURE ? null : (left * seconds) / Math.max(1, spent),
      leftOut: leftOut > 0 ? leftOut / (light + leftOut) : 0,
    };
  }
}

const key = ({ x, y }: Tile) => `${x},${y}`;

/** Pixels with fewer samples than possible, since they have converged. */
function goodIn(sums: Float64Array, samples: number): number {
  let good = 0;
  for (let i = COUNT; i < sums.length; i += SUMS) if (sums[i] < samples) good++;
  return good;
}

/** Total luminance, and what was clamped. */
function lightIn(sums: Float64Array): { light: number; leftOut: number } {
  let [light, leftOut] = [0, 0];
  for (let i = 0; i < sums.length; i += SUMS) {
    const all = (k: number) => sums[i + k] + sums[i + COUNT + 1 + k];
    light += (0.2126 * all(0) + 0.7152 * all(1) + 0.0722 * all(2)) / sums[i + COUNT];
    leftOut += sums[i + CLAMPED] / sums[i + COUNT];
  }
  return { light, leftOut };
}

/** A share with as many digits as are meaningful. */
export function aboutShare(share: number): string {
  if (share === 0) return 'nothing';
  if (share < 0.0005) return 'less than 0.1 %';
  return `${share < 0.1 ? (100 * share).toFixed(1) : Math.round(100 * share)} %`;
}

/** A duration as one says it. */
export function aboutTime(seconds: number): string {
  if (seconds < 1) return 'a second';
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  return `${Math.round(seconds / 3600)} h`;
}
