import { choice, number, ribbon, seed, toggle } from '../../declare/params';
import { areaOn, scatterIn, scatterOn, type SurfacePlaces } from '../../copies/scatter';
import { standing } from '../../copies/basis';
import type { Places } from '../../copies/places';
import { faceCount, type Mesh } from '../../shape/mesh';
import { vertexNormals } from '../../shape/normals';
import { axisAngle, multiply } from '../../maths/quaternion';
import { chanceOf } from '../../time/chance';
import { brief, defineStep, StepProblem } from '../step';
import { checkCost } from '../allowance';
import { checkCopies, repeated, repeatParams } from './common';

/** Copies scattered over the surface of another ribbon, or through its inside. */
export const scatter = defineStep({
  kind: 'scatter',
  title: 'Scatter',
  help: 'Scatters copies over the surface of another ribbon, or through its inside.',
  icon: 'scatter',
  group: 'repeat',
  params: {
    other: ribbon('Over', 'The ribbon they are scattered over.'),
    where: choice(
      'Where',
      'surface',
      [
        { value: 'surface', title: 'On its surface' },
        { value: 'inside', title: 'Inside it' },
      ],
      'Over its faces, or through the room it encloses.',
    ),
    by: choice(
      'By',
      'count',
      [
        { value: 'count', title: 'Count' },
        { value: 'density', title: 'Density' },
      ],
      'A total number, or a number per square metre.',
      { shownWhen: { param: 'where', is: ['surface'] } },
    ),
    count: number('Count', 120, 'How many.', {
      unit: 'copies',
      min: 1,
      max: 1_000_000,
      soft: [1, 1000],
      integer: true,
      moves: false,
    }),
    density: number('Density', 20, 'Copies per square metre.', {
      min: 0,
      max: 1_000_000,
      soft: [0, 200],
      step: 1,
      moves: false,
      shownWhen: { param: 'by', is: ['density'] },
    }),
    spread: number('Least distance', 0, 'No two are closer than this; fewer may fit then.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 1],
      moves: false,
    }),
    scatterSeed: seed('Scatter seed', 0, 'A different number gives other places.', 'chance', { moves: false }),
    turned: toggle('Outwards', true, 'Y points away from the surface.'),
    about: number('Turned by chance', 100, 'About each copy’s own Y: 100 % any way, 0 % all the same way.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    off: number('Off the surface', 0, 'Along its normal.', { unit: 'm', min: -1000, max: 1000, soft: [-1, 1] }),
    ...repeatParams,
  },
  summary: (v) =>
    v.where === 'surface' && v.by === 'density'
      ? `${brief(v.density)} per m²`
      : `${v.count}${v.where === 'inside' ? ' inside' : ''}`,
  // The first frame of the other ribbon counts too.
  reads: { copies: true, detail: true, loop: true },
  evaluate(v, input, context) {
    const other = context.other?.('other');
    if (!other || faceCount(other.connectivity) === 0)
      throw new StepProblem('Scatter needs a ribbon with faces to strew over; name one.');
    // Places are those of the first frame, so that copies neither appear nor vanish while the form moves.
    const rest = restOf(context.otherAt?.('other', -context.clock.frame), other);
    if (v.where === 'inside') {
      checkCost('tries', 60 * v.count, 'Use fewer, or have it worked out.');
      const at = strewn(rest, `in/${v.count}/${v.scatterSeed}/${v.spread}`, () =>
        scatterIn(rest, v.count, v.scatterSeed, v.spread),
      );
      if (at.length === 0)
        throw new StepProblem('No place was found inside the ribbon; it must be closed, so that it has an inside.');
      return repeated(v, input, { at, turns: anyWay(at.length / 3, v.about, v.scatterSeed) }, context);
    }
    const places = strewn(
      rest,
      `on/${v.by === 'count' ? v.count : `d${v.density}`}/${v.scatterSeed}/${v.spread}`,
      () => {
        const count = v.by === 'count' ? v.count : Math.round(v.density * areaOn(rest));
        checkCopies(count, v.by === 'count' ? 'Use fewer.' : 'Use a lower density.');
        if (v.spread > 0) checkCost('tries', 30 * count, 'Use fewer or no least distance, or have it worked out.');
        return scatterOn(rest, count, v.scatterSeed, v.spread);
      },
    );
    return repeated(v, input, standingOn(other, places, v), context);
  },
});

/** The shape at frame 0 if it has the same corners; otherwise the shape as it is. */
function restOf(first: Mesh | undefined, now: Mesh): Mesh {
  return first && !first.copies && first.connectivity === now.connectivity ? first : now;
}

const known = new WeakMap<Float32Array, Map<string, unknown>>();

/** Places are found once for a shape at rest and then move with it. */
function strewn<T>(rest: Mesh, key: string, make: () => T): T {
  let own = known.get(rest.positions);
  if (!own) known.set(rest.positions, (own = new Map()));
  if (!own.has(key)) {
    if (own.size > 20) own.clear();
    own.set(key, make());
  }
  return own.get(key) as T;
}

function anyWay(n: number, share: number, seed: number): Float32Array {
  const chance = chanceOf(seed + 77);
  const turns = new Float32Array(4 * n);
  for (let i = 0; i < n; i++) turns.set(axisAngle([0, 1, 0], 3.6 * share * chance(i)), 4 * i);
  return turns;
}

function standingOn(
  mesh: Mesh,
  { corners, shares }: SurfacePlaces,
  v: { turned: boolean; about: number; off: number; scatterSeed: number },
): Places {
  const p = mesh.positions;
  const normals = vertexNormals(mesh.connectivity, p);
  const n = shares.length / 2;
  const [at, turns] = [new Float32Array(3 * n), new Float32Array(4 * n)];
  const chance = chanceOf(v.scatterSeed + 77);
  for (let i = 0; i < n; i++) {
    const [a, b, c] = [3 * corners[3 * i], 3 * corners[3 * i + 1], 3 * corners[3 * i + 2]];
    const [u, w] = [shares[2 * i], shares[2 * i + 1]];
    const mix = (q: Float32Array, k: number) => q[a + k] + u * (q[b + k] - q[a + k]) + w * (q[c + k] - q[a + k]);
    const [nx, ny, nz] = [mix(normals, 0), mix(normals, 1), mix(normals, 2)];
    const l = Math.hypot(nx, ny, nz) || 1;
    const y: [number, number, number] = [nx / l, ny / l, nz / l];
    const spin = axisAngle([0, 1, 0], 3.6 * v.about * chance(i));
    turns.set(
      v.turned ? multiply(standing(y, [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]]), spin) : spin,
      4 * i,
    );
    for (let k = 0; k < 3; k++) at[3 * i + k] = mix(p, k) + v.off * y[k];
  }
  return { at, turns };
}
