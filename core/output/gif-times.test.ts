import { expect, it } from 'vitest';
import { newItem, newPiece } from '../piece/piece';
import { outputFault } from '../piece/delivery-fault';
import { gifDelays, gifEvery } from './gif-times';
import { outputs } from './index';

it.each([
  [24, 96, 1],
  [25, 100, 1],
  [30, 90, 1],
  [50, 100, 1],
  [60, 240, 2],
  [59.94, 240, 2],
  [100, 300, 2],
  [120, 480, 3],
  [120, 80, 4],
])('at %f frames a second, %i of them, a GIF has one of %i, and their times are the loop', (fps, frames, every) => {
  expect(gifEvery(fps, frames)).toBe(every);
  const delays = gifDelays(fps, frames, every);
  expect(delays).toHaveLength(frames / every);
  // Players show a picture of one hundredth, or of none, for ten (common practice).
  expect(Math.min(...delays)).toBeGreaterThanOrEqual(2);
  const whole = delays.reduce((a, b) => a + b, 0) / 100;
  expect(Math.abs(whole - frames / (fps === 59.94 ? 60_000 / 1001 : fps))).toBeLessThanOrEqual(0.005);
});

it('what no whole part of makes a loop is refused, with the remedy', () => {
  expect(gifEvery(60, 121)).toBeNull();
  const piece = { ...newPiece(), loop: { frames: 121, fps: 60 } };
  expect(outputFault(piece, newItem(outputs.get('gif')))).toMatch(
    /121 frames at 60.*a frame rate up to 50, or a number of frames that 2 goes into/,
  );
  expect(outputFault({ ...piece, loop: { frames: 120, fps: 60 } }, newItem(outputs.get('gif')))).toBeNull();
});

it.each(['av1', 'avif', 'hevc'])('%s of a size that its encoder refuses is refused before', (kind) => {
  const of = (width: number, height: number) =>
    outputFault({ ...newPiece(), format: { width, height } }, newItem(outputs.get(kind)));
  expect(of(64, 48)).toContain('at least 64 pixels a side, and this is 64 × 48');
  expect(of(64, 64)).toBeNull();
});
