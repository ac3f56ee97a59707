import { vertexUv } from '../shape/attributes';
import type { Mesh } from '../shape/mesh';
import type { Clock } from '../time/loop';
import { noiseField, tileOf, type NoiseSettings } from './noise';
import { sampleFast } from './sample-fast';
import { settingsFrom, type NoiseValues } from './noise-params';

/** Noise in surface coordinates was asked of a surface without any. */
export class NoSurface extends Error {
  override readonly name = 'NoSurface';
}

/**
 * Values of a noise at points.
 *
 * @param points 3 numbers each, in metres
 * @returns one value per point
 */
export function sampleNoise(s: NoiseSettings, clock: Clock, points: Float32Array): Float32Array {
  const fast = sampleFast(s, clock, points);
  if (fast) return fast;
  const field = noiseField(s, clock);
  const out = new Float32Array(points.length / 3);
  for (let i = 0, j = 0; i < out.length; i++, j += 3) out[i] = field(points[j], points[j + 1], points[j + 2]);
  return out;
}

/** Positions at which the noise of a step is read, one per vertex, and its settings. */
export function noisePlaces(v: NoiseValues, mesh: Mesh): { points: Float32Array; settings: NoiseSettings } {
  const settings = settingsFrom(v);
  if (v.space === 'place') return { points: mesh.positions, settings };
  const uv = vertexUv(mesh.connectivity);
  if (!uv)
    throw new NoSurface(
      'This form has no places on its surface (UV) any more; choose the space it stands in, or put the step ' +
        'before the one that made new faces.',
    );
  // A tile of features spans the surface once, so the pattern meets itself wherever the surface does. It runs against
  // the first coordinate, as in older documents.
  const tile = tileOf(v.tile);
  const points = new Float32Array((3 * uv.length) / 2);
  for (let i = 0; i < uv.length / 2; i++) {
    points[3 * i] = (1 - uv[2 * i]) * tile;
    points[3 * i + 1] = uv[2 * i + 1] * tile;
  }
  return { points, settings: { ...settings, wraps: true, scale: 1, stretch: [1, 1, 1], turn: [0, 0, 0], tile } };
}

/** Values of a step's noise at the vertices of a shape. */
export function noiseAt(v: NoiseValues, mesh: Mesh, clock: Clock): Float32Array {
  const { points, settings } = noisePlaces(v, mesh);
  return sampleNoise(settings, clock, points);
}

/** Three independent noises as a vector at each point, 3 numbers each. */
export function vectorNoise(s: NoiseSettings, clock: Clock, points: Float32Array): Float32Array {
  const out = new Float32Array(points.length);
  for (let k = 0; k < 3; k++) {
    const values = sampleNoise({ ...s, seed: s.seed + 7919 * k }, clock, points);
    for (let i = 0; i < values.length; i++) out[3 * i + k] = values[i];
  }
  return out;
}

/**
 * The curl of three noises. It is divergence-free: points carried by it neither gather nor thin out (R. Bridson, J.
 * Hourihan & M. Nordenstam, “Curl-noise for procedural fluid flow”, SIGGRAPH 2007). Central differences over a fiftieth
 * of the scale; unit: noise per scale.
 */
export function curlNoise(s: NoiseSettings, clock: Clock, points: Float32Array): Float32Array {
  const h = s.scale / 50;
  const out = new Float32Array(points.length);
  const moved = new Float32Array(points.length);
  const weight = s.scale / (2 * h);
  for (let axis = 0; axis < 3; axis++) {
    const [u, w] = [(axis + 1) % 3, (axis + 2) % 3];
    for (const side of [1, -1]) {
      moved.set(points);
      for (let i = axis; i < moved.length; i += 3) moved[i] += side * h;
      // Adds ∂/∂axis of potential u to component w, and subtracts that of potential w from component u.
      for (const [potential, component, sign] of [
        [u, w, 1],
        [w, u, -1],
      ] as const) {
        const values = sampleNoise({ ...s, seed: s.seed + 7919 * potential }, clock, moved);
        for (let i = 0; i < values.length; i++) out[3 * i + component] += sign * side * weight * values[i];
      }
    }
  }
  return out;
}
