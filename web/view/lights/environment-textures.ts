import { environmentKey, environmentPicture, type EnvironmentPicture } from '@maypole/core/scene/environment/picture';
import type { EnvironmentAt } from '@maypole/core/scene/kind';
import {
  Color,
  DataTexture,
  DataUtils,
  EquirectangularReflectionMapping,
  HalfFloatType,
  LinearFilter,
  LinearSRGBColorSpace,
  RGBAFormat,
  RepeatWrapping,
} from 'three/webgpu';

/** Largest value stored in half floats. */
const MOST = 65_000;

/** An environment map as a texture (linear, half float). Row 0 of an unflipped texture is the bottom of the sphere. */
export function environmentTexture({ width, height, values }: EnvironmentPicture): DataTexture {
  const data = new Uint16Array(4 * width * height);
  const one = DataUtils.toHalfFloat(1);
  for (let i = 0; i < width * height; i++) {
    for (let k = 0; k < 3; k++) data[4 * i + k] = DataUtils.toHalfFloat(Math.min(MOST, values[3 * i + k]));
    data[4 * i + 3] = one;
  }
  const texture = new DataTexture(data, width, height, RGBAFormat, HalfFloatType);
  texture.mapping = EquirectangularReflectionMapping;
  texture.colorSpace = LinearSRGBColorSpace;
  texture.magFilter = LinearFilter;
  texture.minFilter = LinearFilter;
  texture.wrapS = RepeatWrapping;
  texture.needsUpdate = true;
  return texture;
}

/** Unused environment maps to keep: a moving sky goes through many. */
const KEPT = 8;

/** Environments as textures, each made once. */
export class EnvironmentTextures {
  private readonly made = new Map<string, DataTexture | null>();

  of(light: EnvironmentAt): DataTexture | null {
    const key = environmentKey(light);
    const known = this.made.get(key);
    if (known !== undefined) return known;
    const picture = environmentPicture(light);
    const texture = picture && environmentTexture(picture);
    this.made.set(key, texture);
    if (this.made.size > KEPT) {
      const [oldest] = this.made.keys();
      this.made.get(oldest)?.dispose();
      this.made.delete(oldest);
    }
    return texture;
  }

  dispose(): void {
    for (const t of this.made.values()) t?.dispose();
    this.made.clear();
  }
}

const means = new WeakMap<DataTexture, Color>();

/** Mean radiance of an environment map, weighted by solid angle; computed once. */
export function meanLight(texture: DataTexture): Color {
  let mean = means.get(texture);
  if (!mean) means.set(texture, (mean = averaged(texture)));
  return mean;
}

function averaged({ image }: DataTexture): Color {
  const { width, height, data } = image as { width: number; height: number; data: Uint16Array };
  const [sum, weight] = [[0, 0, 0], { all: 0 }];
  for (let y = 0; y < height; y++) {
    const share = Math.cos(((y + 0.5) / height - 0.5) * Math.PI);
    weight.all += share * width;
    for (let x = 0; x < width; x++)
      for (let k = 0; k < 3; k++) sum[k] += share * DataUtils.fromHalfFloat(data[4 * (y * width + x) + k]);
  }
  return new Color().setRGB(sum[0] / weight.all, sum[1] / weight.all, sum[2] / weight.all);
}
