import type { PictureAt } from '../../evaluate/picture-at';
import { inverseRows } from '../../maths/matrix';
import { dot, subtract, vec3, type Vec3 } from '../../maths/vec3';
import { projectionOf } from '../../scene/projection';
import type { Mesh } from '../../shape/mesh';
import type { Pass } from './passes';
import type { Instance } from '../scene/instances';
import { Tracer, type TraceSettings } from './tracer';

/**
 * Motion vectors: how many pixels to the right and down the point seen at each pixel's centre will be at another
 * moment. Zero if that point is gone or its mesh has changed topology.
 *
 * @param then the same piece at that moment, usually one frame later
 */
export function motionPass(now: PictureAt<Mesh>, then: PictureAt<Mesh>, settings: TraceSettings): Pass {
  const { width, height } = settings;
  const [tracer, later] = [new Tracer(), new Tracer()];
  tracer.load(now, settings);
  later.load(then, settings);
  const standing = new Map(later.instances.map((s) => [keyOf(s), s]));
  const [view, other] = [now, then].map((p) => projectionOf(p.scene.camera, p.aspect, width, height));
  const values = new Float32Array(2 * width * height);
  for (let y = 0; y < height; y++) {
    const rays = new Float32Array(6 * width);
    for (let x = 0; x < width; x++) {
      const { from, way } = view.ray(x + 0.5, y + 0.5);
      rays.set([...from, ...way], 6 * x);
    }
    const { far, which } = tracer.trace(rays);
    for (let x = 0; x < width; x++) {
      if (which[2 * x] < 0) continue;
      const place = vec3((k) => rays[6 * x + k] + far[x] * rays[6 * x + 3 + k]);
      const own = tracer.instances[which[2 * x]];
      const same = standing.get(keyOf(own));
      const moved = same && movedTo(place, own, same, which[2 * x + 1]);
      const at = moved && other.to(moved);
      if (at) values.set([at.x - x - 0.5, at.y - y - 0.5], 2 * (y * width + x));
    }
  }
  return { name: 'motion', channels: 'XY', values };
}

const keyOf = ({ ribbon, overlay, id, surface }: Instance) =>
  overlay === undefined ? `${ribbon ?? surface}/${id}` : `overlay/${overlay}`;

/** Where a point of a triangle moves when its corners move. Null if the topology differs. */
function movedTo(place: Vec3, a: Instance, b: Instance, triangle: number): Vec3 | null {
  const [from, to] = [a.placed.mesh, b.placed.mesh];
  if (a.placed.field && b.placed.field) return asAWhole(place, a.placed.field.matrix, b.placed.field.matrix);
  if (from.triangles.length !== to.triangles.length || from.positions.length !== to.positions.length) return null;
  const corners = (s: Instance) =>
    [0, 1, 2].map((v) => roomOf(s.matrix, s.placed.mesh.positions, 3 * s.placed.mesh.triangles[3 * triangle + v]));
  const [p, q, r] = corners(a);
  // Barycentric coordinates in the plane of the corners (A. F. Möbius, Der barycentrische Calcul, 1827).
  const [u, v, w] = [subtract(q, p), subtract(r, p), subtract(place, p)];
  const [uu, uv, vv, wu, wv] = [dot(u, u), dot(u, v), dot(v, v), dot(w, u), dot(w, v)];
  const area = uu * vv - uv * uv;
  if (!(area > 0)) return null;
  const [s, t] = [(vv * wu - uv * wv) / area, (uu * wv - uv * wu) / area];
  const [p2, q2, r2] = corners(b);
  return vec3((k) => (1 - s - t) * p2[k] + s * q2[k] + t * r2[k]);
}

/** A distance field has no corners: it moves as a whole. */
function asAWhole(p: Vec3, from: ArrayLike<number>, to: ArrayLike<number>): Vec3 {
  const m = inverseRows(from);
  const own = [0, 4, 8].map((r) => m[r] * p[0] + m[r + 1] * p[1] + m[r + 2] * p[2] + m[r + 3]);
  return roomOf(to, Float32Array.from(own), 0);
}

/** Transforms a point to world space by a column-major matrix. */
function roomOf(m: ArrayLike<number>, p: Float32Array, i: number): Vec3 {
  const [x, y, z] = [p[i], p[i + 1], p[i + 2]];
  return [
    m[0] * x + m[4] * y + m[8] * z + m[12],
    m[1] * x + m[5] * y + m[9] * z + m[13],
    m[2] * x + m[6] * y + m[10] * z + m[14],
  ];
}
