import { widened } from '../declare/widen';
import { choice, number, type Evaluated, type Params } from '../declare/params';
import type { Loop } from '../time/loop';

/** Pixels. */
export interface PixelSize {
  readonly width: number;
  readonly height: number;
}

/**
 * A kind of file that a piece is delivered as, declared once in a file of its own: words, settings,
 * limits, names. What encodes it is its pair file (`web/engine/outputs/<kind>.browser.ts`).
 */
export interface OutputKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** A few words. */
  readonly help: string;
  /** Name of a drawing in `web/ui/parts/icons.tsx`, or path data of one of its own, 24 × 24: "M4 12h16". */
  readonly icon: string;
  readonly params: P;
  /** Ending of the file that is handed over, without a dot. */
  readonly ending: string;
  /** Its files can be see-through. */
  readonly alpha?: boolean;
  /** Why a picture of this size cannot be made into it, with the remedy; null where it can. */
  refusal(size: PixelSize): string | null;
  /** What is in the file, in a few words, for its name and so many frames. */
  contents(base: string, frames: readonly number[], loop: Loop): string;
}

export const LOOKS = [
  { value: 'shaded', title: 'Shaded' },
  { value: 'edges', title: 'Edges' },
  { value: 'clay', title: 'Clay' },
] as const;

/** Settings of everything that is made of pictures: which frames, in which detail, how they look. */
export const pictureParams = {
  detail: choice(
    'Detail',
    'final',
    [
      { value: 'final', title: 'Final' },
      { value: 'draft', title: 'Draft' },
    ],
    'Draft is quicker, to try things out.',
  ),
  look: choice('Look', 'shaded', LOOKS, 'As it is, with the edges of its faces, or in clay.'),
  range: choice(
    'Frames',
    'all',
    [
      { value: 'all', title: 'Whole loop' },
      { value: 'part', title: 'A part' },
    ],
    'The whole loop, or some of its frames.',
  ),
  from: number('From', 0, 'The first frame that is made.', {
    min: 0,
    max: 19_999,
    soft: [0, 300],
    integer: true,
    moves: false,
    shownWhen: { param: 'range', is: ['part'] },
  }),
  to: number('To', 24, 'The last frame that is made.', {
    min: 0,
    max: 19_999,
    soft: [0, 300],
    integer: true,
    moves: false,
    shownWhen: { param: 'range', is: ['part'] },
  }),
  subframes: number(
    'Sub-frames',
    8,
    'Pictures whose average each frame is: more make cleaner edges, softer shadows and blur.',
    {
      min: 1,
      max: 1024,
      soft: [1, 128],
      integer: true,
      moves: false,
    },
  ),
} as const;

export type PictureSettings = Evaluated<typeof pictureParams>;

/** The frames that settings ask for in a loop of so many, in playing order. */
export function framesWanted(v: Pick<PictureSettings, 'range' | 'from' | 'to'>, frames: number): number[] {
  if (v.range === 'all') return Array.from({ length: frames }, (_, i) => i);
  const [first, last] = [v.from, v.to].map((f) => Math.min(f, frames - 1)).sort((a, b) => a - b);
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}

/** Name of a picture in a sequence: the frame number with as many digits as the last one of the loop has, at least four. */
export function frameName(base: string, frame: number, frames: number, ending = 'png'): string {
  return `${base}-${String(frame).padStart(Math.max(4, String(frames - 1).length), '0')}.${ending}`;
}

/** "halo-1080x1080", from the name of a piece and the size. */
export function baseName(name: string, { width, height }: PixelSize): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/gi, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return `${plain || 'piece'}-${width}x${height}`;
}

/** Movies have their colours at half the size, so that sides must be even. */
export function evenSides({ width, height }: PixelSize): string | null {
  return width % 2 || height % 2
    ? `A movie needs even numbers of pixels, and this is ${width} × ${height}; use ${width + (width % 2)} × ${height + (height % 2)}.`
    : null;
}

/**
 * Declares a kind of output.
 *
 * @example
 * export const webm = defineOutput({ kind: 'webm', title: 'WebM movie', help: 'VP9', icon: 'film', ending:
 * 'webm', params: pictureParams, refusal: evenSides, contents: (base) => `${base}.webm` });
 */
export function defineOutput<const P extends Params>(output: OutputKind<P>): OutputKind {
  return widened(output);
}
