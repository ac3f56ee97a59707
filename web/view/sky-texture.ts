import type { LightAt } from '@maypole/core/scene/kind';
import {
  Color,
  DataTexture,
  DataUtils,
  EquirectangularReflectionMapping,
  HalfFloatType,
  LinearFilter,
  LinearSRGBColorSpace,
  RGBAFormat,
} from 'three/webgpu';

type Sky = Extract<LightAt, { type: 'sky' }>;

const [WIDTH, HEIGHT] = [32, 64];

/** A sky of three colours as an equirectangular picture of light (linear, half float). */
export function skyTexture({ above, horizon, below, edge }: Omit<Sky, 'type' | 'strength'>): DataTexture {
  const data = new Uint16Array(4 * WIDTH * HEIGHT);
  const [up, level, down] = [above, horizon, below].map((hex) => new Color(hex));
  const colour = new Color();
  for (let y = 0; y < HEIGHT; y++) {
    // Row 0 of an unflipped texture is the bottom of the sphere.
    const sine = Math.sin(((y + 0.5) / HEIGHT - 0.5) * Math.PI);
    const share = 1 - Math.exp(-Math.abs(sine) / Math.max(1e-3, edge * 0.6));
    colour.copy(level).lerp(sine > 0 ? up : down, share);
    const pixel = [colour.r, colour.g, colour.b, 1].map((c) => DataUtils.toHalfFloat(c));
    for (let x = 0; x < WIDTH; x++) data.set(pixel, 4 * (y * WIDTH + x));
  }
  const texture = new DataTexture(data, WIDTH, HEIGHT, RGBAFormat, HalfFloatType);
  texture.mapping = EquirectangularReflectionMapping;
  texture.colorSpace = LinearSRGBColorSpace;
  texture.magFilter = LinearFilter;
  texture.minFilter = LinearFilter;
  texture.needsUpdate = true;
  return texture;
}
