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
import { rgb, scalar, type Rgb, type Scalar } from './tsl';
import { lightShownAs, throughViewTransform } from './view-transform';

/** A place of the picture, −½…½ across and up; a quad over all of it tells its places from the top. */
const placeInPicture = () => vec2(uv().x.sub(0.5), float(0.5).sub(uv().y));

/**
 * The backdrop in shaders: as it is shown, and as the light that the view transform shows so. All of it is
 * uniforms, so that any backdrop is drawn by one shader.
 */
export class BackdropNodes {
  private readonly from = { shown: uniform(new Color()), light: uniform(new Color()) };
  private readonly to = { shown: uniform(new Color()), light: uniform(new Color()) };
  /** Along the line, in shares of the picture; 1 where it is round; the power that puts the half where it is wanted. */
  private readonly line = uniform(new Vector2(0, 1));
  private readonly round = uniform(0);
  private readonly power = uniform(1);
  /** 1 where it goes over from one colour into another. */
  private readonly varies = uniform(0);
  private readonly frame = uniform(new Vector2(1, 1));
  /** A picture over the colour: how far it is there, and the scale that brings the frame into it. */
  private readonly image = {
    there: uniform(0),
    scale: uniform(new Vector2(1, 1)),
    /** Up to the middle of its last pixels, from its middle: between pixels the card goes on from the other edge. */
    edge: uniform(new Vector2(0.5, 0.5)),
    factor: uniform(0),
    nodes: [] as TextureNode[],
    /** What they read: one that is made later reads it from the first. */
    read: imageTexture(''),
  };

  /**
   * @param light factor on it as light; 0 where nothing looks through to it
   * @param size of the picture in pixels
   * @param frame share of it, across and up, that is delivered: what lies in the frame is the same however much is seen about it
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
      // Display values are written as they are; the colour class would take them for sRGB and make light of them.
      colours.shown.value.set(hex).convertLinearToSRGB();
      throughViewTransform(colours.light.value, hex).multiplyScalar(light);
    }
    this.varies.value = backdrop.type === 'gradient' ? 1 : 0;
    this.image.there.value = backdrop.type === 'image' && backdrop.file !== '' ? 1 : 0;
    this.image.factor.value = light;
    if (backdrop.type === 'image') this.fillImage(backdrop, width / height);
    if (backdrop.type !== 'gradient') return;
    const a = (backdrop.angle * Math.PI) / 180;
    // From edge to edge whichever way it is turned.
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

  /** The picture as it is shown, and how far it covers the colour. */
  private readImage(): { shown: Rgb; alpha: Scalar } {
    const at = placeInPicture().mul(this.frame).mul(this.image.scale);
    const { edge } = this.image;
    const node = texture(this.image.read, clamp(at, edge.negate(), edge).add(0.5));
    this.image.nodes.push(node as TextureNode);
    const inside = max(at.x.abs(), at.y.abs()).lessThanEqual(0.5).toFloat();
    // The card makes light of what it reads.
    return { shown: rgb(sRGBTransferOETF(node.rgb)), alpha: scalar(node.a.mul(inside).mul(this.image.there)) };
  }

  private fillImage({ file, fit }: Extract<BackdropAt, { type: 'image' }>, frame: number): void {
    const read = imageTexture(file);
    this.image.read = read;
    for (const node of this.image.nodes) node.value = read;
    const { width, height } = read.image as { width: number; height: number };
    // Beyond half either way there is none.
    const [x, y] = fitImage(fit, width / height / frame);
    this.image.scale.value.set(x, y);
    this.image.edge.value.set(0.5 - 0.5 / width, 0.5 - 0.5 / height);
  }

  /**
   * Colour values with less than a step of 8 bits of noise, where something varies slowly enough to be
   * seen as bands: by interleaved gradient noise (J. Jimenez, SIGGRAPH 2014 course notes), the same in
   * every frame. Where the plain backdrop is seen nothing is added, and it is exact.
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
