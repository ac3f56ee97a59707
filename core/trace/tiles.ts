import type { Tile } from './worked';

/** Pixels each way of a tile. */
const SIDE = 48;
/** How many it has at most. */
export const TILE_PIXELS = SIDE * SIDE;

/**
 * The tiles of a picture, those about a place first: that is where one looks.
 *
 * @param place where, 0…1 from the left and from the top
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
 * Numbers of samples after which a picture is shown, and after which it is looked at where it is good already: each
 * round as many again as there were. The same for whoever traces it, since what a pixel gets depends on it.
 */
export function roundsOf(samples: number): readonly number[] {
  const out: number[] = [];
  for (let n = 1; n < samples; n *= 2) out.push(n);
  return [...out, samples];
}
