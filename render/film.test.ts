import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { filmMovie, FilmProblem } from './outputs/film';

const [WIDE, TALL, PICTURES] = [64, 48, 6];
let folder = '';
beforeAll(() => void (folder = mkdtempSync(path.join(tmpdir(), 'maypole-film-'))));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A film whose pictures are plain greys, each brighter than the one before. */
async function film(name: string, height = TALL * PICTURES, width = WIDE): Promise<string> {
  const data = Buffer.alloc(width * height * 3);
  for (let y = 0; y < height; y++) data.fill(30 + 30 * Math.floor(y / TALL), y * width * 3, (y + 1) * width * 3);
  const file = path.join(folder, name);
  await sharp(data, { raw: { width, height, channels: 3 } })
    .png()
    .toFile(file);
  return file;
}

describe('a film as a movie', () => {
  it('has every picture once, in order, at its rate and in its colours, by ffprobe and ffmpeg', async () => {
    const made = await filmMovie(await film('a.png'), PICTURES, 24 / 1.001, path.join(folder, 'a'));
    const probe = JSON.parse(
      execFileSync('ffprobe', [
        ...['-v', 'error', '-count_frames', '-of', 'json'],
        ...['-show_entries', 'stream=width,height,nb_read_frames,r_frame_rate,codec_name,color_space', made],
      ]).toString(),
    ) as { streams: Record<string, unknown>[] };
    expect(probe.streams).toEqual([
      {
        codec_name: 'h264',
        width: WIDE,
        height: TALL,
        color_space: 'bt709',
        r_frame_rate: '24000/1001',
        nb_read_frames: `${PICTURES}`,
      },
    ]);
    const grey = execFileSync('ffmpeg', ['-v', 'error', '-i', made, '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-']);
    for (let i = 0; i < PICTURES; i++)
      expect(Math.abs(grey[i * WIDE * TALL * 3 + 3 * 500] - (30 + 30 * i))).toBeLessThanOrEqual(2);
  });
  it('is refused with what is wrong', async () => {
    const refused = (file: string, pictures = PICTURES) => filmMovie(file, pictures, 4, path.join(folder, 'none'));
    await expect(refused(await film('odd.png', TALL * PICTURES, 63))).rejects.toThrow('63 × 288');
    await expect(refused(await film('b.png'), 5)).rejects.toThrow(FilmProblem);
    await expect(refused(import.meta.filename)).rejects.toThrow('not a PNG');
  });
});
