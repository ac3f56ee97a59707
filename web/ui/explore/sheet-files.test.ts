import { expect, it } from 'vitest';
import { layoutOf } from './sheet-files';

it.each([1, 2, 13, 25, 61])('%i tiles stand beside each other in a picture with even sides', (count) => {
  const tile = { width: 151, height: 113 };
  const { width, height, at } = layoutOf(count, tile);
  expect([width % 2, height % 2]).toEqual([0, 0]);
  const places = Array.from({ length: count }, (_, i) => at(i));
  for (const [i, [x, y]] of places.entries()) {
    expect(x).toBeGreaterThanOrEqual(8);
    expect(x + tile.width + 8).toBeLessThanOrEqual(width);
    expect(y + tile.height + 8).toBeLessThanOrEqual(height);
    for (const [u, v] of places.slice(0, i))
      expect(Math.abs(x - u) >= tile.width + 8 || Math.abs(y - v) >= tile.height + 8).toBe(true);
  }
});
