import type { SceneAt } from '../evaluate/picture-at';
import { backdropShown } from '../scene/backdrop-shown';
import { lightShownAs, viewTransform } from '../scene/view-transform';
import { bloomGain, bloomOf } from './bloom';
import { displayEffects, outwards } from './effects';
import { wholeLight, type LightPicture } from './light';

/** A number −½…½ per pixel that dithers away bands in 8 bits (J. Jimenez, SIGGRAPH 2014). */
function dither(x: number, y: number): number {
  const f = 0.06711056 * x + 0.00583715 * y;
  const g = 52.9829189 * (f - Math.floor(f));
  return g - Math.floor(g) - 0.5;
}

const BLACK = [0, 0, 0] as const;

/** How a picture is shown. */
export interface Developing {
  /** Share of width and height that the output frame fills; absent, all. */
  readonly frame?: { readonly width: number; readonly height: number };
  readonly scene: Pick<SceneAt, 'camera' | 'backdrop' | 'picture'>;
  /** Leaves the backdrop out: the picture is transparent where nothing covers it. */
  readonly clear?: boolean;
}

/**
 * Reduces 16 bits per value to 8, dithered like a picture developed in 8 bits. Colours that 8 bits can represent stay
 * exact.
 *
 * @param deep red, green, blue, alpha, 0…65,535
 */
export function inEightBits(deep: Uint16Array, width: number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(deep.length);
  for (let i = 0; i < deep.length; i += 4) {
    const pixel = i / 4;
    const noise = 0.996 * dither(pixel % width, Math.floor(pixel / width));
    for (let k = 0; k < 3; k++) out[i + k] = deep[i + k] / 257 + noise;
    out[i + 3] = deep[i + 3] / 257;
  }
  return out;
}

/** The same as `developed` in 16 bits, 0…65,535, without dither. */
export function developedDeep(light: LightPicture, how: Developing): Uint16Array<ArrayBuffer> {
  const out = new Uint16Array(4 * light.width * light.height);
  developInto(out, 65_535, 0, light, how);
  return out;
}

/**
 * Tone maps radiance: exposure, view transform, composition over the backdrop, and picture effects. The same as in
 * quick light.
 *
 * @returns red, green, blue and alpha, 0…255, rows from the top; not premultiplied
 */
export function developed(light: LightPicture, how: Developing): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(4 * light.width * light.height);
  developInto(out, 255, 1, light, how);
  return out;
}

/** What a pixel shows of the surface it sees, over the backdrop. */
function overBackdrop(
  c: number[],
  own: readonly number[],
  by: number,
  covered: number,
  behind: readonly number[],
  clear: boolean,
): void {
  if (covered <= 0) {
    for (let k = 0; k < 3; k++) c[k] = clear ? 0 : behind[k];
    return;
  }
  const shown = viewTransform(own[0] * by, own[1] * by, own[2] * by);
  for (let k = 0; k < 3; k++) c[k] = clear ? shown[k] * covered : behind[k] + (shown[k] - behind[k]) * covered;
}

/** Added light lies over the background, in the share `open` of the pixel where that is visible. */
function addBehind(
  c: number[],
  extra: readonly number[],
  exposure: number,
  open: number,
  behind: readonly number[],
  clear: boolean,
): void {
  const by = exposure / Math.max(open, 0.02);
  const under = clear ? BLACK : lightShownAs(behind);
  const over = viewTransform(under[0] + extra[0] * by, under[1] + extra[1] * by, under[2] + extra[2] * by);
  for (let k = 0; k < 3; k++) c[k] += open * Math.max(0, over[k] - (clear ? 0 : behind[k]));
}

/** A light brighter than all that is visible of the pixel outshines it: a lamp reflected in a floor. */
function addOutshining(c: number[], extra: readonly number[], exposure: number): void {
  const alone = viewTransform(extra[0] * exposure, extra[1] * exposure, extra[2] * exposure);
  for (let k = 0; k < 3; k++) c[k] = Math.max(c[k], alone[k]);
}

/** @param lit radiance of the whole pixel, exposed */
function addBloom(c: number[], lit: readonly number[], halo: readonly number[], spill: number): void {
  const before = viewTransform(lit[0], lit[1], lit[2]);
  const after = viewTransform(lit[0] + spill * halo[0], lit[1] + spill * halo[1], lit[2] + spill * halo[2]);
  for (let k = 0; k < 3; k++) c[k] += after[k] - before[k];
}

const rounded = (white: number) => (x: number) => Math.min(white, Math.max(0, Math.round(x)));

