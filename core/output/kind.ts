import { widened } from '../declare/widen';
import type { Evaluated, Params } from '../declare/params';
import type { FrameImageName } from './frame-image';

/** Pixels. */
export interface PixelSize {
  readonly width: number;
  readonly height: number;
}

/** By what an output is made: pictures that a browser draws, or every ray followed. */
export type LightKind = 'quick' | 'true';

/** What an output is asked for, as its limits are about it. */
export interface Asked<V = Readonly<Record<string, unknown>>> {
  readonly size: PixelSize;
  readonly light: LightKind;
  /** How many frames are made, and how many of them are shown in a second. */
  readonly frames: number;
  readonly fps: number;
  readonly values: V;
}

/** In the order of the menu. */
export const OUTPUT_GROUPS = [
  { value: 'movies', title: 'Movies' },
  { value: 'pictures', title: 'Pictures, one a frame' },
  { value: 'animated', title: 'Animated pictures' },
  { value: 'shapes', title: 'Moving shapes' },
  { value: 'single', title: 'Single files' },
] as const;
export type OutputGroup = (typeof OUTPUT_GROUPS)[number]['value'];

/**
 * A kind of file that a piece is delivered as, declared once in a file of its own: words, settings,
 * limits, names. What makes its files is its pair file (`render/outputs/<kind>.server.ts`).
 */
export interface OutputKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** A few words. */
  readonly help: string;
  readonly group: OutputGroup;
  /** Name of a drawing in `web/ui/parts/icons.tsx`, or path data of one of its own, 24 × 24: "M4 12h16". */
  readonly icon: string;
  readonly params: P;
  /** Ending of its file, without a dot. */
  readonly ending: string;
  /** One file a frame rather than one file for all. */
  readonly many?: boolean;
  /** Other files beside it, by what follows its name: "-poster.jpg". */
  readonly beside?: readonly string[];
  /** The picture of each frame that it is made of; null where it is made of shapes. */
  sheet(values: Evaluated<P>): FrameImageName | null;
  /** Why it cannot be made of what is asked for, with the remedy; null where it can. */
  refusal?(asked: Asked<Evaluated<P>>): string | null;
}

/** Movies have their colours at half the size, so that sides must be even. */
export function evenSides({ width, height }: PixelSize): string | null {
  return width % 2 || height % 2
    ? `A movie needs even numbers of pixels, and this is ${width} × ${height}; use ${width + (width % 2)} × ${height + (height % 2)}.`
    : null;
}

/** Why sides of a picture are too long for a format; null where they are not. */
export function sidesUpTo(most: number, format: string) {
  return ({ width, height }: PixelSize): string | null =>
    Math.max(width, height) > most
      ? `${format} has at most ${most} pixels a side, and this is ${width} × ${height}; make it smaller, or choose another kind.`
      : null;
}

/** Why sides of a picture are too short for an encoder; null where they are not. */
export function sidesFrom(least: number, format: string) {
  return ({ width, height }: PixelSize): string | null =>
    Math.min(width, height) < least
      ? `${format} has at least ${least} pixels a side, and this is ${width} × ${height}; make it larger, or choose another kind.`
      : null;
}

/** Why something that only true light has cannot be made in quick light; null where it can. */
export function needsTrueLight(light: LightKind, what: string): string | null {
  return light === 'quick' ? `${what} comes from true light alone; set Light to True.` : null;
}

/**
 * Declares a kind of output.
 *
 * @example
 * export const webp = defineOutput({ kind: 'webp', title: 'WebP pictures', help: 'Small', group: 'pictures', icon:
 * 'images', ending: 'webp', many: true, params: {}, sheet: () => 'solid' });
 */
export function defineOutput<const P extends Params>(output: OutputKind<P>): OutputKind {
  return widened(output);
}
