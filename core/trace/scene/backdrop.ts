import type { PictureAt } from '../../evaluate/picture-at';
import type { Image } from '../../assets/image';
import { assetOf } from '../../assets/store';
import { displayToLight, hexToDisplay } from '../../maths/srgb';
import { fitImage, gradientShare } from '../../scene/backdrop-shown';
import { fitFrame } from '../../scene/lens';
import { lightAbove, lightShownAs } from '../../scene/view-transform';

/** Colours of the ramp; see core/trace/assembly/lights/backdrop.ts. */
const STEPS = 256;

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Rows of a matrix from a pixel (x, y, 1) to the output frame, −½…½ right and up. */
function inFrame(
  focalLength: number,
  aspect: number,
  { width, height }: Size,
): readonly [readonly number[], readonly number[]] {
  const frame = fitFrame(focalLength, aspect, width / height);
  return [
    [1 / width / frame.width, 0, -0.5 / frame.width],
    [0, -1 / height / frame.height, 0.5 / frame.height],
  ];
}

/** The backdrop for the tracer: from a pixel to its place on the ramp, and the ramp as radiance before exposure. */
export function backdropRamp(
  { scene: { camera, backdrop }, aspect }: Pick<PictureAt<unknown>, 'scene' | 'aspect'>,
  size: Size,
): number[] {
  const [x, y] = inFrame(camera.focalLength, aspect, size);
  const [from, to] = [backdrop.colour, backdrop.type === 'gradient' ? backdrop.to : backdrop.colour].map(hexToDisplay);
  const round = backdrop.type === 'gradient' && backdrop.round;
  const rows = round ? [x, y].map((row) => row.map((n) => n * Math.SQRT2)) : [x, y];
  if (backdrop.type === 'gradient' && !round) {
    const a = (backdrop.angle * Math.PI) / 180;
    const reach = Math.abs(Math.sin(a)) * aspect + Math.abs(Math.cos(a));
    rows[0] = x.map((n, k) => (Math.sin(a) * aspect * n - Math.cos(a) * y[k]) / reach + (k === 2 ? 0.5 : 0));
  }
  const ramp = Array.from({ length: STEPS }, (_, i) => {
    const share = backdrop.type === 'gradient' ? gradientShare((i + 0.5) / STEPS, backdrop.middle) : 0;
    const shown = from.map((c, k) => c + (to[k] - c) * share);
    return lightShownAs(shown).map((c) => c / camera.exposure);
  });
  return [...rows.flat(), round ? 1 : 0, ...ramp.flat()];
}

/** A backdrop image as exposed light: rows from the top, three numbers per texel. */
export interface BackdropImage {
  /** Rows of a matrix from a pixel (x, y, 1) to the image, 0…1 across and down. */
  readonly place: readonly number[];
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}

/** The image of a backdrop; undefined if it has none, its file is missing, or no glass would show it. */
export function backdropImage(
  { scene: { camera, backdrop }, aspect, materials }: Pick<PictureAt<unknown>, 'scene' | 'aspect' | 'materials'>,
  size: Size,
): BackdropImage | undefined {
  const asset = backdrop.type === 'image' && backdrop.file !== '' ? assetOf(backdrop.file) : undefined;
  if (backdrop.type !== 'image' || asset?.type !== 'image') return undefined;
  const isGlass = [...materials.values()].some((surfaces) => Object.values(surfaces).some((s) => s.transmission > 0));
  if (!isGlass) return undefined;
  const { image } = asset;
  const [x, y] = inFrame(camera.focalLength, aspect, size);
  const [across, up] = fitImage(backdrop.fit, image.width / image.height / aspect);
  const place = [x.map((n) => across * n), y.map((n) => -up * n)].flatMap(([a, b, c]) => [a, b, c + 0.5]);
  return { place, ...lightOf(image, backdrop.colour) };
}

/** Longest side of the image as seen through glass. */
const MOST = 512;

interface Lit {
  readonly colour: string;
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}
const kept = new WeakMap<Image, Lit>();

/** Radiance of an image over a colour at an exposure of 1, averaged to the size wanted; computed once. */
function lightOf(image: Image, colour: string): Lit {
  const before = kept.get(image);
  if (before?.colour === colour) return before;
  const scale = Math.max(1, image.width / MOST, image.height / MOST);
  const [width, height] = [image.width, image.height].map((n) => Math.max(1, Math.round(n / scale)));
  const light = new Float32Array(3 * width * height);
  const count = new Uint32Array(width * height);
  const under = hexToDisplay(colour);
  const { values } = image;
  const one = new Float64Array(3);
  const [exact, fine] = [256, 4096].map((n) => Float64Array.from({ length: n }, (_, i) => displayToLight(i / (n - 1))));
  for (let y = 0; y < image.height; y++) {
    const row = width * Math.floor(((y + 0.5) * height) / image.height);
    for (let x = 0; x < image.width; x++) {
      const at = row + Math.floor(((x + 0.5) * width) / image.width);
      const from = 4 * (y * image.width + x);
      const alpha = values[from + 3] / 255;
      let least = 1;
      for (let k = 0; k < 3; k++) {
        const c = values[from + k];
        one[k] = alpha === 1 ? exact[c] : fine[Math.round(4095 * (under[k] + (c / 255 - under[k]) * alpha))];
        if (one[k] < least) least = one[k];
      }
      const more = lightAbove(least);
      for (let k = 0; k < 3; k++) light[3 * at + k] += one[k] + more;
      count[at]++;
    }
  }
  for (let i = 0; i < light.length; i++) light[i] /= count[Math.floor(i / 3)];
  const made = { colour, width, height, light };
  kept.set(image, made);
  return made;
}
