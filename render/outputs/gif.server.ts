import { rmSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { gifDelays, gifEvery } from '@maypole/core/output/gif-times';
import { gifTimes } from '../files/gif';
import { FFMPEG, run } from '../files/program';
import { rateOf, withNumbered, type Exporter, type ExportJob } from './exporter';

const DOTS = { even: 'bayer:bayer_scale=3', strewn: 'sierra2_4a', none: 'none' } as const;

/** The frames of a GIF: all, or so few that each lasts as long as players support. */
export function shownIn(making: ExportJob): { readonly making: ExportJob; readonly every: number } {
  const { frames, piece, sheet } = making;
  const every = gifEvery(piece.loop.fps, frames.length) ?? 1;
  if (every === 1) return { making, every };
  return {
    making: { ...making, frames: frames.filter((_, i) => i % every === 0), sheet: (i) => sheet(i * every) },
    every,
  };
}

/** GIF (GIF89a) with one palette for all frames, so that no frame is coloured differently from its neighbours. */
export const gif: Exporter = async (asked) => {
  const { making, every } = shownIn(asked);
  const { dots } = making.values as { dots: keyof typeof DOTS };
  const name = `${making.base}.gif`;
  const palette = path.join(making.folder, `${making.base}.palette.png`);
  const quiet = ['-nostdin', '-hide_banner', '-v', 'error', '-y'];
  try {
    await withNumbered(
      making,
      async (input) => {
        const { signal } = making;
        await run(FFMPEG, [...quiet, ...input, '-vf', 'palettegen=stats_mode=full:reserve_transparent=0', palette], {
          signal,
        });
        making.onShare?.(0.5);
        const use = `paletteuse=dither=${DOTS[dots]}:diff_mode=none`;
        await run(
          FFMPEG,
          [
            ...quiet,
            ...input,
            ...['-i', palette, '-lavfi', use, '-loop', '0'],
            ...['-frames:v', `${making.frames.length}`, '-fps_mode', 'passthrough', '-bitexact'],
            path.join(making.folder, name),
          ],
          { signal },
        );
      },
      rateOf(making.piece),
      true,
    );
  } finally {
    rmSync(palette, { force: true });
  }
  const file = path.join(making.folder, name);
  const bytes = await readFile(file);
  gifTimes(bytes, gifDelays(making.piece.loop.fps, asked.frames.length, every));
  await writeFile(file, bytes);
  return [name];
};
