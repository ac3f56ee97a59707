import { widened } from '../declare/widen';
import type { Evaluated, Params } from '../declare/params';
import type { FrameImageName } from './frame-image';

/** Pixels. */
export interface PixelSize {
  readonly width: number;
  readonly height: number;
}

/** The renderer of an output: rasteriser in a browser, or path tracer. */
export type LightKind = 'quick' | 'true';

/** Facts of a delivery that an output's limits depend on. */
export interface Asked<V = Readonly<Record<string, unknown>>> {
  readonly size: PixelSize;
  readonly light: LightKind;
  /** Number of frames, and frames per second. */
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
 * A file type that a piece is delivered as, declared once in its own file: words, settings, limits, names. Its exporter
 * is `render/outputs/<kind>.server.ts`.
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
  /** File extension, without dot. */
  readonly ending: string;
  /** One file per frame rather than one for all. */
  readonly many?: boolean;
  /** Additional files, by what follows the name: "-poster.jpg". */
  readonly beside?: readonly string[];
  /** The frame image it is made from; null if it is made from shapes. */
  sheet(values: Evaluated<P>): FrameImageName | null;
  /** Why it cannot be made as requested, and the remedy; null if it can. */
  refusal?(asked: Asked<Evaluated<P>>): string | null;
}

/** Movies have half the colour resolution, so that sides must be even. */
export function evenSides({ width, height }: PixelSize): string | null {
  return width % 2 || height % 2
    ? `A movie needs even numbers of pixels, and this is ${width} × ${height}; use ${width + (width % 2)} × ${height + (height % 2)}.`
    : null;
}

/** Why a picture is too large for a format; null if it is not. */
export function sidesUpTo(most: number, format: string) {
  return ({ width, height }: PixelSize): string | null =>
    Math.max(width, height) > most
      ? `${format} has at most ${most} pixels a side, and this is ${width} × ${height}; make it smaller, or choose another kind.`
      : null;
}

/** Why a picture is too small for an encoder; null if it is not. */
export function sidesFrom(least: number, format: string) {
  return ({ width, height }: PixelSize): string | null =>
    Math.min(width, height) < least
      ? `${format} has at least ${least} pixels a side, and this is ${width} × ${height}; make it larger, or choose another kind.`
      : null;
}

/** Why something that needs true light cannot be made in quick light; null if it can. */
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
