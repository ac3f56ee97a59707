import type { Surfaces } from '../../finish/finish';
import { faceKinds, facesOf, type Channel, type Surface } from '../../finish/surface';
import { hexToLight } from '../../maths/srgb';

/** Numbers of a surface; see core/trace/assembly/surfaces/surface.ts. */
export const SURFACE_NUMBERS = 48;

/** Offset of 1 + pattern index; an integer. */
const PATTERN = 31;
const [BUMPED, HOLDOUT, IN_LIGHT_LIST, CLEAR] = [34, 37, 40, 41];
/** Offset of the bump slopes along x and y of the frame. */
export const SLOPE = 38;
/** Offset of the absorption coefficients. */
export const ABSORBED = 9;

/** Offset of a channel, and the factor from the channel's unit. Colours are three numbers of linear light. */
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

/** Absorption coefficients per metre that give white light a colour over a distance (Beer–Lambert). */
export function absorptionCoefficients(colour: readonly number[], distance: number, thickness: number): number[] {
  if (!Number.isFinite(distance) || distance <= 0 || thickness <= 0) return [0, 0, 0];
  return colour.map((c) => -Math.log(Math.max(1e-6, c)) / distance);
}

/** Luminance by which light sampling selects a surface; 0 if BSDF sampling alone finds it. */
export function emissiveLuminance(s: Surface): number {
  // Partly opaque or cut surfaces emit less than their area suggests.
  if (s.additive || s.alpha < 1 || s.features.includes('cut') || facesOf(s) !== 'shown' || s.emissiveStrength <= 0)
    return 0;
  const [r, g, b] = hexToLight(s.emissiveTinted ? s.baseColor : s.emissiveColor);
  return s.emissiveStrength * (0.2126 * r + 0.7152 * g + 0.0722 * b);
}

const AXES = { x: 0, y: 1, z: 2 } as const;

/**
 * Packs a surface for the tracer.
 *
 * @param patternIndex index of its patterns; negative for none
 */
function packSurface(s: Surface, patternIndex: number, out: Float32Array, at: number): void {
  for (const [channel, [slot, factor]] of Object.entries(NUMBER_AT)) {
    const value = s[channel as Channel];
    if (typeof value === 'string') out.set(hexToLight(value), at + slot);
    else out[at + slot] = (value as number) * factor;
  }
  out.set(absorptionCoefficients(hexToLight(s.attenuationColor), s.attenuationDistance, s.thickness), at + ABSORBED);
  out[at + 15] = s.emissiveTinted ? 1 : 0;
  out[at + 17] = s.additive ? 1 : 0;
  out[at + 29] = s.features.includes('brushed') ? AXES[s.grooves.axis] + (s.grooves.way === 'along' ? 3 : 0) : -1;
  // Hidden faces are cut away entirely.
  if (facesOf(s) === 'none') out.set([0, 1], at + 35);
  else if (!s.features.includes('cut')) out[at + 36] = -Infinity;
  out[at + BUMPED] = s.patterns.some((p) => p.channel === 'bump') ? 1 : 0;
  out[at + HOLDOUT] = facesOf(s) === 'cover' ? 1 : 0;
  out[at + IN_LIGHT_LIST] = emissiveLuminance(s);
  out[at + CLEAR] = hasTransparency(s) ? 1 : 0;
  new Uint32Array(out.buffer, out.byteOffset)[at + PATTERN] = patternIndex + 1;
}

/** Whether light may pass straight through a surface. */
export function hasTransparency(s: Surface): boolean {
  return (
    s.additive ||
    s.alpha < 1 ||
    (s.transmission > 0 && s.thickness <= 0) ||
    s.features.includes('cut') ||
    facesOf(s) === 'none' ||
    s.patterns.some(({ channel }) => channel === 'alpha' || channel === 'transmission')
  );
}

/** The surface of a face kind. */
export function surfaceOf(surfaces: Surfaces, slot: number): Surface {
  return surfaces[slot] ?? surfaces[0];
}

/**
 * Packs the surfaces of a ribbon, one for each face kind.
 *
 * @param patternIndex registers a surface's patterns and returns their index
 */
export function packSurfaces(surfaces: Surfaces, patternIndex: (s: Surface) => number): Float32Array {
  const out = new Float32Array(faceKinds.length * SURFACE_NUMBERS);
  faceKinds.forEach((_, slot) => {
    const s = surfaceOf(surfaces, slot);
    packSurface(s, s.patterns.length > 0 ? patternIndex(s) : -1, out, slot * SURFACE_NUMBERS);
  });
  return out;
}
