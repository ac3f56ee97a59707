import { spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { outputs } from '@maypole/core/output/index';
import type { PixelSize } from '@maypole/core/output/kind';
import { FFMPEG } from '../files/program';
import { eightBits, decodePng } from '../files/png';

/** Longest side of compared pictures, in pixels. */
const SIDE = 480;

/** The size at which pictures of a size are compared. */
export function comparedSize({ width, height }: PixelSize): PixelSize {
  const by = Math.min(1, SIDE / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * by)), height: Math.max(1, Math.round(height * by)) };
}

/** Whether an output is a movie, as opposed to an animated picture. */
const isMovie = (kind: string) => outputs.has(kind) && outputs.get(kind).group === 'movies';

/** Decoders that read alpha where the default one drops it. */
const DECODERS: Readonly<Record<string, readonly string[]>> = { webm: ['-c:v', 'libvpx-vp9'] };

/** Pictures of a movie or animated picture, reduced, over black. */
export async function* fromMovie(file: string, { width, height }: PixelSize, kind = ''): AsyncGenerator<Uint8Array> {
  // Only movies separate luma and chroma; their colours are converted back exactly.
  const shown = isMovie(kind)
    ? 'zscale=matrixin=709:rangein=limited:primariesin=709:transferin=709:matrix=gbr:range=full:dither=none'
    : 'null';
  const child = spawn(
    FFMPEG,
    [
      ...['-nostdin', '-hide_banner', '-v', 'error', ...(DECODERS[kind] ?? []), '-i', file],
      ...['-vf', `${shown},format=gbrap,premultiply=inplace=1,scale=${width}:${height}:flags=area,format=rgb24`],
      ...['-fps_mode', 'passthrough', '-f', 'rawvideo', 'pipe:1'],
    ],
    { stdio: ['ignore', 'pipe', 'ignore'] },
  );
  const bytes = 3 * width * height;
  let rest: Buffer = Buffer.alloc(0);
  try {
    for await (const chunk of child.stdout) {
      rest = rest.length === 0 ? (chunk as Buffer) : Buffer.concat([rest, chunk as Buffer]);
      while (rest.length >= bytes) {
        yield new Uint8Array(rest.subarray(0, bytes));
        rest = rest.subarray(bytes);
      }
    }
  } finally {
    child.kill('SIGKILL');
  }
}

/** A picture reduced, over black: red, green and blue. */
async function small(picture: Sharp, { width, height }: PixelSize): Promise<Uint8Array> {
  const data = await picture
    .flatten({ background: '#000' })
    .toColourspace('srgb')
    .resize(width, height, { fit: 'fill', kernel: 'linear' })
    .removeAlpha()
    .raw()
    .toBuffer();
  return new Uint8Array(data);
}

/** Pictures of files, reduced, over black. */
export async function* fromFiles(files: Iterable<string>, size: PixelSize): AsyncGenerator<Uint8Array> {
  for (const file of files) yield small(sharp(file), size);
}

/** The same for frame images, as often as they are played. */
export async function* fromSheets(
  sheet: (index: number) => string,
  frames: number,
  plays: number,
  size: PixelSize,
): AsyncGenerator<Uint8Array> {
  for (let i = 0; i < frames * plays; i++) {
    const picture = decodePng(await readFile(sheet(i % frames)));
    const raw = { width: picture.width, height: picture.height, channels: 4 } as const;
    yield small(sharp(eightBits(picture), { raw }), size);
  }
}
