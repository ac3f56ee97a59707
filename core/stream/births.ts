import { normalize, scale, vec3, type Vec3 } from '../maths/vec3';
import { folded, totalOf, triangleAt, type Areas } from '../copies/areas';
import { polylinesOf, pointsOf } from '../shape/curves/curves';
import { pathAlong } from '../shape/curves/along-path';
import { vertexNormals } from '../shape/normals';
import type { Mesh } from '../shape/mesh';
import { chanceOf } from '../time/chance';

/** Where a particle is released, and the outward direction there. */
export interface Origin {
  readonly at: Vec3;
  readonly out: Vec3;
}

const TURN = 2 * Math.PI;

const unit = (v: Vec3): Vec3 => normalize(v) ?? [0, 1, 0];

/** A uniform direction on the sphere from two random numbers (Archimedes: its height is uniform). */
function onSphere(a: number, b: number): Vec3 {
  const z = 2 * a - 1;
  const r = Math.sqrt(Math.max(0, 1 - z * z));
  return [r * Math.cos(TURN * b), z, r * Math.sin(TURN * b)];
}

/**
 * A uniform direction within an angle of another.
 *
 * @param degrees 0…180
 */
export function within(direction: Vec3, degrees: number, a: number, b: number): Vec3 {
  const d = unit(direction);
  if (degrees === 0) return d;
  const c = 1 - a * (1 - Math.cos((degrees * Math.PI) / 180));
  const s = Math.sqrt(Math.max(0, 1 - c * c));
  const other: Vec3 = Math.abs(d[0]) < 0.8 ? [1, 0, 0] : [0, 0, 1];
  const e = d[0] * other[0] + d[1] * other[1] + d[2] * other[2];
  const u = unit([other[0] - e * d[0], other[1] - e * d[1], other[2] - e * d[2]]);
  const w: Vec3 = [d[1] * u[2] - d[2] * u[1], d[2] * u[0] - d[0] * u[2], d[0] * u[1] - d[1] * u[0]];
  const [x, y] = [s * Math.cos(TURN * b), s * Math.sin(TURN * b)];
  return vec3((k) => c * d[k] + x * u[k] + y * w[k]);
}

/** Releases from a simple shape about a centre. */
export function fromShape(
  kind: 'point' | 'disc' | 'ring' | 'ball' | 'box',
  middle: Vec3,
  width: number,
  chance: (salt: number) => number,
): Origin {
  let d: Vec3 = [0, 0, 0];
  if (kind === 'disc' || kind === 'ring') {
    const [r, a] = [kind === 'ring' ? 1 : Math.sqrt(chance(1)), TURN * chance(2)];
    d = [r * Math.cos(a), 0, r * Math.sin(a)];
  } else if (kind === 'ball') {
    const r = Math.cbrt(chance(3));
    d = scale(onSphere(chance(1), chance(2)), r);
  } else if (kind === 'box') d = vec3((k) => 2 * chance(k + 1) - 1);
  return { at: vec3((k) => middle[k] + width * d[k]), out: unit(d) };
}

/** Releases along curves, uniform in arc length; the outward direction is the tangent. */
export function fromCurves(mesh: Mesh, chance: (salt: number) => number): Origin | null {
  const lines = polylinesOf(mesh.connectivity).map((line) => ({
    line,
    path: pathAlong(mesh.positions, pointsOf(mesh.positions, line), line.closed, line.vertices[0]),
  }));
  const total = lines.reduce((s, l) => s + l.path.length, 0);
  let s = chance(1) * total;
  for (const { path } of lines) {
    if (s <= path.length && path.length > 0) {
      const { point, tangent } = path.at(s);
      return { at: point, out: tangent };
    }
    s -= path.length;
  }
  return null;
}

/**
 * Releases over faces, uniform in area; the outward direction is the normal.
 *
 * @param rest areas of the shape at rest, so that a slot keeps its triangle while the shape moves
 */
export function fromSurface(mesh: Mesh, rest: Areas, chance: (salt: number) => number): Origin | null {
  if (totalOf(rest) === 0) return null;
  const t = triangleAt(rest, chance(1));
  const [u, w] = folded(chance(2), chance(3));
  const normals = vertexNormals(mesh.connectivity, mesh.positions);
  const [a, b, c] = [0, 1, 2].map((k) => 3 * rest.corners[3 * t + k]);
  const mix = (q: Float32Array, k: number) => q[a + k] + u * (q[b + k] - q[a + k]) + w * (q[c + k] - q[a + k]);
  return {
    at: vec3((k) => mix(mesh.positions, k)),
    out: unit(vec3((k) => mix(normals, k))),
  };
}

/** Random numbers of a particle: one for each purpose, by its slot. */
export function chancesOf(seed: number): (slot: number) => (salt: number) => number {
  const by: ((i: number) => number)[] = [];
  return (slot) => (salt) => (by[salt] ??= chanceOf(seed * 31 + 1009 * salt))(slot);
}