/** The display value of a backdrop at a place of the picture, 0…1 each way; uniform ones are asked once. */
function backdropIn(
  backdrop: SceneAt['backdrop'],
  frame: { readonly width: number; readonly height: number },
  aspect: number,
): (u: number, v: number) => readonly number[] {
  if (backdrop.type === 'gradient' || backdrop.type === 'image')
    return (u, v) => backdropShown(backdrop, (u - 0.5) / frame.width + 0.5, (v - 0.5) / frame.height + 0.5, aspect);
  const plain = backdropShown(backdrop, 0, 0, aspect);
  return () => plain;
}

/** @param grain amplitude of the dither between two values */
function developInto(
  out: Uint8ClampedArray | Uint16Array,
  white: number,
  grain: number,
  light: LightPicture,
  { frame = { width: 1, height: 1 }, scene: { camera, backdrop, picture }, clear = false }: Developing,
): void {
  const { width, height, values, added } = light;
  const { exposure } = camera;
  // Unless the array clamps by itself.
  const whole = white > 255 ? rounded(white) : (x: number) => x;
  const aspect = (width * frame.width) / (height * frame.height);
  const round = backdrop.type === 'round' && !clear;
  const behindAt = backdropIn(backdrop, frame, aspect);
  const bloom = picture.find((e) => e.type === 'bloom');
  const halo = bloom && bloomOf({ width, height, values: wholeLight(light) }, bloom.from / exposure, bloom.spread);
  const spill = bloom ? (bloom.amount * exposure) / bloomGain(bloom.spread) : 0;
  const fringe = picture.find((e) => e.type === 'fringe');
  const effects = displayEffects(picture, light);
  const read = parted(light, (fringe?.amount ?? 0) / 100);
  const [c, extra, lit] = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  const own = [0, 0, 0, 0];
  const write = (at: number, alpha: number, noise: number) => {
    for (let k = 0; k < 3; k++) out[at + k] = alpha > 0 ? whole(white * c[k] + noise) : 0;
    out[at + 3] = whole(white * alpha);
  };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x + 0.5) / width, (y + 0.5) / height];
      const at = 4 * (y * width + x);
      if (fringe) read(u, v, own);
      else for (let k = 0; k < 4; k++) own[k] = values[at + k];
      const covered = round ? 1 : Math.min(1, own[3]);
      const by = covered > 0 ? exposure / covered : 0;
      const behind = behindAt(u, v);
      overBackdrop(c, own, by, covered, behind, clear);
      const o = 3 * (y * width + x);
      if (added[o] + added[o + 1] + added[o + 2] > 0) {
        for (let k = 0; k < 3; k++) extra[k] = added[o + k];
        if (covered < 1) addBehind(c, extra, exposure, 1 - covered, behind, clear);
        addOutshining(c, extra, exposure);
      }
      const h = halo?.(u, v);
      if (h && h[0] + h[1] + h[2] > 0) {
        // Bloom is added to the light of the whole pixel, and to what is shown by as much.
        const open = clear ? 0 : 1 - covered;
        for (let k = 0; k < 3; k++) lit[k] = (own[k] + added[o + k]) * exposure + behind[k] ** 2 * open;
        addBloom(c, lit, h, spill);
      }
      // Bloom over nothing covers as much as it is bright. Effects on display values cover nothing more: they apply to
      // what is there.
      const alpha = clear ? Math.max(covered, Math.min(1, Math.max(c[0], c[1], c[2]))) : 1;
      if (clear && alpha > 0) for (let k = 0; k < 3; k++) c[k] /= alpha;
      for (const effect of effects) effect(c, u, v);
      const noise = covered > 0 || backdrop.type === 'gradient' ? grain * dither(x, y) : 0;
      write(at, alpha, noise);
    }
}

/** Reads a picture with red and blue displaced outwards. */
function parted(
  { width, height, values }: LightPicture,
  amount: number,
): (u: number, v: number, out: number[]) => void {
  const channel = (u: number, v: number, k: number) => {
    const x = Math.min(width - 1, Math.max(0, u * width - 0.5));
    const y = Math.min(height - 1, Math.max(0, v * height - 0.5));
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const [p, q] = [x - i, y - j];
    const [i1, j1] = [Math.min(width - 1, i + 1), Math.min(height - 1, j + 1)];
    const value = (a: number, b: number) => values[4 * (b * width + a) + k];
    return (1 - q) * ((1 - p) * value(i, j) + p * value(i1, j)) + q * ((1 - p) * value(i, j1) + p * value(i1, j1));
  };
  return (u, v, out) => {
    const by = amount * outwards(u, v);
    const [du, dv] = [(u - 0.5) * by, (v - 0.5) * by];
    out[0] = channel(u - du, v - dv, 0);
    out[1] = channel(u, v, 1);
    out[2] = channel(u + du, v + dv, 2);
    out[3] = Math.max(channel(u - du, v - dv, 3), channel(u, v, 3), channel(u + du, v + dv, 3));
  };
}
