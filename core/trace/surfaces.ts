import { faceKinds } from '../finish/surface';
import type { Surfaces } from '../finish/finish';
import type { Surface } from '../finish/surface';
import { hexToLight } from '../maths/srgb';

/** Numbers of a surface; see core/trace/assembly/surface.ts. */
export const SURFACE_NUMBERS = 32;

/** Share absorbed per metre so that white light has a colour after a distance (Beer–Lambert). */
function absorbed({ attenuationColor, attenuationDistance, thickness }: Surface): number[] {
  if (!Number.isFinite(attenuationDistance) || attenuationDistance <= 0 || thickness <= 0) return [0, 0, 0];
  return hexToLight(attenuationColor).map((c) => -Math.log(Math.max(1e-6, c)) / attenuationDistance);
}

/** Writes a surface as the tracer takes it. */
function writeSurface(s: Surface, out: Float32Array, at: number): void {
  const emission = s.emissiveTinted
    ? [s.emissiveStrength, s.emissiveStrength, s.emissiveStrength]
    : hexToLight(s.emissiveColor).map((c) => c * s.emissiveStrength);
  out.set(
    [
      ...hexToLight(s.baseColor),
      s.roughness,
      s.metalness,
      s.specular,
      s.ior,
      s.transmission,
      s.thickness,
      ...absorbed(s),
      ...emission,
      s.emissiveTinted ? 1 : 0,
      s.alpha,
      s.additive ? 1 : 0,
      s.clearcoat,
      s.clearcoatRoughness,
    ],
    at,
  );
}

/** Whether light goes straight through a surface. */
export function letsThrough(s: Surface): boolean {
  return s.additive || s.alpha < 1 || (s.transmission > 0 && s.thickness <= 0);
}

/** The surfaces of a ribbon, one for each kind of face. */
export function surfaceBlock(surfaces: Surfaces): Float32Array {
  const out = new Float32Array(faceKinds.length * SURFACE_NUMBERS);
  faceKinds.forEach((_, slot) => writeSurface(surfaces[slot] ?? surfaces[0], out, slot * SURFACE_NUMBERS));
  return out;
}
