import { dot, normalize, vec3, type Vec3 } from '@maypole/core/maths/vec3';
import type { RibbonGeometry, RibbonPart } from '../evaluate/loop-cache';
import { boxOf } from './box';

/** A copy hit by a line of sight. */
interface Picked {
  /** Index among the copies of its ribbon. */
  readonly number: number;
  /** Distance, in lengths of `way`. */
  readonly distance: number;
}

/** The nearest copy of a ribbon along a line of sight; null if it misses. */
export function pickCopy(shape: RibbonGeometry, from: Vec3, way: Vec3): Picked | null {
  let best: Picked | null = null;
  for (const part of shape.parts) {
    const { instances } = part;
    if (!instances) continue;
    const box = boxOf({ positions: part.positions });
    for (let i = 0; i < instances.numbers.length; i++) {
      const local = localRay(instances.matrices, 16 * i, from, way);
      if (!local || !meetsBox(box, local.from, local.way, best?.distance ?? Infinity)) continue;
      const { distance } = meetsFaces(part, local.from, local.way);
      if (distance < (best?.distance ?? Infinity)) best = { number: instances.numbers[i], distance };
    }
  }
  return best;
}

/** A surface point hit by a line of sight. */
export interface PickedPoint {
  /** Distance, in lengths of `way`. */
  readonly distance: number;
  readonly at: Vec3;
  /** Unit shading normal, towards the origin of the line. */
  readonly normal: Vec3;
}

/** The nearest point of a ribbon along a line of sight; null if it misses. */
export function pickPoint(shape: RibbonGeometry, from: Vec3, way: Vec3): PickedPoint | null {
  let best: PickedPoint | null = null;
  for (const part of shape.parts) {
    const box = boxOf({ positions: part.positions });
    const count = part.instances?.numbers.length ?? 1;
    for (let i = 0; i < count; i++) {
      const m = part.instances?.matrices;
      const local = m ? localRay(m, 16 * i, from, way) : { from, way };
      if (!local || !meetsBox(box, local.from, local.way, best?.distance ?? Infinity)) continue;
      const hit = meetsFaces(part, local.from, local.way);
      if (hit.distance >= (best?.distance ?? Infinity)) continue;
      const smooth = shadedNormal(part, hit);
      const turned = m ? turnedBy(m, 16 * i, smooth) : smooth;
      const facing = dot(turned, way) > 0 ? vec3((k) => -turned[k]) : turned;
      best = {
        distance: hit.distance,
        at: vec3((k) => from[k] + hit.distance * way[k]),
        normal: normalize(facing) ?? facing,
      };
    }
  }
  return best;
}

/** Shading normal at a point of a triangle, interpolated from its corners. */
function shadedNormal({ normals: n, topology }: RibbonPart, { triangle, u, v }: FaceHit): Vec3 {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * topology.triangles[triangle + k]);
  return vec3((k) => (1 - u - v) * n[a + k] + u * n[b + k] + v * n[c + k]);
}

/** Transforms a normal by a copy's matrix, a rotation times scales: the inverse transpose divides by the scales. */
function turnedBy(m: Float32Array, o: number, n: Vec3): Vec3 {
  const square = vec3((c) => m[o + 4 * c] ** 2 + m[o + 4 * c + 1] ** 2 + m[o + 4 * c + 2] ** 2 || 1);
  return vec3((r) => [0, 1, 2].reduce((sum, c) => sum + (m[o + 4 * c + r] / square[c]) * n[c], 0));
}

/** The line in a copy's object space. Parameters along it stay the same. */
function localRay(m: Float32Array, o: number, from: Vec3, way: Vec3): { from: Vec3; way: Vec3 } | null {
  const a = (r: number, c: number) => m[o + 4 * c + r];
  const cofactor = (r: number, c: number) => {
    const [r1, r2, c1, c2] = [(r + 1) % 3, (r + 2) % 3, (c + 1) % 3, (c + 2) % 3];
    return a(r1, c1) * a(r2, c2) - a(r1, c2) * a(r2, c1);
  };
  const det = a(0, 0) * cofactor(0, 0) + a(0, 1) * cofactor(0, 1) + a(0, 2) * cofactor(0, 2);
  if (Math.abs(det) < 1e-18) return null;
  const undo = (v: Vec3): Vec3 =>
    vec3((c) => (cofactor(0, c) * v[0] + cofactor(1, c) * v[1] + cofactor(2, c) * v[2]) / det);
  return { from: undo([from[0] - m[o + 12], from[1] - m[o + 13], from[2] - m[o + 14]]), way: undo(way) };
}

