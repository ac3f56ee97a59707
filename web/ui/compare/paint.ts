import { pictureOf, type Film } from '@/engine/draw/film';

export const WAYS = { beside: 'Beside', wipe: 'Wipe', difference: 'Difference' } as const;
export type CompareWay = keyof typeof WAYS;

/** Pixels between two pictures side by side. */
const GAP = 12;
/** Amplification of the difference. */
export const STRONGER = 4;

/** Size of both together, in pixels. */
export function canvasSize([a, b]: readonly [Film, Film], way: CompareWay): { width: number; height: number } {
  const height = Math.max(a.height, b.height);
  return { width: way === 'beside' ? a.width + GAP + b.width : Math.max(a.width, b.width), height };
}

/**
 * Paints two films at a fraction of their loops.
 *
 * @param wipe where the second begins, as a fraction of the width
 */
export function paint(
  context: CanvasRenderingContext2D,
  films: readonly [Film, Film],
  shares: readonly [number, number],
  way: CompareWay,
  wipe: number,
): void {
  const { width, height } = canvasSize(films, way);
  context.clearRect(0, 0, width, height);
  const [a, b] = films.map((film, k) => ({ film, picture: pictureOf(film, shares[k]) }));
  const put = ({ film, picture }: typeof a, left: number) => {
    if (picture) context.drawImage(picture, left, Math.round((height - film.height) / 2));
  };
  if (way === 'beside') {
    put(a, 0);
    put(b, a.film.width + GAP);
    return;
  }
  put(a, Math.round((width - a.film.width) / 2));
  context.save();
  if (way === 'wipe') {
    context.beginPath();
    context.rect(wipe * width, 0, width, height);
    context.clip();
    context.clearRect(0, 0, width, height);
  } else context.globalCompositeOperation = 'difference';
  put(b, Math.round((width - b.film.width) / 2));
  context.restore();
  if (way !== 'difference') return;
  // Added to itself to amplify it.
  context.save();
  context.globalCompositeOperation = 'lighter';
  for (let times = 1; times < STRONGER; times *= 2) context.drawImage(context.canvas, 0, 0);
  context.restore();
}
