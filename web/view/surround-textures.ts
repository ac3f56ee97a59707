import { widened } from '@maypole/core/declare/widen';
import { vec3 } from '@maypole/core/maths/vec3';
import { assetOf } from '@maypole/core/files/store';
import { RAMP } from '@maypole/core/pattern/ramp';
import { ABOVE_THE_AIR, daylightSky, sunlightLeft, type DaylightSky } from '@maypole/core/scene/daylight';
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
import { studioTexture } from './studio';

type Kind<T extends SurroundAt['type']> = Extract<SurroundAt, { type: T }>;
type Rgb3 = readonly [number, number, number];

/**
 * How surroundings become a picture of all directions: what tells one from another, and how it is made.
 * Strength and turn are not in it.
 */
interface Maker<T extends SurroundAt['type']> {
  key(light: Kind<T>): string;
  /** Null where there is nothing to be seen, and it is dark. */
  make(light: Kind<T>): DataTexture | null;
}

/** Half a pixel of half floats: brighter is not held. */
const MOST = 65_000;

/**
 * An equirectangular picture of light (linear, half float). Row 0 of an unflipped texture is the
 * bottom of the sphere.
 *
 * @param colour light from a height and an angle round about, both in radians, from +z towards +x
 */
export function roundTexture(
  width: number,
  height: number,
  colour: (elevation: number, azimuth: number, x: number, y: number) => Rgb3,
): DataTexture {
  const data = new Uint16Array(4 * width * height);
  for (let y = 0; y < height; y++) {
    const elevation = ((y + 0.5) / height - 0.5) * Math.PI;
    for (let x = 0; x < width; x++) {
      // The library counts from +x towards +z.
      const azimuth = Math.PI / 2 - ((x + 0.5) / width - 0.5) * 2 * Math.PI;
      const o = 4 * (y * width + x);
      colour(elevation, azimuth, x, y).forEach((c, k) => (data[o + k] = DataUtils.toHalfFloat(Math.min(MOST, c))));
      data[o + 3] = DataUtils.toHalfFloat(1);
    }
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

const lightOf = (hex: string): Rgb3 => {
  const { r, g, b } = new Color(hex);
  return [r, g, b];
};

/** Light that white ground gives back, in thousand candela per square metre: what falls on it from sky and sun, over π. */
function onGround(sun: [number, number, number], sky: DaylightSky, turbidity: number): Rgb3 {
  const rings = 12;
  const sum = [0, 0, 0];
  for (let i = 0; i < rings; i++) {
    // Places that lie evenly by the cosine of their angle to the ground.
    const y = Math.sqrt((i + 0.5) / rings);
    const flat = Math.sqrt(1 - y * y);
    for (let j = 0; j < 2 * rings; j++) {
      const a = (Math.PI * (j + 0.5)) / rings;
      sky.colour([flat * Math.sin(a), y, flat * Math.cos(a)]).forEach((c, k) => (sum[k] += c / (2 * rings * rings)));
    }
  }
  const left = sunlightLeft(sun, turbidity);
  return vec3((k) => sum[k] + (ABOVE_THE_AIR * left[k] * Math.max(0, sun[1])) / Math.PI);
}

const makers: { readonly [T in SurroundAt['type']]: Maker<T> } = {
  studio: { key: () => '', make: () => studioTexture() },
  sky: {
    key: ({ above, horizon, below, edge }) => `${above}${horizon}${below}${edge.toFixed(3)}`,
    make({ above, horizon, below, edge }) {
      const [up, level, down] = [above, horizon, below].map(lightOf);
      return roundTexture(32, 64, (elevation) => {
        const sine = Math.sin(elevation);
        const share = 1 - Math.exp(-Math.abs(sine) / Math.max(1e-3, edge * 0.6));
        const to = sine > 0 ? up : down;
        return vec3((k) => level[k] + (to[k] - level[k]) * share);
      });
    },
  },
  daylight: {
    key: ({ sun, turbidity, scale, below }) =>
      `${sun.map((x) => x.toFixed(4)).join()}/${turbidity.toFixed(3)}/${scale}${below}`,
    make({ sun, turbidity, scale, below }) {
      const sky = daylightSky([...sun], turbidity);
      const level = sky.colour([0, 0.02, 1]);
      const ground = lightOf(below);
      const lit = onGround([...sun], sky, turbidity);
      return roundTexture(128, 64, (elevation, azimuth) => {
        const [y, flat] = [Math.sin(elevation), Math.cos(elevation)];
        if (y > 0) {
          const c = sky.colour([flat * Math.sin(azimuth), y, flat * Math.cos(azimuth)]);
          return vec3((k) => c[k] * scale);
        }
        const far = Math.exp(y / 0.03);
        return vec3((k) => scale * (level[k] * far + ground[k] * lit[k] * (1 - far)));
      });
    },
  },
  gradient: {
    key: ({ ramp, round }) => `${round}/${ramp.join()}`,
    make({ ramp, round }) {
      const at = (share: number): Rgb3 => {
        const i = Math.min(RAMP - 1, Math.floor(share * RAMP));
        return [ramp[3 * i], ramp[3 * i + 1], ramp[3 * i + 2]];
      };
      return round
        ? roundTexture(256, 8, (_, azimuth) => at((azimuth / (2 * Math.PI) + 2) % 1))
        : roundTexture(8, 128, (elevation) => at((Math.sin(elevation) + 1) / 2));
    },
  },
  panorama: {
    key: ({ file }) => `${file}${assetOf(file)?.type ?? ''}`,
    make({ file }) {
      const asset = assetOf(file);
      if (asset?.type !== 'light') return null;
      const { width, height, values } = asset.light;
      return roundTexture(width, height, (_, __, x, y) => {
        const o = 3 * ((height - 1 - y) * width + x);
        return [values[o], values[o + 1], values[o + 2]];
      });
    },
  },
};

/** Pictures of surroundings that are kept though nothing shows them now: a sky that moves goes through many. */
const KEPT = 8;

/** Surroundings as textures, each made once. */
export class SurroundTextures {
  private readonly made = new Map<string, DataTexture | null>();

  of(light: SurroundAt): DataTexture | null {
    const maker: Maker<SurroundAt['type']> = widened(makers[light.type]);
    const key = `${light.type}/${maker.key(light)}`;
    const known = this.made.get(key);
    if (known !== undefined) return known;
    const texture = maker.make(light);
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
