import { vec3, type Vec3 } from '../maths/vec3';
import type { Params } from '../declare/params';
import { isShown } from '../declare/shown';
import { boundsOf } from '../shape/measure';
import { rotate, turnXYZ } from '../maths/quaternion';

/** A handle in the picture that sets a value of a step. */
export interface Handle {
  readonly param: string;
  /** Index within a list of points. */
  readonly index?: number;
  /** A position, a distance from `about`, or an angle about `axis` through `about`. */
  readonly shape: 'place' | 'distance' | 'angle';
  readonly title: string;
  /** Where it is drawn, in metres, in the space that the step works in. */
  readonly at: Vec3;
  readonly about?: Vec3;
  readonly axis?: Vec3;
  /** Radius of the ring on which an angle is drawn, in metres. */
  readonly ring?: number;
  /** Position of the value 0 of a list's point; displacements are measured from it. */
  readonly from?: Vec3;
}

type Values = Readonly<Record<string, unknown>>;

/** Radius of an angle's ring without an input form, in metres, and as a fraction of the form's largest extent. */
const [RING, OF_EXTENT] = [1, 0.62];

/** Whether some handles depend on the input form. */
export function handlesNeedBody(params: Params): boolean {
  return Object.values(params).some(
    (p) => p.handle === 'grid' || (typeof p.handle === 'object' && 'about' in p.handle),
  );
}

/**
 * The handles of a step's values at a moment, as their declarations ask.
 *
 * @param body positions of the input form, for the cage round it and the ring of an angle
 */
export function handlesOf(params: Params, values: Values, body: Float32Array | null): Handle[] {
  return Object.entries(params).flatMap(([name, p]): Handle[] => {
    const { handle, title } = p;
    if (handle === undefined || !isShown(params, values, name)) return [];
    if (handle === 'place') return [{ param: name, shape: 'place', title, at: values[name] as Vec3 }];
    if (handle === 'points') return pointHandles(name, title, values[name] as readonly Vec3[]);
    if (handle === 'grid') return gridHandles(name, values, body);
    if ('from' in handle) {
      const about = values[handle.from] as Vec3;
      if (!isShown(params, values, handle.from)) return [];
      const at: Vec3 = [about[0] + (values[name] as number), about[1], about[2]];
      return [{ param: name, shape: 'distance', title, about, at }];
    }
    const about = values[handle.about] as Vec3;
    const axis = rotate(turnXYZ(handle.turn ? (values[handle.turn] as Vec3) : [0, 0, 0]), handle.axis(values));
    const bounds = body && boundsOf(body);
    const ring = bounds ? OF_EXTENT * Math.max(...bounds.max.map((x, k) => x - bounds.min[k])) : RING;
    const at = onRing(about, axis, ring, ((values[name] as number) * Math.PI) / 180);
    return [{ param: name, shape: 'angle', title, about, axis, ring, at }];
  });
}

/** A point on the ring about an axis, at an angle from its start. */
export function onRing(about: Vec3, axis: Vec3, radius: number, angle: number): Vec3 {
  const [u, w] = ringFrame(axis);
  return vec3((k) => about[k] + radius * (Math.cos(angle) * u[k] + Math.sin(angle) * w[k]));
}

function ringFrame(t: Vec3): [Vec3, Vec3] {
  const other: Vec3 = Math.abs(t[0]) < 0.8 ? [1, 0, 0] : [0, 0, 1];
  const d = other[0] * t[0] + other[1] * t[1] + other[2] * t[2];
  const raw = vec3((k) => other[k] - d * t[k]);
  const l = Math.hypot(...raw);
  const u = vec3((k) => raw[k] / l);
  return [u, [t[1] * u[2] - t[2] * u[1], t[2] * u[0] - t[0] * u[2], t[0] * u[1] - t[1] * u[0]]];
}

function pointHandles(name: string, title: string, list: readonly Vec3[]): Handle[] {
  return list.map((at, index) => ({ param: name, index, shape: 'place', title: `${title} ${index + 1}`, at }));
}

/** The points of a cage: displacements from a grid over the form, or over a box of its own. */
function gridHandles(name: string, v: Values, body: Float32Array | null): Handle[] {
  const list = v[name] as readonly Vec3[];
  const n = Number(v.cells);
  const bounds = v.fit ? body && boundsOf(body) : null;
  const low = bounds ? bounds.min : (v.middle as Vec3).map((m, k) => m - (v.size as Vec3)[k] / 2);
  const size = bounds ? bounds.max.map((x, k) => x - bounds.min[k]) : (v.size as Vec3);
  return Array.from({ length: n ** 3 }, (_, index): Handle => {
    const cell = [index % n, Math.floor(index / n) % n, Math.floor(index / (n * n))];
    const from = vec3((k) => low[k] + (size[k] * cell[k]) / (n - 1));
    const move = list[index] ?? [0, 0, 0];
    return {
      param: name,
      index,
      shape: 'place',
      title: `Cage point ${index + 1}`,
      from,
      at: vec3((k) => from[k] + move[k]),
    };
  });
}
