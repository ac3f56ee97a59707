import type { PictureAt } from '../evaluate/picture-at';
import type { Image } from '../files/image';
import { assetOf } from '../files/store';
import { hexToDisplay, lightToDisplay } from '../maths/srgb';
import { readPixel } from '../pattern/picture';
import { fitImage, gradientShare } from '../scene/backdrop-shown';
import { fitFrame } from '../scene/lens';
import { lightShownAs } from '../scene/view-transform';

/** Colours of the ramp; see core/trace/assembly/backdrop.ts. */
const STEPS = 256;

/** The backdrop as the tracer takes it: where a pixel is on its ramp, and the ramp as light before exposure. */
export function behindOf(
  { scene: { camera, backdrop }, aspect }: Pick<PictureAt<unknown>, 'scene' | 'aspect'>,
  { width, height }: { readonly width: number; readonly height: number },
): number[] {
  const frame = fitFrame(camera.focalLength, aspect, width / height);
  const [from, to] = [backdrop.colour, backdrop.type === 'gradient' ? backdrop.to : backdrop.colour].map(hexToDisplay);
  // A place in the output frame, −½…½ right and up, from a pixel.
  const x = [1 / width / frame.width, 0, -0.5 / frame.width];
  const y = [0, -1 / height / frame.height, 0.5 / frame.height];
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

/** A picture behind everything as light, before exposure: rows from the top, three numbers a place. */
export interface PictureBehind {
  /** A place of the picture from a pixel's x, y and 1, across and down, 0…1 within it: two rows of three numbers. */
  readonly place: readonly number[];
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}

/** The picture of a backdrop; undefined where it has none, or its file is not here. */
export function pictureBehind(
  { scene: { camera, backdrop }, aspect }: Pick<PictureAt<unknown>, 'scene' | 'aspect'>,
  { width, height }: { readonly width: number; readonly height: number },
): PictureBehind | undefined {
  const asset = backdrop.type === 'image' && backdrop.file !== '' ? assetOf(backdrop.file) : undefined;
  if (backdrop.type !== 'image' || asset?.type !== 'image') return undefined;
  const { image } = asset;
  const frame = fitFrame(camera.focalLength, aspect, width / height);
  const [across, up] = fitImage(backdrop.fit, image.width / image.height / aspect);
  const place = [
    ...[1 / width / frame.width, 0, -0.5 / frame.width].map((n, k) => across * n + (k === 2 ? 0.5 : 0)),
    ...[0, 1 / height / frame.height, -0.5 / frame.height].map((n, k) => up * n + (k === 2 ? 0.5 : 0)),
  ];
  return { place, ...lightOf(image, backdrop.colour, camera.exposure) };
}

/** Through glass a picture is seen as if it had so many places at most, across and down. */
const MOST = 512;
/** Places of the picture that one of those is the mean of, across and down, at most. */
const TAPS = 4;

const kept = new WeakMap<Image, { readonly key: string } & Pick<PictureBehind, 'width' | 'height' | 'light'>>();

function lightOf(image: Image, colour: string, exposure: number): Pick<PictureBehind, 'width' | 'height' | 'light'> {
  const key = `${colour} ${exposure}`;
  const before = kept.get(image);
  if (before?.key === key) return before;
  const scale = Math.max(1, image.width / MOST, image.height / MOST);
  const [width, height] = [image.width, image.height].map((n) => Math.max(1, Math.round(n / scale)));
  const taps = Math.min(TAPS, Math.ceil(scale));
  const under = hexToDisplay(colour);
  const light = new Float32Array(3 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sum = [0, 0, 0];
      for (let k = 0; k < taps * taps; k++) {
        const u = (x + ((k % taps) + 0.5) / taps) / width;
        const v = (y + (Math.floor(k / taps) + 0.5) / taps) / height;
        const [r, g, b, a] = readPixel(image, u, 1 - v);
        lightShownAs([r, g, b].map((c, i) => under[i] + (lightToDisplay(c) - under[i]) * a)).forEach(
          (c, i) => (sum[i] += c),
        );
      }
      for (let i = 0; i < 3; i++) light[3 * (y * width + x) + i] = sum[i] / (taps * taps * exposure);
    }
  const made = { key, width, height, light };
  kept.set(image, made);
  return made;
}
