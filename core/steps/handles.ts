import { triple, type Triple } from '../maths/triple';
import type { Evaluated, Params } from '../declare/params';
import { isShown } from '../declare/shown';
import { boundsOf } from '../shape/measure';
import { rotate, turnXYZ } from '../shape/quaternion';
import type { StepKind } from './step';

/** Something to take hold of in the picture, which sets a value of a step. */
export interface Handle {
  readonly param: string;
  /** Which point of a list of points. */
  readonly index?: number;
  /** A place in space, a distance from `about`, or an angle round `axis` through `about`. */
  readonly shape: 'place' | 'distance' | 'angle';
  readonly title: string;
  /** Where it is drawn, in metres, in the space the step works in. */
  readonly at: Triple;
  readonly about?: Triple;
  readonly axis?: Triple;
  /** Radius of the ring on which an angle is drawn. */
  readonly ring?: number;
  /** The place that the value 0 of a list's point has; moves are measured from there. */
  readonly from?: Triple;
}

const AXIS: Record<string, Triple> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
/** Vectors that are places rather than sizes or turns. */
const PLACES = ['pivot', 'regionAt', 'alsoAt', 'from', 'middle', 'shift', 'way', 'spacing', 'source', 'hang'];
const ABOUT: Record<string, string> = { regionSize: 'regionAt', alsoSize: 'alsoAt', reach: 'from' };

/**
 * The handles of a step at a moment: its places, the sizes of regions about theirs, the points of
 * curves and cages, and the angle of a twist or bend about its pivot.
 *
 * @param body positions of the form the step works on, for the cage round it
 */
export function handlesOf(kind: StepKind, values: Evaluated<Params>, body: Float32Array | null): Handle[] {
  const v = values as Record<string, unknown>;
  const shown = (name: string) => isShown(kind.params, v, name);
  const out: Handle[] = [];
  for (const [name, p] of Object.entries(kind.params)) {
    if (!shown(name)) continue;
    if (
      p.type === 'vector' &&
      p.unit === 'm' &&
      PLACES.includes(name) &&
      !(kind.kind === 'displace' && name === 'shift')
    )
      out.push({ param: name, shape: 'place', title: p.title, at: v[name] as Triple });
    else if (p.type === 'points') out.push(...pointHandles(name, p.title, v, body));
    else if (p.type === 'number' && ABOUT[name] && shown(ABOUT[name]) && Array.isArray(v[ABOUT[name]])) {
      const about = v[ABOUT[name]] as Triple;
      out.push({
        param: name,
        shape: 'distance',
        title: p.title,
        about,
        at: [about[0] + (v[name] as number), about[1], about[2]],
      });
    } else if (p.type === 'number' && name === 'angle' && v.pivot) {
      const turn = turnXYZ(v.pivotTurn as Triple);
      const axis = rotate(
        turn,
        kind.kind === 'bend' ? bendAxis(v.along as string, v.towards as number) : (AXIS[v.axis as string] ?? AXIS.y),
      );
      const about = v.pivot as Triple;
      const bounds = body && boundsOf(body);
      const ring = bounds ? 0.62 * Math.max(...bounds.max.map((x, k) => x - bounds.min[k])) : 1;
      out.push({
        param: name,
        shape: 'angle',
        title: p.title,
        about,
        axis,
        ring,
        at: onRing(about, axis, ring, ((v.angle as number) * Math.PI) / 180),
      });
    }
  }
  return out;
}

/** What a bend of a length turns about: square to it and to the way it bends. */
function bendAxis(along: string, towards: number): Triple {
  const s = 'xyz'.indexOf(along);
  const way = (towards * Math.PI) / 180;
  const axis: [number, number, number] = [0, 0, 0];
  axis[(s + 2) % 3] = Math.cos(way);
  axis[(s + 1) % 3] = -Math.sin(way);
  return axis;
}

/** A point on the ring round an axis, at an angle from where the ring begins. */
export function onRing(about: Triple, axis: Triple, radius: number, angle: number): Triple {
  const [u, w] = ringFrame(axis);
  return triple((k) => about[k] + radius * (Math.cos(angle) * u[k] + Math.sin(angle) * w[k]));
}

function ringFrame(t: Triple): [Triple, Triple] {
  const other: Triple = Math.abs(t[0]) < 0.8 ? [1, 0, 0] : [0, 0, 1];
  const d = other[0] * t[0] + other[1] * t[1] + other[2] * t[2];
  const raw = triple((k) => other[k] - d * t[k]);
  const l = Math.hypot(...raw);
  const u = triple((k) => raw[k] / l);
  return [u, [t[1] * u[2] - t[2] * u[1], t[2] * u[0] - t[0] * u[2], t[0] * u[1] - t[1] * u[0]]];
}

function pointHandles(name: string, title: string, v: Record<string, unknown>, body: Float32Array | null): Handle[] {
  const list = v[name] as readonly Triple[];
  if (name !== 'moves')
    return list.map((at, index) => ({ param: name, index, shape: 'place', title: `${title} ${index + 1}`, at }));
  const n = Number(v.cells);
  const bounds = v.fit ? body && boundsOf(body) : null;
  const low = bounds ? bounds.min : (v.middle as Triple).map((m, k) => m - (v.size as Triple)[k] / 2);
  const size = bounds ? bounds.max.map((x, k) => x - bounds.min[k]) : (v.size as Triple);
  return Array.from({ length: n ** 3 }, (_, index): Handle => {
    const cell = [index % n, Math.floor(index / n) % n, Math.floor(index / (n * n))];
    const from = triple((k) => low[k] + (size[k] * cell[k]) / (n - 1));
    const move = list[index] ?? [0, 0, 0];
    return {
      param: name,
      index,
      shape: 'place',
      title: `Cage point ${index + 1}`,
      from,
      at: triple((k) => from[k] + move[k]),
    };
  });
}
