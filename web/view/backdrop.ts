import type { BackdropAt } from '@maypole/core/scene/kind';
import { clamp, dot, float, fract, length, max, mix, pow, screenCoordinate, uniform, uv, vec2 } from 'three/tsl';
import { Color, Vector2 } from 'three/webgpu';
import { rgb, scalar, type Rgb, type Scalar } from './tsl';
import { throughViewTransform } from './view-transform';

/** The backdrop in shaders: as it is shown, and as the light that the view transform shows so. All of it is uniforms, so that any backdrop is drawn by one shader. */
export class BackdropNodes {
  private readonly from = { shown: uniform(new Color()), light: uniform(new Color()) };
  private readonly to = { shown: uniform(new Color()), light: uniform(new Color()) };
  /** Along the line, in shares of the picture; 1 where it is round; the power that puts the half where it is wanted. */
  private readonly line = uniform(new Vector2(0, 1));
  private readonly round = uniform(0);
  private readonly power = uniform(1);
  /** 1 where it goes over from one colour into another. */
  private readonly varies = uniform(0);

  /**
   * @param light factor on it as light; 0 where nothing looks through to it
   * @param size of the picture in pixels
   */
  fill(backdrop: BackdropAt, light: number, [width, height]: readonly [number, number]): void {
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
    if (backdrop.type !== 'gradient') return;
    const a = (backdrop.angle * Math.PI) / 180;
    // From edge to edge whichever way it is turned.
    const reach = Math.abs(Math.sin(a)) * width + Math.abs(Math.cos(a)) * height;
    this.line.value.set((Math.sin(a) * width) / reach, (-Math.cos(a) * height) / reach);
    this.round.value = backdrop.round ? 1 : 0;
    this.power.value = Math.log(0.5) / Math.log(backdrop.middle);
  }

  shown(): Rgb {
    return rgb(mix(rgb(this.from.shown), rgb(this.to.shown), this.share()));
  }

  light(): Rgb {
    return rgb(mix(rgb(this.from.light), rgb(this.to.light), this.share()));
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
    const from = uv().sub(0.5);
    const along = dot(from, this.line).add(0.5);
    const out = length(from).mul(Math.SQRT2);
    return scalar(pow(clamp(mix(along, out, this.round), float(0), float(1)), this.power));
  }
}
