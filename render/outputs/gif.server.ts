import path from 'node:path';
import { rmSync } from 'node:fs';
import { FFMPEG, run } from '../files/program';
import { rateOf, withNumbered, type Maker } from './maker';

const DOTS = { even: 'bayer:bayer_scale=3', strewn: 'sierra2_4a', none: 'none' } as const;

/** GIF (GIF89a) with one palette, made of all frames of the loop, so that no frame is coloured otherwise than its neighbours. */
export const gif: Maker = async (making) => {
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
  return [name];
};
