import { describe, expect, it } from 'vitest';
import { pictureOf, type Film } from '@/engine/draw/film';
import { canvasSize, paint, STRONGER, type CompareWay } from './paint';

/** A film of so many pictures, of which some are there; each is a text with its number. */
const film = (width: number, height: number, there: readonly number[], of = 8): Film => ({
  width,
  height,
  pictures: Array.from({ length: of }, (_, i) => (there.includes(i) ? (`#${i}` as never) : null)),
});

describe('a film that fills in', () => {
  it('shows the nearest picture before the moment, round the seam too', () => {
    const some = film(10, 10, [0, 4]);
    expect([0, 0.3, 0.5, 0.99, 1, 1.6, -0.1].map((s) => pictureOf(some, s))).toEqual([
      '#0',
      '#0',
      '#4',
      '#4',
      '#0',
      '#4',
      '#4',
    ]);
    expect(pictureOf(film(10, 10, [5]), 0)).toBe('#5');
    expect(pictureOf(film(10, 10, []), 0.5)).toBeNull();
  });
});

/** Notes what is asked of a canvas. */
function noted(films: readonly [Film, Film], way: CompareWay, wipe = 0.5) {
  const calls: unknown[][] = [];
  const note =
    (name: string) =>
    (...given: unknown[]) =>
      void calls.push([name, ...given]);
  const context = {
    canvas: 'itself',
    globalCompositeOperation: 'source-over',
    clearRect: note('clear'),
    drawImage: (...given: unknown[]) => void calls.push(['draw', ...given, context.globalCompositeOperation]),
    save: note('save'),
    restore: () => {
      context.globalCompositeOperation = 'source-over';
    },
    beginPath: note('begin'),
    rect: note('rect'),
    clip: note('clip'),
  };
  paint(context as never, films, [0, 0], way, wipe);
  return calls.filter(([name]) => name === 'draw' || name === 'rect');
}

describe('two films', () => {
  const films = [film(100, 50, [0]), film(60, 80, [0])] as const;

  it('stand beside each other, each in the middle of the height', () => {
    expect(canvasSize(films, 'beside')).toEqual({ width: 172, height: 80 });
    expect(noted(films, 'beside')).toEqual([
      ['draw', '#0', 0, 15, 'source-over'],
      ['draw', '#0', 112, 0, 'source-over'],
    ]);
  });

  it('are wiped: the second begins at a share of the width', () => {
    expect(canvasSize(films, 'wipe')).toEqual({ width: 100, height: 80 });
    expect(noted(films, 'wipe', 0.25)).toEqual([
      ['draw', '#0', 0, 15, 'source-over'],
      ['rect', 25, 0, 100, 80],
      ['draw', '#0', 20, 0, 'source-over'],
    ]);
  });

  it('differ as light, so many times as strong', () => {
    const calls = noted(films, 'difference');
    expect(calls[1]).toEqual(['draw', '#0', 20, 0, 'difference']);
    const added = calls.slice(2);
    expect(added.every((c) => c[1] === 'itself' && c[4] === 'lighter')).toBe(true);
    expect(2 ** added.length).toBe(STRONGER);
  });
});
