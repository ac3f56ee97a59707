import { describe, expect, it } from 'vitest';
import { roundsOf, tilesOf } from './tiles';

describe('tiles of a picture', () => {
  it.each([
    [100, 70],
    [48, 48],
    [1, 1],
    [890, 545],
  ])('cover every pixel of %i × %i once, the middle first', (width, height) => {
    const tiles = tilesOf(width, height);
    const times = new Uint8Array(width * height);
    for (const t of tiles)
      for (let y = t.y; y < t.y + t.height; y++)
        times.fill(times[y * width + t.x] + 1, y * width + t.x, y * width + t.x + t.width);
    expect(times.every((n) => n === 1)).toBe(true);
    const away = tiles.map((t) => Math.hypot(t.x + t.width / 2 - width / 2, t.y + t.height / 2 - height / 2));
    expect(away[0]).toBe(Math.min(...away));
    expect(away.at(-1)).toBe(Math.max(...away));
  });
  it('get as many samples again in each round, and end with as many as they are to have', () => {
    expect(roundsOf(1)).toEqual([1]);
    expect(roundsOf(16)).toEqual([1, 2, 4, 8, 16]);
    expect(roundsOf(20)).toEqual([1, 2, 4, 8, 16, 20]);
  });
});
