import { choice, type Evaluated, number, ribbon, seed, toggle, vector } from '../../declare/params';
import { noiseField } from '../../noise/noise';
import { boundsOf } from '../../shape/measure';
import type { Mesh } from '../../shape/mesh';
import { NearPoints } from '../../shape/near';
import { vertexNormals } from '../../shape/normals';
import type { StepContext } from '../step';

const SHAPES = ['ball', 'box', 'slab', 'rod'];
const SIZED = [...SHAPES, 'near'];
const SOFT = [...SIZED];

const shapeOptions = [
  { value: 'ball', title: 'Ball' },
  { value: 'box', title: 'Box' },
  { value: 'slab', title: 'Slab' },
  { value: 'rod', title: 'Rod' },
] as const;

/** Where a step acts, and how softly its effect ends. */
export const regionParams = {
  region: choice(
    'Region',
    'all',
    [
      { value: 'all', title: 'Everywhere' },
      ...shapeOptions,
      { value: 'patches', title: 'Patches' },
      { value: 'facing', title: 'Facing' },
      { value: 'near', title: 'Near a ribbon' },
    ],
    'Where it acts: inside a shape (a slab lies flat, a rod stands upright), in patches of noise, on what ' +
      'faces one way, or near another ribbon.',
  ),
  regionAt: vector('Region at', [0, 0, 0], 'Its middle.', {
    unit: 'm',
    min: -10_000,
    max: 10_000,
    soft: [-3, 3],
    shownWhen: { param: 'region', is: SHAPES },
    handle: 'place',
  }),
  regionSize: number('Region size', 0.8, 'Radius, half the edge or thickness, or distance from the ribbon.', {
    unit: 'm',
    min: 0,
    max: 10_000,
    soft: [0, 3],
    shownWhen: { param: 'region', is: SIZED },
    handle: { from: 'regionAt' },
  }),
  regionRibbon: ribbon('Region of', 'The ribbon near which it acts.', { shownWhen: { param: 'region', is: ['near'] } }),
  regionTowards: vector('Towards', [0, 1, 0], 'The direction that faces must point in.', {
    min: -1,
    max: 1,
    soft: [-1, 1],
    shownWhen: { param: 'region', is: ['facing'] },
  }),
  regionAngle: number('Within', 60, 'Faces within this angle of that direction.', {
    unit: '°',
    min: 0,
    max: 180,
    soft: [0, 180],
    step: 1,
    shownWhen: { param: 'region', is: ['facing'] },
  }),
  regionShare: number('Covered', 50, 'Share of space that the patches cover.', {
    unit: '%',
    min: 0,
    max: 100,
    soft: [0, 100],
    step: 1,
    shownWhen: { param: 'region', is: ['patches'] },
  }),
  regionScale: number('Patch size', 1, 'Size of the patches.', {
    unit: 'm',
    min: 0.001,
    max: 1000,
    soft: [0.1, 4],
    shownWhen: { param: 'region', is: ['patches'] },
  }),
  regionRate: number('Patch rate', 0, 'How much the patches change in a loop; it always closes.', {
    unit: '/loop',
    min: 0,
    max: 64,
    soft: [0, 6],
    step: 0.05,
    shownWhen: { param: 'region', is: ['patches'] },
  }),
  regionSeed: seed('Patch seed', 0, 'A different number gives other patches.', 'pattern', {
    shownWhen: { param: 'region', is: ['patches'] },
  }),
  soft: number('Soft edge', 0.5, 'Width of its border, over which the strength falls to nothing.', {
    unit: 'm',
    min: 0,
    max: 10_000,
    soft: [0, 2],
    shownWhen: { param: 'region', is: SOFT },
  }),
  softShare: number('Softness', 30, 'How gradually the strength falls to nothing.', {
    unit: '%',
    min: 0,
    max: 100,
    soft: [0, 100],
    step: 1,
    shownWhen: { param: 'region', is: ['patches', 'facing'] },
  }),
  fall: choice(
    'Falls',
    'smooth',
    [
      { value: 'smooth', title: 'Smoothly' },
      { value: 'linear', title: 'Evenly' },
      { value: 'early', title: 'Early' },
      { value: 'late', title: 'Late' },
    ],
    'How the strength falls over the border.',
    { more: true, shownWhen: { param: 'region', is: [...SOFT, 'patches', 'facing'] } },
  ),
  outside: toggle('Outside', false, 'Acts where it otherwise would not, and not where it would.', {
    shownWhen: { param: 'region', is: [...SOFT, 'patches', 'facing'] },
  }),
  also: choice(
    'Second region',
    'none',
    [
      { value: 'none', title: 'None' },
      { value: 'and', title: 'Only inside' },
      { value: 'or', title: 'Inside too' },
      { value: 'not', title: 'Not inside' },
    ],
    'A second shape: it acts only where both say so, where either does, or not where the second is.',
    { more: true, shownWhen: { param: 'region', is: [...SOFT, 'patches', 'facing'] } },
  ),
  alsoShape: choice('Second shape', 'ball', shapeOptions, 'What the second region is.', {
    more: true,
    shownWhen: { param: 'also', is: ['and', 'or', 'not'] },
  }),
  alsoAt: vector('Second at', [0, 0, 0], 'Its middle.', {
    unit: 'm',
    min: -10_000,
    max: 10_000,
    soft: [-3, 3],
    more: true,
    shownWhen: { param: 'also', is: ['and', 'or', 'not'] },
    handle: 'place',
  }),
  alsoSize: number('Second size', 0.8, 'Radius, or half the edge or thickness.', {
    unit: 'm',
    min: 0,
    max: 10_000,
    soft: [0, 3],
    more: true,
    shownWhen: { param: 'also', is: ['and', 'or', 'not'] },
    handle: { from: 'alsoAt' },
  }),
} as const;

