import { fitImage } from '@maypole/core/scene/backdrop-shown';
import type { BackdropAt } from '@maypole/core/scene/kind';
import {
  clamp,
  dot,
  float,
  fract,
  length,
  max,
  mix,
  pow,
  sRGBTransferOETF,
  screenCoordinate,
  texture,
  uniform,
  uv,
  vec2,
} from 'three/tsl';
import { Color, Vector2, type TextureNode } from 'three/webgpu';
import { imageTexture } from './image-textures';
import { rgb, scalar, type Rgb, type Scalar } from '../surfaces/tsl';
import { lightShownAs, throughViewTransform } from './view-transform';

/** Position in the picture, −½…½ across and up; a full-screen quad has its uv from the top. */
const placeInPicture = () => vec2(uv().x.sub(0.5), float(0.5).sub(uv().y));

/**
 * The backdrop in shaders: as display values, and as the light that the view transform maps to them. Everything is a
 * uniform, so that one shader draws any backdrop.
 */
export class BackdropNodes {
  private readonly from = { shown: uniform(new Color()), light: uniform(new Color()) };
  private readonly to = { shown: uniform(new Color()), light: uniform(new Color()) };
  /**
   * Direction of the gradient, in shares of the picture; 1 if it is radial; the exponent that puts its middle where it
   * is wanted.
   */
  private readonly line = uniform(new Vector2(0, 1));
  private readonly round = uniform(0);
  private readonly power = uniform(1);
  /** 1 if it is a gradient. */
  private readonly varies = uniform(0);
  private readonly frame = uniform(new Vector2(1, 1));
  /** An image over the colour: its opacity, and the scale that maps the frame to it. */
  private readonly image = {
    there: uniform(0),
    scale: uniform(new Vector2(1, 1)),
    /** Up to the centres of its border texels: beyond, the texture wraps around. */
    edge: uniform(new Vector2(0.5, 0.5)),
    factor: uniform(0),
    nodes: [] as TextureNode[],
    /** Texture nodes that read it; later ones share the first. */
    read: imageTexture(''),
  };

  /**
   * @param light factor on it as light; 0 if nothing lets it through
   * @param size of the picture in pixels
   * @param frame share of it, across and up, that is delivered: the frame's contents do not depend on what is visible
   * around it
   */
  fill(
    backdrop: BackdropAt,
    light: number,
    size: readonly [number, number],
    frame: { readonly width: number; readonly height: number },
  ): void {
    const [width, height] = [size[0] * frame.width, size[1] * frame.height];
    this.frame.value.set(1 / frame.width, 1 / frame.height);
    const to = backdrop.type === 'gradient' ? backdrop.to : backdrop.colour;
    for (const [colours, hex] of [
      [this.from, backdrop.colour],
      [this.to, to],
    ] as const) {
      // Display values are stored as they are; the colour class would decode them as sRGB.
      colours.shown.value.set(hex).convertLinearToSRGB();
      throughViewTransform(colours.light.value, hex).multiplyScalar(light);
    }
    this.varies.value = backdrop.type === 'gradient' ? 1 : 0;
    this.image.there.value = backdrop.type === 'image' && backdrop.file !== '' ? 1 : 0;
    this.image.factor.value = light;
    if (backdrop.type === 'image') this.fillImage(backdrop, width / height);
    if (backdrop.type !== 'gradient') return;
    const a = (backdrop.angle * Math.PI) / 180;
    // From edge to edge at any angle.
    const reach = Math.abs(Math.sin(a)) * width + Math.abs(Math.cos(a)) * height;
    this.line.value.set((Math.sin(a) * width) / reach, (-Math.cos(a) * height) / reach);
    this.round.value = backdrop.round ? 1 : 0;
    this.power.value = Math.log(0.5) / Math.log(backdrop.middle);
  }

  shown(): Rgb {
    const plain = mix(rgb(this.from.shown), rgb(this.to.shown), this.share());
    const { shown, alpha } = this.readImage();
    return rgb(mix(plain, shown, alpha));
  }

  light(): Rgb {
    const plain = mix(rgb(this.from.light), rgb(this.to.light), this.share());
    const { shown, alpha } = this.readImage();
    return rgb(mix(plain, lightShownAs(shown).mul(this.image.factor), alpha));
  }

  /** The image as display values, and its opacity. */
  private readImage(): { shown: Rgb; alpha: Scalar } {
    const at = placeInPicture().mul(this.frame).mul(this.image.scale);
    const { edge } = this.image;
    const node = texture(this.image.read, clamp(at, edge.negate(), edge).add(0.5));
    this.image.nodes.push(node as TextureNode);
    const inside = max(at.x.abs(), at.y.abs()).lessThanEqual(0.5).toFloat();
    // The texture unit decodes sRGB.
    return { shown: rgb(sRGBTransferOETF(node.rgb)), alpha: scalar(node.a.mul(inside).mul(this.image.there)) };
  }

  private fillImage({ file, fit }: Extract<BackdropAt, { type: 'image' }>, frame: number): void {
    const read = imageTexture(file);
    this.image.read = read;
    for (const node of this.image.nodes) node.value = read;
    const { width, height } = read.image as { width: number; height: number };
    // Beyond half either way there is no image.
    const [x, y] = fitImage(fit, width / height / frame);
    this.image.scale.value.set(x, y);
    this.image.edge.value.set(0.5 - 0.5 / width, 0.5 - 0.5 / height);
  }

  /**
   * Dithers gradients by less than a step of 8 bits, where they are slow enough to band: interleaved gradient noise (J.
   * Jimenez, SIGGRAPH 2014 course notes), the same in every frame. A plain backdrop is not dithered, and exact.
   */
  dithered(shown: Rgb, alpha: Scalar): Rgb {
    const noise = fract(fract(dot(screenCoordinate.xy.floor(), vec2(0.06711056, 0.00583715))).mul(52.9829189));
    const where = max(this.varies, scalar(alpha.greaterThan(0).toFloat()));
    return rgb(shown.add(noise.sub(0.5).mul(where).div(255)));
  }

  private share(): Scalar {
    const from = placeInPicture().mul(this.frame);
    const along = dot(from, this.line).add(0.5);
    const out = length(from).mul(Math.SQRT2);
    return scalar(pow(clamp(mix(along, out, this.round), float(0), float(1)), this.power));
  }
}
