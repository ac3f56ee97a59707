import { newItem, newPiece, newRibbon, type Piece } from '@maypole/core/piece/piece';
import { outputs } from '@maypole/core/output/index';
import { describe, expect, it } from 'vitest';
import { planOf, renderOptions } from './render-options';

const options = (...args: string[]) => renderOptions(['a.json', '--to', '/tmp/out', ...args]);
const piece: Piece = {
  ...newPiece('Plan'),
  loop: { frames: 24, fps: 25 },
  outputs: [newItem(outputs.get('mp4')), { ...newItem(outputs.get('gif')), on: false }],
  ribbons: [newRibbon('box', 0)],
};

describe('what is asked for when files are rendered', () => {
  it('is taken as it is said', () => {
    expect(
      options('--output', 'png,exr', '--output', 'mp4', '--frames', '3-9', '--size', '320x200', '--samples', '16'),
    ).toEqual({
      file: 'a.json',
      to: '/tmp/out',
      outputs: ['png', 'exr', 'mp4'],
      frames: [3, 9],
      size: { width: 320, height: 200 },
      samples: 16,
      keepFrames: false,
    });
    expect(
      options('--frames', '7', '--denoise', 'off', '--keep-frames', '--threads', '2', '--error', '1.5'),
    ).toMatchObject({
      frames: [7, 7],
      denoise: false,
      keepFrames: true,
      threads: 2,
      error: 1.5,
    });
  });
  it.each([
    [[], 'Name one piece file to render'],
    [['a.json'], 'Say which folder the files go to'],
    [['a.json', 'b.json', '--to', 'x'], 'Name one piece file'],
    [
      ['a.json', '--to', 'x', '--output', 'gramophone'],
      '--output gramophone is no kind of output; use one of mp4, hevc',
    ],
    [['a.json', '--to', 'x', '--frames', 'all'], '--frames all should be as 0-99, or as 12'],
    [['a.json', '--to', 'x', '--size', '8x8'], '--size 8x8 should be as 1080x1080, each side from 16 to 8192'],
    [['a.json', '--to', 'x', '--samples', '0'], '--samples 0 should be a whole number from 1 to 65536'],
    [['a.json', '--to', 'x', '--denoise', 'maybe'], '--denoise maybe should be on or off'],
    [['a.json', '--to', 'x', '--light', 'quick'], 'There is no option --light'],
    [['a.json', '--to'], '--to needs a value after it'],
  ])('%j is refused in a sentence', (args, words) => expect(() => renderOptions(args)).toThrow(words));
});

describe('what is rendered of a piece', () => {
  it('is its own outputs that are on, the whole loop, in true light', () => {
    const { items, frames, size, settings } = planOf(piece, options());
    expect(items.map((i) => i.kind)).toEqual(['mp4']);
    expect([frames.length, frames[23], size, settings.light]).toEqual([24, 23, { width: 1080, height: 1080 }, 'true']);
  });
  it('is what was asked for besides, with the values of the piece where it has them', () => {
    const own = { ...piece, outputs: [newItem(outputs.get('png'), { depth: '16' })] };
    const { items, frames, settings } = planOf(
      own,
      options('--output', 'png,gif', '--frames', '20-22', '--samples', '5'),
    );
    expect(items.map((i) => [i.kind, i.values.depth])).toEqual([
      ['png', '16'],
      ['gif', undefined],
    ]);
    expect([frames, settings.samples]).toEqual([[20, 21, 22], 5]);
  });
  it('is refused where it cannot be made, by its name', () => {
    expect(() => planOf(piece, options('--frames', '0-24'))).toThrow('whose last frame is 23');
    expect(() => planOf(piece, options('--size', '321x200'))).toThrow('MP4 movie: A movie needs even numbers');
    expect(() => planOf({ ...piece, outputs: [] }, options())).toThrow('has no outputs; say which to make');
    const odd = { ...piece, render: { ...piece.render, values: { ...piece.render.values, name: '{x}' } } };
    expect(() => planOf(odd, options())).toThrow('“{x}”');
  });
});