function meetsBox(
  box: { min: readonly number[]; max: readonly number[] },
  from: Vec3,
  way: Vec3,
  within: number,
): boolean {
  let [near, far] = [0, within];
  for (let k = 0; k < 3; k++) {
    const [a, b] = [(box.min[k] - from[k]) / way[k], (box.max[k] - from[k]) / way[k]];
    // Parallel to a slab the quotients are NaN; then only lying between its planes counts.
    if (Number.isNaN(a) || Number.isNaN(b)) continue;
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  return near <= far;
}

/** Where a line hits a part: offset into `triangles`, and barycentric coordinates of the second and third corner. */
interface FaceHit {
  readonly distance: number;
  readonly triangle: number;
  readonly u: number;
  readonly v: number;
}

/** T. Möller & B. Trumbore, “Fast, minimum storage ray/triangle intersection”, 1997. */
function meetsFaces({ positions: p, topology }: RibbonPart, from: Vec3, way: Vec3): FaceHit {
  const t = topology.triangles;
  let best: FaceHit = { distance: Infinity, triangle: 0, u: 0, v: 0 };
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i], 3 * t[i + 1], 3 * t[i + 2]];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const [hx, hy, hz] = [way[1] * vz - way[2] * vy, way[2] * vx - way[0] * vz, way[0] * vy - way[1] * vx];
    const det = ux * hx + uy * hy + uz * hz;
    if (det === 0) continue;
    const [sx, sy, sz] = [from[0] - p[a], from[1] - p[a + 1], from[2] - p[a + 2]];
    const u = (sx * hx + sy * hy + sz * hz) / det;
    if (u < 0 || u > 1) continue;
    const [qx, qy, qz] = [sy * uz - sz * uy, sz * ux - sx * uz, sx * uy - sy * ux];
    const w = (way[0] * qx + way[1] * qy + way[2] * qz) / det;
    if (w < 0 || u + w > 1) continue;
    const d = (vx * qx + vy * qy + vz * qz) / det;
    if (d > 0 && d < best.distance) best = { distance: d, triangle: i, u, v: w };
  }
  return best;
}

/** A copy as it stands now. */
export interface CopyLook {
  readonly number: number;
  readonly count: number;
  /** Position in the last repeat, from 1; fractional while copies move on. */
  readonly place: number;
  readonly places: number;
  /** Delay of its source, as a share of the loop. */
  readonly late: number;
  readonly at: Vec3;
  /** Scale factors along its own axes. */
  readonly size: Vec3;
  /** Index of its source shape, from 1. */
  readonly shape: number;
  readonly shapes: number;
  /** '#rrggbb' if it overrides the colour. */
  readonly colour?: string;
  readonly roughness?: number;
  readonly metalness?: number;
  /** The ribbon whose finish it uses, if not its own. */
  readonly materialRibbon?: string;
}

/** Describes a copy; null if it does not exist at this moment. */
export function lookAt(shape: RibbonGeometry, number: number): CopyLook | null {
  if (!shape.facts || number >= shape.facts.count) return null;
  for (const [index, { instances: i }] of shape.parts.entries()) {
    const at = i ? i.numbers.indexOf(number) : -1;
    if (!i || at < 0) continue;
    const m = i.matrices.subarray(16 * at, 16 * at + 16);
    const colour = i.channels?.baseColor?.subarray(3 * at, 3 * at + 3);
    const [roughness, metalness] = [i.channels?.roughness?.[at], i.channels?.metalness?.[at]];
    const has = (x: number | undefined): x is number => x !== undefined && x === x;
    return {
      number,
      count: shape.facts.count,
      place: shape.facts.order[number] + 1,
      places: shape.facts.places,
      late: shape.facts.late?.[number] ?? 0,
      at: [m[12], m[13], m[14]],
      size: vec3((k) => Math.hypot(m[4 * k], m[4 * k + 1], m[4 * k + 2])),
      shape: index + 1,
      shapes: shape.parts.length,
      ...(colour && has(colour[0])
        ? {
            colour: `#${[...colour]
              .map((x) =>
                Math.round(255 * x)
                  .toString(16)
                  .padStart(2, '0'),
              )
              .join('')}`,
          }
        : {}),
      ...(has(roughness) ? { roughness } : {}),
      ...(has(metalness) ? { metalness } : {}),
      ...(i.materialRibbon ? { materialRibbon: i.materialRibbon } : {}),
    };
  }
  return null;
}
