import { hexToLight } from '@maypole/core/maths/srgb';
import type { AirAt } from '@maypole/core/scene/kind';
import type { Scene } from 'three/webgpu';
import { airKinds, type Air } from './air';
import { AIR_LAYER } from './air-layer';
import { DimmedPoint } from './dimmed-lights';
import type { DrawablePart, ViewFrame } from '../stage/frame';

/** Point lights that stand for all emissive surfaces: more of them are smoother in each sub-frame, and cost more. */
const LIGHTS = 4;
/** Multiples of the golden ratio and the plastic number are evenly distributed, however many there are. */
const [ALONG, ACROSS] = [0.618033988749895, 0.754877666246693];

/** An emissive ribbon: its faces by cumulative area, and its radiance, red, green and blue. */
interface Glowing {
  readonly part: DrawablePart;
  readonly light: readonly number[];
  readonly areas: Float64Array;
  readonly copies: number;
}

const known = new WeakMap<Float32Array, Float64Array>();

/** Cumulative area of the triangles. */
function areasOf({ positions: p, topology: { triangles } }: DrawablePart): Float64Array {
  let areas = known.get(p);
  if (areas) return areas;
  areas = new Float64Array(triangles.length / 3);
  let sum = 0;
  for (let t = 0; t < areas.length; t++) {
    const [a, b, c] = [3 * triangles[3 * t], 3 * triangles[3 * t + 1], 3 * triangles[3 * t + 2]];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    areas[t] = sum += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
  }
  known.set(p, areas);
  return areas;
}

/** Everything in a frame whose main finish is emissive. */
function glowingIn({ ribbons }: ViewFrame): Glowing[] {
  return ribbons.flatMap(({ shape, surfaces }): Glowing[] => {
    const s = surfaces[0];
    if (s.emissiveStrength <= 0) return [];
    const light = hexToLight(s.emissiveTinted ? s.baseColor : s.emissiveColor).map((c) => c * s.emissiveStrength);
    if (Math.max(...light) <= 0) return [];
    return shape.parts
      .map((part) => ({ part, light, areas: areasOf(part), copies: part.instances?.numbers.length ?? 1 }))
      .filter((g) => g.copies > 0 && g.areas.length > 0);
  });
}

/** A point of a face, and its copy, selected by a number 0…1. */
function placeOf({ part, areas, copies }: Glowing, share: number): [number, number, number] {
  const { positions: p, topology, instances } = part;
  const wanted = (share * copies) % 1;
  const area = wanted * areas[areas.length - 1];
  let [low, high] = [0, areas.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (areas[middle] > area) high = middle;
    else low = middle + 1;
  }
  const corners = [0, 1, 2].map((k) => 3 * topology.triangles[3 * low + k]);
  const [x, y, z] = [0, 1, 2].map((k) => (p[corners[0] + k] + p[corners[1] + k] + p[corners[2] + k]) / 3);
  if (!instances) return [x, y, z];
  const o = 16 * Math.min(copies - 1, Math.floor(share * copies));
  const m = instances.matrices;
  return [0, 1, 2].map((r) => m[o + r] * x + m[o + 4 + r] * y + m[o + 8 + r] * z + m[o + 12 + r]) as [
    number,
    number,
    number,
  ];
}

/**
 * Emissive surfaces lighting haze: in each sub-frame a few points of them shine, others each time, so that the average
 * is the light of all. They light the air alone and cast no shadow.
 */
export class AirGlows {
  private lights: readonly DimmedPoint[] = [];
  /** Kinds of air that the lights are made for; '' without lights. */
  private kinds = '';

  constructor(
    private readonly scene: Scene,
    private readonly air: Air,
  ) {}

  /** @param number index of the sub-frame */
  update(frame: ViewFrame, number: number): void {
    const all = frame.scene.air.some((a) => a.type === 'haze') ? glowingIn(frame) : [];
    const kinds = all.length > 0 ? airKinds(frame.scene.air) : '';
    if (kinds !== this.kinds) this.remake(kinds, frame.scene.air);
    this.lights.forEach((light, i) => {
      // Each emissive ribbon in turn, with the share of light it stands for.
      const glowing = all[(number * LIGHTS + i) % all.length];
      const place = placeOf(glowing, ((number * LIGHTS + i) * ALONG + i * ACROSS) % 1);
      // A face emits L·π per square metre into its hemisphere, which is L/4 in every direction for both sides of a
      // small patch.
      const area = glowing.areas[glowing.areas.length - 1] * glowing.copies;
      const share = (area / 4) * (all.length / LIGHTS);
      light.position.set(...place);
      light.color.setRGB(glowing.light[0], glowing.light[1], glowing.light[2]);
      light.intensity = share;
      light.from.value.copy(light.position);
    });
  }

  dispose(): void {
    for (const light of this.lights) {
      this.scene.remove(light);
      light.dispose();
    }
    this.lights = [];
  }

  /** New lights for other air: the library keeps what it has compiled for a light. */
  private remake(kinds: string, air: readonly AirAt[]): void {
    this.dispose();
    this.kinds = kinds;
    if (kinds === '') return;
    this.lights = Array.from({ length: LIGHTS }, () => {
      const light = new DimmedPoint();
      light.layers.set(AIR_LAYER);
      light.transmittance = this.air.transmittance(light.from, air);
      this.scene.add(light);
      return light;
    });
  }
}
