import type { Tile } from './tile-result';

/** Width and height of a tile in pixels. */
const SIDE = 48;
/** Most pixels of a tile. */
export const TILE_PIXELS = SIDE * SIDE;

/**
 * Tiles of a picture, nearest to a point of interest first.
 *
 * @param place that point, 0…1 from the left and from the top
 */
export function tilesOf(width: number, height: number, place: readonly [number, number] = [0.5, 0.5]): readonly Tile[] {
  const tiles: Tile[] = [];
  for (let y = 0; y < height; y += SIDE)
    for (let x = 0; x < width; x += SIDE)
      tiles.push({ x, y, width: Math.min(SIDE, width - x), height: Math.min(SIDE, height - y) });
  const away = (t: Tile) => Math.hypot(t.x + t.width / 2 - width * place[0], t.y + t.height / 2 - height * place[1]);
  return tiles.sort((a, b) => away(a) - away(b) || a.y - b.y || a.x - b.x);
}

/**
 * Sample counts after which a picture is shown and tested for convergence: each round doubles them. The same for every
 * machine, since the samples of a pixel depend on it.
 */
export function roundsOf(samples: number): readonly number[] {
  const out: number[] = [];
  for (let n = 1; n < samples; n *= 2) out.push(n);
  return [...out, samples];
}