export type Region = Evaluated<typeof regionParams>;

/** Whether a region moves though its values stand still. */
export function regionMoves(v: Region): boolean {
  return v.region === 'patches' && v.regionRate > 0;
}

const distances: Record<string, (x: number, y: number, z: number) => number> = {
  ball: (x, y, z) => Math.hypot(x, y, z),
  box: (x, y, z) => Math.max(Math.abs(x), Math.abs(y), Math.abs(z)),
  slab: (_x, y) => Math.abs(y),
  rod: (x, _y, z) => Math.hypot(x, z),
};

const falls: Record<Region['fall'], (t: number) => number> = {
  smooth: (t) => t * t * (3 - 2 * t),
  linear: (t) => t,
  early: (t) => t * t,
  late: (t) => t * (2 - t),
};

/** Strength 0…1 of a region at each vertex; null if it acts everywhere. */
export function regionWeights(v: Region, mesh: Mesh, context: StepContext): Float32Array | null {
  if (v.region === 'all') return null;
  const fall = falls[v.fall];
  const within = (t: number) => fall(Math.max(0, Math.min(1, t)));
  const p = mesh.positions;
  const out = new Float32Array(p.length / 3);
  const first = strengthOf(v, mesh, context, within);
  const second = distances[v.alsoShape];
  for (let i = 0; i < out.length; i++) {
    let w = first(i);
    if (v.outside) w = 1 - w;
    if (v.also !== 'none') {
      const d = second(p[3 * i] - v.alsoAt[0], p[3 * i + 1] - v.alsoAt[1], p[3 * i + 2] - v.alsoAt[2]) - v.alsoSize;
      const s = v.soft > 0 ? within(1 - d / v.soft) : d <= 0 ? 1 : 0;
      w = v.also === 'and' ? w * s : v.also === 'or' ? Math.max(w, s) : w * (1 - s);
    }
    out[i] = w;
  }
  return out;
}

