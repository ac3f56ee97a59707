import type { Tile } from '@maypole/core/trace/tracer';

/** Pixels each way of a tile. */
const SIDE = 48;

/** The tiles of a picture, those in the middle first: that is where one looks. */
export function tilesOf(width: number, height: number): readonly Tile[] {
  const tiles: Tile[] = [];
  for (let y = 0; y < height; y += SIDE)
    for (let x = 0; x < width; x += SIDE)
      tiles.push({ x, y, width: Math.min(SIDE, width - x), height: Math.min(SIDE, height - y) });
  const away = (t: Tile) => Math.hypot(t.x + t.width / 2 - width / 2, t.y + t.height / 2 - height / 2);
  return tiles.sort((a, b) => away(a) - away(b) || a.y - b.y || a.x - b.x);
}

/** Numbers of samples after which a picture is shown: each round as many again as there were. */
export function roundsOf(samples: number): readonly number[] {
  const out: number[] = [];
  for (let n = 1; n < samples; n *= 2) out.push(n);
  return [...out, samples];
}
