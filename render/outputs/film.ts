import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { newPiece } from '@maypole/core/piece/piece';
import sharp from 'sharp';
import { encode } from './exporter';
import { h264 } from './mp4.server';

/** Most pictures of a film strip, and most pixels of all together. */
export const [MOST_PICTURES, MOST_FILM_PIXELS] = [64, 80_000_000];

/** A film strip that cannot become a movie, and what to do about it. */
export class FilmProblem extends Error {}

/**
 * Turns a film strip, equal pictures stacked in one PNG, into an H.264 movie of one loop.
 *
 * @param pictures their number; the strip's height is a multiple of it, and both sides of a picture are even
 * @param fps pictures per second
 * @returns the movie's file, in the folder
 * @throws FilmProblem if the strip is not as described
 */
export async function filmMovie(film: string, pictures: number, fps: number, folder: string): Promise<string> {
  const meta = await sharp(film, { limitInputPixels: MOST_FILM_PIXELS })
    .metadata()
    .catch(() => null);
  if (meta?.format !== 'png') throw new FilmProblem('This is not a PNG picture, which the film must be.');
  const { width, height } = meta;
  const tall = height / pictures;
  if (width * height > MOST_FILM_PIXELS)
    throw new FilmProblem(
      `This film has ${width} × ${height} pixels, and ${MOST_FILM_PIXELS / 1e6} million are the most; make it smaller.`,
    );
  if (!Number.isInteger(tall) || tall % 2 !== 0 || width % 2 !== 0)
    throw new FilmProblem(
      `A film of ${width} × ${height} pixels does not fall into ${pictures} pictures whose sides are even numbers.`,
    );
  // Decoded once, because a PNG can only be read from the top.
  const { data } = await sharp(film).flatten({ background: '#000' }).raw().toBuffer({ resolveWithObject: true });
  const raw = { width, height: tall, channels: 3 } as const;
  const size = width * tall * 3;
  mkdirSync(folder, { recursive: true });
  const sheet = (i: number) => path.join(folder, `${i}.png`);
  for (let i = 0; i < pictures; i++)
    writeFileSync(
      sheet(i),
      await sharp(data.subarray(i * size, (i + 1) * size), { raw })
        .png()
        .toBuffer(),
    );
  const name = await encode(
    {
      values: {},
      size: { width, height: tall },
      piece: { ...newPiece('Film'), loop: { frames: pictures, fps } },
      frames: Array.from({ length: pictures }, (_, i) => i),
      sheet,
      folder,
      base: 'film',
      frameName: (i) => `${i}.png`,
      ending: 'mp4',
    },
    h264({ quality: 'good', whole: false }),
  );
  return path.join(folder, name);
}
