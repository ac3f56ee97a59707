import { vec3, type Vec3 } from '../maths/vec3';
import type { Mesh } from '../shape/mesh';

/**
 * A body that looks the same under any rotation (a sphere), or under rotations about one of its axes (a cylinder of
 * many sides), as far as its facets are fine.
 */
type Body =
  | { readonly type: 'ball'; readonly centre: Vec3; readonly radius: number; readonly coarse: number }
  | {
      readonly type: 'turned';
      readonly axis: 0 | 1 | 2;
      /** Height and radius of each ring, 2 numbers each. */
      readonly rings: Float64Array;
      readonly coarse: number;
    };

/** Bodies with more points are not examined: it would take too long. */
const MOST_POINTS = 50_000;
/** Tolerance, relative to the radius, for points on one sphere or ring. */
const ROUND = 1e-4;
/** Widest facet in radians that passes for round: 24°, of which 15 go around. */
const WIDEST = (24 * Math.PI) / 180;
/** Tolerance for a rotated silhouette, relative to the whole shape: a third of a pixel in 1,000. */
const UNSEEN = 3.5e-4;

const known = new WeakMap<Float32Array, Body | null>();

function bodyOf(mesh: Mesh): Body | null {
  let body = known.get(mesh.positions);
  if (body === undefined) known.set(mesh.positions, (body = findBody(mesh)));
  return body;
}

function findBody({ positions: p, connectivity }: Mesh): Body | null {
  const n = p.length / 3;
  // Fewer points cannot go around within the widest facet.
  if (n < 15 || n > MOST_POINTS || connectivity.faceStart.length < 2) return null;
  return ballOf(p, connectivity) ?? ([1, 0, 2] as const).map((k) => turnedOf(p, k)).find((b) => b !== null) ?? null;
}

/** All points equally far from the centre, every edge short, and no border. */
function ballOf(p: Float32Array, { faceStart, corners, vertexCount }: Mesh['connectivity']): Body | null {
  const centre = vec3((k) => {
    let sum = 0;
    for (let i = k; i < p.length; i += 3) sum += p[i];
    return (3 * sum) / p.length;
  });
  const far = (i: number) => Math.hypot(p[i] - centre[0], p[i + 1] - centre[1], p[i + 2] - centre[2]);
  const radius = far(0);
  if (!(radius > 0)) return null;
  for (let i = 0; i < p.length; i += 3) if (Math.abs(far(i) - radius) > ROUND * radius) return null;
  const sides = new Map<number, number>();
  let longest = 0;
  for (let f = 0; f + 1 < faceStart.length; f++)
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      const [a, b] = [corners[c], corners[c + 1 < faceStart[f + 1] ? c + 1 : faceStart[f]]];
      const key = Math.min(a, b) * vertexCount + Math.max(a, b);
      sides.set(key, (sides.get(key) ?? 0) + 1);
      longest = Math.max(longest, Math.hypot(...[0, 1, 2].map((k) => p[3 * a + k] - p[3 * b + k])));
    }
  const angle = 2 * Math.asin(Math.min(1, longest / (2 * radius)));
  if (angle > WIDEST || [...sides.values()].some((s) => s !== 2)) return null;
  return { type: 'ball', centre, radius, coarse: radius * (1 - Math.cos(angle / 2)) };
}

/** Evenly filled rings of points around an axis through the origin. */
function turnedOf(p: Float32Array, axis: 0 | 1 | 2): Body | null {
  const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
  let reach = 0;
  for (const x of p) reach = Math.max(reach, Math.abs(x));
  if (reach === 0) return null;
  const step = ROUND * reach;
  const rings = new Map<string, { h: number; r: number; angles: number[] }>();
  for (let i = 0; i < p.length; i += 3) {
    const [h, r] = [p[i + axis], Math.hypot(p[i + u], p[i + v])];
    const key = `${Math.round(h / step)} ${Math.round(r / step)}`;
    const ring = rings.get(key);
    if (ring) ring.angles.push(Math.atan2(p[i + v], p[i + u]));
    else rings.set(key, { h, r, angles: [Math.atan2(p[i + v], p[i + u])] });
  }
  let coarse = 0;
  for (const { r, angles } of rings.values()) {
    if (r <= step) continue;
    angles.sort((a, b) => a - b);
    let widest = angles[0] + 2 * Math.PI - angles[angles.length - 1];
    let least = widest;
    for (let i = 1; i < angles.length; i++) {
      widest = Math.max(widest, angles[i] - angles[i - 1]);
      least = Math.min(least, angles[i] - angles[i - 1]);
    }
    if (widest > WIDEST || widest - least > 1e-3) return null;
    coarse = Math.max(coarse, r * (1 - Math.cos(widest / 2)));
  }
  return {
    type: 'turned',
    axis,
    rings: Float64Array.from([...rings.values()].flatMap(({ h, r }) => [h, r])),
    coarse,
  };
}

/** Scale of a copy's matrix if it is a similarity; null if it shears or stretches. */
function similarity(m: Float32Array, o: number): number | null {
  const dot = (a: number, b: number) => m[o + a] * m[o + b] + m[o + a + 1] * m[o + b + 1] + m[o + a + 2] * m[o + b + 2];
  const s = Math.sqrt(dot(0, 0));
  const even = (x: number, wanted: number) => Math.abs(x - wanted) <= 1e-4 * s * s;
  return even(dot(4, 4), s * s) &&
    even(dot(8, 8), s * s) &&
    even(dot(0, 4), 0) &&
    even(dot(0, 8), 0) &&
    even(dot(4, 8), 0)
    ? s
    : null;
}

/**
 * Copies by what is visible of them under rotation: a sphere by centre and radius, a body of revolution by its axis.
 * Any other copy is all of its points.
 *
 * @param size of the whole shape in metres: a body whose facets are visible at that size is not round
 * @returns points of each copy, 3 numbers each; null if no body is round
 */
export function turnless(mesh: Mesh, size: number): ((copy: number) => Float32Array | null) | null {
  const { copies } = mesh;
  if (!copies) return null;
  const bodies = copies.sources.map(bodyOf);
  if (bodies.every((b) => b === null)) return null;
  const { matrices: m, source } = copies;
  return (i) => {
    const body = bodies[source[i]];
    const scale = body && similarity(m, 16 * i);
    if (!body || scale === null || body.coarse * scale > UNSEEN * size) return null;
    return body.type === 'ball' ? ballPoints(body, m, 16 * i, scale) : axisPoints(body, m, 16 * i);
  };
}

function ballPoints({ centre: [x, y, z], radius }: Body & { type: 'ball' }, m: Float32Array, o: number, scale: number) {
  const at = [0, 1, 2].map((k) => m[o + k] * x + m[o + 4 + k] * y + m[o + 8 + k] * z + m[o + 12 + k]);
  const out = new Float32Array(21);
  for (let j = 0; j < 7; j++) {
    out.set(at, 3 * j);
    if (j > 0) out[3 * j + ((j - 1) >> 1)] += (j % 2 ? 1 : -1) * radius * scale;
  }
  return out;
}

/** Each ring by two points of the axis: one at its height, one further by its radius. */
function axisPoints({ axis, rings }: Body & { type: 'turned' }, m: Float32Array, o: number) {
  const out = new Float32Array(3 * rings.length);
  for (let j = 0; j < rings.length; j += 2)
    for (let k = 0; k < 3; k++) {
      const along = m[o + 4 * axis + k];
      out[3 * j + k] = m[o + 12 + k] + along * rings[j];
      out[3 * j + 3 + k] = m[o + 12 + k] + along * (rings[j] + rings[j + 1]);
    }
  return out;
}
