import { tilesOf } from '@maypole/core/trace/tiles';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { aboutTime, Progress } from './traced';

describe('how far a picture in true light has come', () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());
  const tiles = tilesOf(96, 48);
  const pixels = 48 * 48;

  it('is that of the tile that is least far', () => {
    const progress = new Progress(tiles, 64);
    expect(progress.take(tiles[0], 4, 0, false)).toMatchObject({ samples: 0, of: 64, good: 0 });
    expect(progress.take(tiles[1], 2, 0, false)).toMatchObject({ samples: 2 });
  });
  it('leaves out tiles that are good: they get no more', () => {
    const progress = new Progress(tiles, 64);
    progress.take(tiles[0], 8, pixels, true);
    expect(progress.take(tiles[1], 16, pixels / 2, false)).toMatchObject({ samples: 16, good: 0.75 });
    expect(progress.take(tiles[1], 64, 0, false)).toMatchObject({ good: 1, left: null });
  });
  it('says how long it will take once that can be told, and less as it goes on', () => {
    const progress = new Progress(tiles, 64);
    expect(progress.take(tiles[0], 8, 0, false)).toMatchObject({ left: null });
    vi.advanceTimersByTime(8000);
    // An eighth of both tiles in eight seconds.
    const first = progress.take(tiles[1], 8, 0, false);
    expect(first.type === 'picture' && first.left).toBeCloseTo(56, 3);
    vi.advanceTimersByTime(8000);
    progress.take(tiles[0], 16, 0, false);
    const second = progress.take(tiles[1], 16, pixels / 2, false);
    expect(second.type === 'picture' && second.left).toBeCloseTo(36, 3);
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
