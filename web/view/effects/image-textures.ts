import { assetOf } from '@maypole/core/assets/store';
import type { Image } from '@maypole/core/assets/image';
import { DataTexture, LinearFilter, RGBAFormat, RepeatWrapping, SRGBColorSpace, UnsignedByteType } from 'three/webgpu';

/** Stands for a missing image: transparent. */
function blank(): DataTexture {
  return textureOf({ width: 1, height: 1, values: new Uint8Array(4) });
}

/** Rows from the bottom, as the card has them; repeated. Without mipmaps: sub-frames do their work. */
function textureOf({ width, height, values }: Image): DataTexture {
  const data = new Uint8Array(values.length);
  for (let y = 0; y < height; y++)
    data.set(values.subarray(4 * y * width, 4 * (y + 1) * width), 4 * (height - 1 - y) * width);
  const texture = new DataTexture(data, width, height, RGBAFormat, UnsignedByteType);
  texture.colorSpace = SRGBColorSpace;
  texture.magFilter = texture.minFilter = LinearFilter;
  texture.wrapS = texture.wrapT = RepeatWrapping;
  texture.needsUpdate = true;
  return texture;
}

const made = new WeakMap<Image, DataTexture>();
let none: DataTexture | null = null;

/** A stored image as a texture, made once; transparent if it is missing. */
export function imageTexture(fingerprint: string): DataTexture {
  const asset = assetOf(fingerprint);
  if (asset?.type !== 'image') return (none ??= blank());
  let texture = made.get(asset.image);
  if (!texture) made.set(asset.image, (texture = textureOf(asset.image)));
  return texture;
}
