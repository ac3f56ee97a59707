import { choice, number, seed } from '../../declare/params';
import { apart } from '../../shape/apart';
import { faceMiddle, gather, keepFaces } from '../../shape/faces';
import { noiseKind } from '../../noise/kinds/index';
import type { Connectivity, Mesh } from '../../shape/mesh';
import { randomSource } from '../../maths/random';
import { regionMoves, regionParams, regionWeights } from '../deform/region';
import { brief, defineStep } from '../step';

const cache = new WeakMap<Connectivity, Map<string, ReturnType<typeof keepFaces>>>();

/** Removes a fraction of the faces; if the value moves, faces come and go. */
export const thinOut = defineStep({
  kind: 'thin-out',
  title: 'Thin out',
  help: 'Takes a share of the faces away.',
  icon: 'thin-out',
  group: 'build',
  needs: 'faces',
  params: {
    share: number('Share', 50, 'Of the faces that is taken away.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
      shownWhen: { param: 'by', is: ['chance', 'order', 'patches', 'region'] },
    }),
    by: choice(
      'By',
      'chance',
      [
        { value: 'chance', title: 'Chance' },
        { value: 'order', title: 'Order' },
        { value: 'patches', title: 'Patches' },
        { value: 'region', title: 'Share by region' },
        { value: 'outside', title: 'All outside' },
        { value: 'inside', title: 'All inside' },
      ],
      'Which go first: random ones, those made first, neighbours together, or those where the region is strongest; or ' +
        'all that lie outside or inside the region.',
    ),
    scale: number('Patch size', 0.6, 'Size of the patches.', {
      unit: 'm',
      min: 0.001,
      max: 1000,
      soft: [0.05, 4],
      shownWhen: { param: 'by', is: ['patches'] },
    }),
    seed: seed('Seed', 1, 'A different number gives other faces.', 'chance', {
      shownWhen: { param: 'by', is: ['chance', 'patches'] },
    }),
    ...regionParams,
  },
  summary: (v) =>
    v.by === 'outside' || v.by === 'inside' ? `all ${v.by} the region` : `${brief(v.share)} % by ${v.by}`,
  reads: { clock: (v) => (v.by === 'region' || v.by === 'outside' || v.by === 'inside') && regionMoves(v) },
  evaluate(v, input, context) {
    const c = input.connectivity;
    const faces = c.faceStart.length - 1;
    if (v.by === 'outside' || v.by === 'inside') {
      const strength = strengthOfFaces(input, (mesh) => regionWeights(v, mesh, context));
      const kept = keepFaces(c, (f) => (v.by === 'outside' ? strength[f] >= 0.5 : strength[f] < 0.5));
      return { connectivity: kept.connectivity, positions: gather(input.positions, kept.from) };
    }
    const gone = Math.round((faces * v.share) / 100);
    if (gone === 0) return input;
    // Patches depend on positions, so they are found again when the form moves.
    const key = v.by === 'patches' || v.by === 'region' ? null : `${v.by}/${v.seed}/${gone}`;
    let own = cache.get(c);
    if (!own) cache.set(c, (own = new Map()));
    let kept = key === null ? undefined : own.get(key);
    if (!kept) {
      const order =
        v.by === 'region' ? byStrength(input, regionWeights(v, input, context)) : orderOf(v, input.positions, c, faces);
      const rank = new Uint32Array(faces);
      order.forEach((f, i) => (rank[f] = i));
      kept = keepFaces(c, (f) => rank[f] >= gone);
      if (key !== null) {
        if (own.size > 400) own.clear();
        own.set(key, kept);
      }
    }
    return { connectivity: kept.connectivity, positions: gather(input.positions, kept.from) };
  },
});

/**
 * Strength 0…1 of a region at each face: the mean over its corners. Each face is evaluated separately, so that its own
 * normal counts and not that of its neighbours.
 */
function strengthOfFaces(input: Mesh, weightsOf: (mesh: Mesh) => Float32Array | null): Float32Array {
  const { faceStart } = input.connectivity;
  const weights = weightsOf(apart(input));
  return Float32Array.from({ length: faceStart.length - 1 }, (_, f) => {
    if (!weights) return 1;
    let sum = 0;
    for (let k = faceStart[f]; k < faceStart[f + 1]; k++) sum += weights[k];
    return sum / (faceStart[f + 1] - faceStart[f]);
  });
}

/** Faces by the strength of a region at their corners, strongest first. */
function byStrength({ connectivity: c }: Mesh, weights: Float32Array | null): number[] {
  const faces = Array.from({ length: c.faceStart.length - 1 }, (_, f) => f);
  if (!weights) return faces;
  const strength = faces.map((f) => {
    let sum = 0;
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) sum += weights[c.corners[k]];
    return sum / (c.faceStart[f + 1] - c.faceStart[f]);
  });
  return faces.sort((a, b) => strength[b] - strength[a] || a - b);
}

/** Faces in the order in which they disappear. */
function orderOf(
  v: { by: string; seed: number; scale: number },
  p: Float32Array,
  c: Connectivity,
  faces: number,
): number[] {
  const all = Array.from({ length: faces }, (_, f) => f);
  if (v.by === 'order') return all;
  const random = randomSource(v.seed * 53 + 11);
  const field = v.by === 'patches' ? noiseKind('gradient').field(v.seed, 0, { frame: 0, frames: 1 }) : null;
  const value = all.map((f) => {
    if (!field) return random();
    const [x, y, z] = faceMiddle(c, p, f);
    return field(x / v.scale, y / v.scale, z / v.scale);
  });
  return all.sort((a, b) => value[a] - value[b] || a - b);
}
