import { widened } from '../../declare/widen';
import { assetOf } from '../../assets/store';
import { hexToLight } from '../../maths/srgb';
import { vec3, type Vec3 } from '../../maths/vec3';
import { RAMP } from '../../pattern/ramp';
import { ABOVE_THE_AIR, daylightSky, sunlightLeft, type DaylightSky } from '../daylight';
import type { LightAt, EnvironmentAt } from '../kind';
import { studioLight } from './studio';

type Kind<T extends EnvironmentAt['type']> = Extract<EnvironmentAt, { type: T }>;

/**
 * An environment as an equirectangular map, which every renderer takes. Row 0 is straight down; columns go around from
 * −x over −z … against azimuths, which count from +z towards +x.
 */
export interface EnvironmentPicture {
  readonly width: number;
  readonly height: number;
  /** 3 numbers per pixel, linear light. */
  readonly values: Float32Array;
}

/** How a kind of environment becomes such a map: its identity, and its contents, both without strength and rotation. */
interface EnvironmentKind<T extends EnvironmentAt['type']> {
  key(light: Kind<T>): string;
  /** Null if it is dark. */
  make(light: Kind<T>): EnvironmentPicture | null;
}

/** @param colour radiance at an elevation and an azimuth, both in radians, from +z towards +x */
function roundPicture(
  width: number,
  height: number,
  colour: (elevation: number, azimuth: number, x: number, y: number) => Vec3,
): EnvironmentPicture {
  const values = new Float32Array(3 * width * height);
  for (let y = 0; y < height; y++) {
    const elevation = ((y + 0.5) / height - 0.5) * Math.PI;
    for (let x = 0; x < width; x++) {
      const azimuth = Math.PI / 2 - ((x + 0.5) / width - 0.5) * 2 * Math.PI;
      values.set(colour(elevation, azimuth, x, y), 3 * (y * width + x));
    }
  }
  return { width, height, values };
}

/** Radiance of white ground, in thousand candela per square metre: irradiance of sky and sun, over π. */
function onGround(sun: [number, number, number], sky: DaylightSky, turbidity: number): Vec3 {
  const rings = 12;
  const sum = [0, 0, 0];
  for (let i = 0; i < rings; i++) {
    // Cosine-distributed directions.
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

const makers: { readonly [T in EnvironmentAt['type']]: EnvironmentKind<T> } = {
  studio: {
    key: () => '',
    make: () =>
      roundPicture(512, 256, (elevation, _, x) =>
        studioLight((elevation * 180) / Math.PI, ((x + 0.5) / 512 - 0.5) * 360),
      ),
  },
  sky: {
    key: ({ above, horizon, below, edge }) => `${above}${horizon}${below}${edge.toFixed(3)}`,
    make({ above, horizon, below, edge }) {
      const [up, level, down] = [above, horizon, below].map(hexToLight);
      return roundPicture(32, 64, (elevation) => {
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
      const ground = hexToLight(below);
      const lit = onGround([...sun], sky, turbidity);
      return roundPicture(128, 64, (elevation, azimuth) => {
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
      const at = (share: number): Vec3 => {
        const i = Math.min(RAMP - 1, Math.floor(share * RAMP));
        return [ramp[3 * i], ramp[3 * i + 1], ramp[3 * i + 2]];
      };
      return round
        ? roundPicture(256, 8, (_, azimuth) => at((azimuth / (2 * Math.PI) + 2) % 1))
        : roundPicture(8, 128, (elevation) => at((Math.sin(elevation) + 1) / 2));
    },
  },
  panorama: {
    key: ({ file }) => `${file}${assetOf(file)?.type ?? ''}`,
    make({ file }) {
      const asset = assetOf(file);
      if (asset?.type !== 'light') return null;
      const { width, height, values } = asset.light;
      return roundPicture(width, height, (_, __, x, y) => {
        const o = 3 * ((height - 1 - y) * width + x);
        return [values[o], values[o + 1], values[o + 2]];
      });
    },
  },
};

/** Key that identifies an environment map. */
export function environmentKey(light: EnvironmentAt): string {
  const maker: EnvironmentKind<EnvironmentAt['type']> = widened(makers[light.type]);
  return `${light.type}/${maker.key(light)}`;
}

/** Environment map without strength and rotation; null if it is dark. */
export function environmentPicture(light: EnvironmentAt): EnvironmentPicture | null {
  const maker: EnvironmentKind<EnvironmentAt['type']> = widened(makers[light.type]);
  return maker.make(light);
}

/** Share of the studio's light that comes from its lamps; the rest from its sun. */
const STUDIO_SHARE = 0.62;

/** Factor on an environment map. */
export function environmentStrength({ type, strength }: EnvironmentAt): number {
  return type === 'studio' ? STUDIO_SHARE * strength : strength;
}

/** The sun of the studio, behind and above the camera on its left before rotation; null for other environments. */
export function studioSun(round: EnvironmentAt | undefined): Extract<LightAt, { type: 'sun' }> | null {
  if (round?.type !== 'studio' || round.strength <= 0) return null;
  const azimuth = (round.turn * Math.PI) / 180 - (40 * Math.PI) / 180;
  const from = vec3((k) => [Math.sin(azimuth), 1, Math.cos(azimuth)][k] / Math.SQRT2);
  return { type: 'sun', irradiance: 2 * round.strength, from, angle: 0, colour: [1, 1, 1], shadow: false };
}
