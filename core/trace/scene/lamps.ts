import { cross, normalize, vec3, type Vec3 } from '../../maths/vec3';
import { isLamp, type Lamp, type LightAt, environmentOf } from '../../scene/kind';
import { studioSun } from '../../scene/environment/picture';

/** Numbers of a lamp; see core/trace/assembly/lights/lights.ts. */
export const LAMP_NUMBERS = 24;
const KINDS = { sun: 0, area: 1, ball: 2, spot: 3 } as const;
/** Cosine of a cone that contains every direction. */
const ALL_ROUND = -2;

/** All lamps of a scene, the studio's sun included. */
export function lampsOf(lights: readonly LightAt[]): readonly Lamp[] {
  const sun = studioSun(environmentOf(lights));
  return [...lights.filter(isLamp), ...(sun ? [sun] : [])];
}

/** Packs lamps for the tracer. */
export function packLamps(lamps: readonly Lamp[]): Float32Array {
  const out = new Float32Array(lamps.length * LAMP_NUMBERS);
  lamps.forEach((lamp, i) => {
    const at = i * LAMP_NUMBERS;
    const strength = lamp.type === 'sun' ? lamp.irradiance : lamp.type === 'area' ? lamp.radiance : lamp.intensity;
    new Int32Array(out.buffer)[at] = KINDS[lamp.type];
    out.set(
      lamp.colour.map((c) => c * strength),
      at + 1,
    );
    out.set(lamp.type === 'sun' ? lamp.from : lamp.at, at + 4);
    out[at + 17] = ALL_ROUND;
    out[at + 20] = lamp.shadow ? 1 : 0;
    if (lamp.type === 'sun') out[at + 7] = 2 * Math.sin((lamp.angle * Math.PI) / 720) ** 2;
    else if (lamp.type === 'area') {
      const { way, side, up } = rectangle(lamp);
      out[at + 7] = lamp.width * lamp.height;
      out.set(
        side.map((x) => (x * lamp.width) / 2),
        at + 8,
      );
      out.set(
        up.map((x) => (x * lamp.height) / 2),
        at + 11,
      );
      out.set(way, at + 14);
      out[at + 19] = lamp.seen ? 1 : 0;
    } else {
      out[at + 7] = lamp.radius;
      if (lamp.type === 'spot') {
        out.set(normalize(vec3((k) => lamp.target[k] - lamp.at[k])) ?? [0, -1, 0], at + 14);
        const half = (lamp.cone * Math.PI) / 360;
        out[at + 17] = Math.cos(half);
        out[at + 18] = Math.cos(half * (1 - lamp.soft));
      }
    }
  });
  return out;
}

/** Direction that a rectangle faces, and its edges, unit vectors. */
function rectangle({ at, target, turn }: Extract<Lamp, { type: 'area' }>): Record<'way' | 'side' | 'up', Vec3> {
  const way = normalize(vec3((k) => target[k] - at[k])) ?? [0, -1, 0];
  const level = normalize(cross([0, 1, 0], way), 1e-6) ?? [1, 0, 0];
  const upright = cross(way, level);
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  return {
    way,
    side: vec3((k) => c * level[k] + s * upright[k]),
    up: vec3((k) => c * upright[k] - s * level[k]),
  };
}