function strengthOf(v: Region, mesh: Mesh, context: StepContext, within: (t: number) => number): (i: number) => number {
  const p = mesh.positions;
  const edge = (d: number) => (v.soft > 0 ? within(1 - d / v.soft) : d <= 0 ? 1 : 0);
  switch (v.region) {
    case 'patches': {
      const field = noiseField(
        {
          kind: 'gradient',
          scale: v.regionScale,
          stretch: [1, 1, 1],
          octaves: 1,
          contrast: 1,
          brightness: 0,
          low: -1,
          high: 1,
          absolute: false,
          invert: false,
          seed: v.regionSeed,
          rate: v.regionRate,
        },
        context.clock,
      );
      // Gradient noise is nearly normal about 0 with a standard deviation of about 0.27; its quantiles follow Tukey's
      // lambda distribution, whose λ = 0.14 approximates the normal one.
      const share = v.regionShare / 100;
      const from = 0.27 * 4.91 * ((1 - share) ** 0.14 - share ** 0.14);
      const soft = (v.softShare / 100) * 0.6;
      return (i) => {
        const n = field(p[3 * i], p[3 * i + 1], p[3 * i + 2]) - from;
        return soft > 0 ? within(0.5 + n / soft) : n >= 0 ? 1 : 0;
      };
    }
    case 'facing': {
      const normals = vertexNormals(mesh.connectivity, p);
      const [x, y, z] = v.regionTowards;
      const l = Math.hypot(x, y, z) || 1;
      const soft = (v.softShare / 100) * 90;
      return (i) => {
        const cosine = (normals[3 * i] * x + normals[3 * i + 1] * y + normals[3 * i + 2] * z) / l;
        const off = (Math.acos(Math.max(-1, Math.min(1, cosine))) * 180) / Math.PI - v.regionAngle;
        return soft > 0 ? within(1 - off / soft) : off <= 0 ? 1 : 0;
      };
    }
    case 'near': {
      const other = context.other?.('regionRibbon');
      if (!other || other.positions.length === 0) return () => 0;
      const reach = Math.max(1e-6, v.regionSize + v.soft);
      const near = nearPointsOf(other.positions, reach);
      return (i) => {
        let best = Infinity;
        near.within(p[3 * i], p[3 * i + 1], p[3 * i + 2], reach, (_, square) => (best = Math.min(best, square)));
        return best === Infinity ? 0 : edge(Math.sqrt(best) - v.regionSize);
      };
    }
    default: {
      const distance = distances[v.region];
      const [cx, cy, cz] = v.regionAt;
      return (i) => edge(distance(p[3 * i] - cx, p[3 * i + 1] - cy, p[3 * i + 2] - cz) - v.regionSize);
    }
  }
}

const finders = new WeakMap<Float32Array, { cell: number; near: NearPoints }>();

/** Spatial index of a shape's points, cached for as long as the shape stands still. */
export function nearPointsOf(positions: Float32Array, cell: number): NearPoints {
  const known = finders.get(positions);
  if (known && known.cell === cell) return known.near;
  // Cells far smaller than the form would make an index of nothing but cells.
  const bounds = boundsOf(positions);
  const span = bounds ? Math.max(...bounds.max.map((x, k) => x - bounds.min[k])) : 1;
  const near = new NearPoints(positions, Math.max(cell, span / 1000));
  finders.set(positions, { cell, near });
  return near;
}

/** Blends positions towards their target by the strength of a region. */
export function limited(v: Region, input: Mesh, to: Float32Array, context: StepContext): Float32Array {
  const weights = regionWeights(v, input, context);
  if (!weights) return to;
  const from = input.positions;
  const out = new Float32Array(from.length);
  for (let i = 0; i < weights.length; i++) {
    const w = weights[i];
    for (let k = 3 * i; k < 3 * i + 3; k++) out[k] = from[k] + w * (to[k] - from[k]);
  }
  return out;
}
