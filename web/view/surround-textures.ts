import { surroundKey, surroundPicture, type RoundPicture } from '@maypole/core/scene/surround/picture';
import type { SurroundAt } from '@maypole/core/scene/kind';
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

/** Half a pixel of half floats: brighter is not held. */
const MOST = 65_000;

/** A picture of all directions as a texture (linear, half float). Row 0 of an unflipped texture is the bottom of the sphere. */
export function roundTexture({ width, height, values }: RoundPicture): DataTexture {
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

/** Pictures of surroundings that are kept though nothing shows them now: a sky that moves goes through many. */
const KEPT = 8;

/** Surroundings as textures, each made once. */
export class SurroundTextures {
  private readonly made = new Map<string, DataTexture | null>();

  of(light: SurroundAt): DataTexture | null {
    const key = surroundKey(light);
    const known = this.made.get(key);
    if (known !== undefined) return known;
    const picture = surroundPicture(light);
    const texture = picture && roundTexture(picture);
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

/** Mean light of a picture of all directions, each counted by its share of the sphere; worked out once for each. */
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
