import type { PictureAt } from '../evaluate/picture-at';
import type { Image } from '../files/image';
import { assetOf } from '../files/store';
import { displayToLight, hexToDisplay } from '../maths/srgb';
import { fitImage, gradientShare } from '../scene/backdrop-shown';
import { fitFrame } from '../scene/lens';
import { lightAbove, lightShownAs } from '../scene/view-transform';

/** Colours of the ramp; see core/trace/assembly/backdrop.ts. */
const STEPS = 256;

interface Size {
  readonly width: number;
  readonly height: number;
}

/** A place in the output frame, −½…½ right and up, from a pixel's x, y and 1: three numbers for each. */
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

/** The backdrop as the tracer takes it: where a pixel is on its ramp, and the ramp as light before exposure. */
export function behindOf(
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

/** A picture behind everything as light, exposed once: rows from the top, three numbers a place. */
export interface PictureBehind {
  /** A place of the picture from a pixel's x, y and 1, across and down, 0…1 within it: two rows of three numbers. */
  readonly place: readonly number[];
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}

/** The picture of a backdrop; undefined where it has none, where its file is not here, and where there is no glass to see it through. */
export function pictureBehind(
  { scene: { camera, backdrop }, aspect, wardrobe }: Pick<PictureAt<unknown>, 'scene' | 'aspect' | 'wardrobe'>,
  size: Size,
): PictureBehind | undefined {
  const asset = backdrop.type === 'image' && backdrop.file !== '' ? assetOf(backdrop.file) : undefined;
  if (backdrop.type !== 'image' || asset?.type !== 'image') return undefined;
  const isGlass = [...wardrobe.values()].some((worn) => Object.values(worn).some((s) => s.transmission > 0));
  if (!isGlass) return undefined;
  const { image } = asset;
  const [x, y] = inFrame(camera.focalLength, aspect, size);
  const [across, up] = fitImage(backdrop.fit, image.width / image.height / aspect);
  const place = [x.map((n) => across * n), y.map((n) => -up * n)].flatMap(([a, b, c]) => [a, b, c + 0.5]);
  return { place, ...lightOf(image, backdrop.colour) };
}

/** Through glass a picture is seen as if it had so many places at most, across and down. */
const MOST = 512;

interface Lit {
  readonly colour: string;
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}
const kept = new WeakMap<Image, Lit>();

/** The light of a picture over a colour at an exposure of 1, of many pixels their mean: worked out once for each. */
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
