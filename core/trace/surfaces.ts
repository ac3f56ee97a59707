import type { Surfaces } from '../finish/finish';
import { faceKinds, facesOf, type Channel, type Surface } from '../finish/surface';
import { hexToLight } from '../maths/srgb';

/** Numbers of a surface; see core/trace/assembly/surface.ts. */
export const SURFACE_NUMBERS = 48;

/** Where a surface has the number of its patterns, 1 + it; a whole number. */
const PATTERNED = 31;
const [BUMPED, COVERS, SOUGHT, CLEAR] = [34, 37, 40, 41];
/** Metres that the surface rises for a metre along x and y of its frame. */
export const SLOPE = 38;
/** Where a surface has what it absorbs. */
export const ABSORBED = 9;

/** Where a surface has a channel, and the factor from the unit of the channel. Colours are three numbers of linear light. */
export const NUMBER_AT: Readonly<Partial<Record<Channel, readonly [number, number]>>> = {
  baseColor: [0, 1],
  roughness: [3, 1],
  metalness: [4, 1],
  specular: [5, 1],
  ior: [6, 1],
  transmission: [7, 1],
  thickness: [8, 1],
  emissiveColor: [12, 1],
  alpha: [16, 1],
  clearcoat: [18, 1],
  clearcoatRoughness: [19, 1],
  sheenColor: [20, 1],
  sheenRoughness: [23, 1],
  iridescence: [24, 1],
  iridescenceIor: [25, 1],
  iridescenceThickness: [26, 1],
  anisotropy: [27, 1],
  anisotropyRotation: [28, 1 / (2 * Math.PI)],
  dispersion: [30, 1],
  emissiveStrength: [32, 1],
  sheen: [33, 1],
  cut: [35, 1],
  cutLevel: [36, 1],
};

/** Share absorbed per metre so that white light has a colour after a distance (Beer–Lambert). */
export function absorbed(colour: readonly number[], distance: number, thickness: number): number[] {
  if (!Number.isFinite(distance) || distance <= 0 || thickness <= 0) return [0, 0, 0];
  return colour.map((c) => -Math.log(Math.max(1e-6, c)) / distance);
}

/** Brightness by which the light of a surface is sought out; 0 where it is met by chance alone. */
export function glowBrightness(s: Surface): number {
  // What one sees through, or through holes of, gives less light than its faces have room for.
  if (s.additive || s.alpha < 1 || s.features.includes('cut') || facesOf(s) !== 'shown' || s.emissiveStrength <= 0)
    return 0;
  const [r, g, b] = hexToLight(s.emissiveTinted ? s.baseColor : s.emissiveColor);
  return s.emissiveStrength * (0.2126 * r + 0.7152 * g + 0.0722 * b);
}

const AXES = { x: 0, y: 1, z: 2 } as const;

/**
 * Writes a surface as the tracer takes it.
 *
 * @param patterned which entry of patterns it has, from 0; below 0 for none
 */
function writeSurface(s: Surface, patterned: number, out: Float32Array, at: number): void {
  for (const [channel, [slot, factor]] of Object.entries(NUMBER_AT)) {
    const value = s[channel as Channel];
    if (typeof value === 'string') out.set(hexToLight(value), at + slot);
    else out[at + slot] = (value as number) * factor;
  }
  out.set(absorbed(hexToLight(s.attenuationColor), s.attenuationDistance, s.thickness), at + ABSORBED);
  out[at + 15] = s.emissiveTinted ? 1 : 0;
  out[at + 17] = s.additive ? 1 : 0;
  out[at + 29] = s.features.includes('brushed') ? AXES[s.grooves.axis] + (s.grooves.way === 'along' ? 3 : 0) : -1;
  // Faces that are not there are cut away everywhere.
  if (facesOf(s) === 'none') out.set([0, 1], at + 35);
  else if (!s.features.includes('cut')) out[at + 36] = -Infinity;
  out[at + BUMPED] = s.patterns.some((p) => p.channel === 'bump') ? 1 : 0;
  out[at + COVERS] = facesOf(s) === 'cover' ? 1 : 0;
  out[at + SOUGHT] = glowBrightness(s);
  out[at + CLEAR] = letsThrough(s) ? 1 : 0;
  new Uint32Array(out.buffer, out.byteOffset)[at + PATTERNED] = patterned + 1;
}

/** Whether light goes straight through a surface, or may. */
export function letsThrough(s: Surface): boolean {
  return (
    s.additive ||
    s.alpha < 1 ||
    (s.transmission > 0 && s.thickness <= 0) ||
    s.features.includes('cut') ||
    facesOf(s) === 'none' ||
    s.patterns.some(({ channel }) => channel === 'alpha' || channel === 'transmission')
  );
}

/** The surface that a kind of face wears. */
export function wornBy(surfaces: Surfaces, slot: number): Surface {
  return surfaces[slot] ?? surfaces[0];
}

/**
 * The surfaces of a ribbon, one for each kind of face.
 *
 * @param patterned gives the patterns of a surface a number
 */
export function surfaceBlock(surfaces: Surfaces, patterned: (s: Surface) => number): Float32Array {
  const out = new Float32Array(faceKinds.length * SURFACE_NUMBERS);
  faceKinds.forEach((_, slot) => {
    const s = wornBy(surfaces, slot);
    writeSurface(s, s.patterns.length > 0 ? patterned(s) : -1, out, slot * SURFACE_NUMBERS);
  });
  return out;
}
