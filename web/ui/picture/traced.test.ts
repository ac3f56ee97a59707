import { tilesOf } from '@maypole/core/trace/paths/tiles';
import { COUNT, CLAMPED, SUMS } from '@maypole/core/trace/paths/tile-result';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { aboutShare, aboutTime, Progress } from './traced';

describe('how far a picture in true light has come', () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());
  const tiles = tilesOf(96, 48);
  const pixels = 48 * 48;
  /** Sums of a tile of which so many pixels are good: those have a sample less. */
  const sums = (samples: number, good: number, [light, out] = [1, 0]) => {
    const of = new Float64Array(SUMS * pixels);
    for (let i = 0; i < pixels; i++) {
      const n = samples - (i < good ? 1 : 0);
      for (let k = 0; k < 3; k++) of[SUMS * i + k] = light * n;
      of[SUMS * i + COUNT] = n;
      of[SUMS * i + CLAMPED] = out * n;
    }
    return of;
  };

  it('is that of the tile that is least far', () => {
    const progress = new Progress(tiles, 64);
    expect(progress.take(tiles[0], 4, sums(4, 0), false)).toMatchObject({ samples: 0, of: 64, good: 0 });
    expect(progress.take(tiles[1], 2, sums(2, 0), false)).toMatchObject({ samples: 2 });
  });
  it('leaves out tiles that are good: they get no more', () => {
    const progress = new Progress(tiles, 64);
    progress.take(tiles[0], 8, sums(8, pixels), true);
    expect(progress.take(tiles[1], 16, sums(16, pixels / 2), false)).toMatchObject({ samples: 16, good: 0.75 });
    expect(progress.take(tiles[1], 64, sums(64, 0), false)).toMatchObject({ good: 1, left: null });
  });
  it('says how long it will take once that can be told, and less as it goes on', () => {
    const progress = new Progress(tiles, 64);
    expect(progress.take(tiles[0], 8, sums(8, 0), false)).toMatchObject({ left: null });
    vi.advanceTimersByTime(8000);
    // An eighth of both tiles in eight seconds.
    const first = progress.take(tiles[1], 8, sums(8, 0), false);
    expect(first.type === 'picture' && first.left).toBeCloseTo(56, 3);
    vi.advanceTimersByTime(8000);
    progress.take(tiles[0], 16, sums(16, 0), false);
    const second = progress.take(tiles[1], 16, sums(16, pixels / 2), false);
    expect(second.type === 'picture' && second.left).toBeCloseTo(36, 3);
  });
  it('tells what share of the light is above the limit, over all tiles', () => {
    const progress = new Progress(tiles, 64);
    expect(progress.take(tiles[0], 8, sums(8, 0, [3, 1]), false)).toMatchObject({ leftOut: 0.25 });
    const both = progress.take(tiles[1], 8, sums(8, 0, [6, 0]), false);
    expect(both.type === 'picture' && both.leftOut).toBeCloseTo(0.1, 9);
    expect([0, 0.0001, 0.0123, 0.1, 0.256].map(aboutShare)).toEqual([
      'nothing',
      'less than 0.1 %',
      '1.2 %',
      '10 %',
      '26 %',
    ]);
  });
  it('is said as one says times', () => {
    expect([0.2, 5.4, 89, 91, 600, 5399, 9000].map(aboutTime)).toEqual([
      'a second',
      '5 s',
      '89 s',
      '2 min',
      '10 min',
      '90 min',
      '3 h',
    ]);
  });
});
