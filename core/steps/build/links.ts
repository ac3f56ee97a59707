import { choice, number, toggle } from '../../declare/params';
import { beside } from '../../copies/beside';
import { centresOf, copySizes, pointsMesh } from '../../copies/copies';
import { curvesFrom, polylinesOf } from '../../shape/curves/curves';
import { linksBetween, MOST_PAIRS, TooManyPairs } from '../../shape/links';
import { Sweeper } from '../../shape/curves/sweep';
import { joined } from '../../shape/join';
import type { Mesh } from '../../shape/mesh';
import { edgeLengths } from '../../shape/edge-lengths';
import { outlinePoints } from '../../shape/outline';
import { brief, checkFaces, defineStep, formatCount, StepProblem } from '../step';

/** Throws a StepProblem with the number of pairs if there are too many. */
function pairsOf(find: () => number[]): number[] {
  try {
    return find();
  } catch (error) {
    if (!(error instanceof TooManyPairs)) throw error;
    throw new StepProblem(
      `${error.counted ? '' : 'Up to '}${formatCount(error.pairs)} pairs of points are nearer than the radius, and at most ${formatCount(MOST_PAIRS)} can be joined. Use a smaller radius, or put Links before the steps that make many points.`,
    );
  }
}

/** Lines between points that are near each other. */
export const links = defineStep({
  kind: 'links',
  title: 'Links',
  help: 'Joins every pair of points, copies or particles nearer than a radius, with rods that thin out with distance or as curves.',
  icon: 'links',
  group: 'build',
  reads: { copies: true },
  copiesAfter: (v, before) => before && v.keep === true,
  params: {
    radius: number('Radius', 0.4, 'Points nearer than this are joined.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0.05, 2],
    }),
    relative: choice(
      'Measured in',
      'metres',
      [
        { value: 'metres', title: 'Metres' },
        { value: 'sizes', title: 'Sizes' },
      ],
      'Metres, or sizes: a copy’s own size, or how long the edges at a point are. A distance between two is ' +
        'then measured in the mean of theirs.',
    ),
    most: number('Most a point', 6, 'Links that a point has at most, the shortest first.', {
      min: 1,
      max: 64,
      soft: [1, 16],
      integer: true,
    }),
    least: number('Not nearer', 0, 'Points nearer than this are not joined.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 1],
    }),
    rod: number('Rod radius', 0.012, 'Of a short link; it thins to nothing towards the radius. 0 makes curves.', {
      unit: 'm',
      min: 0,
      max: 100,
      soft: [0, 0.1],
      step: 0.002,
    }),
    sides: number('Sides', 5, 'Faces round a rod.', { min: 3, max: 24, soft: [3, 12], integer: true, moves: false }),
    keep: toggle('Keep faces', false, 'Leaves the form, or the copies, themselves.'),
  },
  summary: (v) => `nearer than ${brief(v.radius)} ${v.relative === 'sizes' ? 'sizes' : 'm'}`,
  evaluate(v, input) {
    // Copies are joined by their centres, not vertex by vertex.
    const { copies } = input;
    const c = copies ? pointsMesh(copies).connectivity : input.connectivity;
    const p = copies ? centresOf(copies) : input.positions;
    const kept = (made: Mesh) => (!v.keep ? made : copies ? beside(copies, made) : joined([input, made]));
    if (c.vertexCount > 60_000)
      throw new StepProblem(
        `Links between ${c.vertexCount} points would take too long; put Links before the steps that make many points, at most 60 000.`,
      );
    const sizes = v.relative === 'sizes' ? (copies ? copySizes(copies) : edgeLengths(input)) : undefined;
    const pairs = pairsOf(() => linksBetween(p, v.radius, v.most, v.least, sizes));
    if (v.rod === 0) {
      const lines = Array.from({ length: pairs.length / 2 }, (_, i) => ({
        vertices: [pairs[2 * i], pairs[2 * i + 1]],
        closed: false,
      }));
      const curves = curvesFrom([...(v.keep ? polylinesOf(c) : []), ...lines]);
      const body = v.keep
        ? c
        : { vertexCount: c.vertexCount, faceStart: new Uint32Array(1), corners: new Uint32Array(0) };
      const made = { connectivity: curves.closed.length > 0 ? { ...body, curves } : body, positions: p };
      return v.keep && copies ? beside(copies, made) : made;
    }
    checkFaces((pairs.length / 2) * (v.sides + 2), 'Use a smaller radius or fewer links a point.');
    const profile = outlinePoints({ outline: 'circle', points: 4, inner: 50, exponent: 2, rounding: 0 }, v.sides);
    const sweeper = new Sweeper();
    for (let i = 0; i < pairs.length; i += 2) {
      const [a, b] = [3 * pairs[i], 3 * pairs[i + 1]];
      const path = [p[a], p[a + 1], p[a + 2], p[b], p[b + 1], p[b + 2]];
      const d = Math.hypot(p[a] - p[b], p[a + 1] - p[b + 1], p[a + 2] - p[b + 2]);
      // A link grows from and shrinks to nothing, so that none pops as points drift apart.
      const reach = v.radius * (sizes ? (sizes[pairs[i]] + sizes[pairs[i + 1]]) / 2 : 1);
      const t = Math.max(0, 1 - d / reach);
      const thickness = v.rod * t * (2 - t);
      sweeper.add(path, false, {
        profile,
        profileClosed: true,
        smooth: true,
        scale: () => thickness,
        turn: () => 0,
        caps: true,
        slot: 'rods',
      });
    }
    return kept(sweeper.finish());
  },
});
