import { choice, number, points, type Points, seed, vector } from '../../declare/params';
import { cross } from '../../maths/vec3';
import { closedPath, splineThrough, squareTo, type ClosedPath } from '../../shape/closed-path';
import { boundsOf } from '../../shape/measure';
import { sinCosDegrees } from '../../maths/quaternion';
import { seriesFor, sample } from '../../time/motions/wander';
import { phaseOf } from '../../time/phase';
import { toRational } from '../../maths/rational';
import { brief, defineStep } from '../step';

const NOSES: Record<string, { axis: 0 | 1 | 2; sign: 1 | -1; up: 0 | 1 | 2 }> = {
  x: { axis: 0, sign: 1, up: 1 },
  '-x': { axis: 0, sign: -1, up: 1 },
  y: { axis: 1, sign: 1, up: 2 },
  '-y': { axis: 1, sign: -1, up: 2 },
  z: { axis: 2, sign: 1, up: 1 },
  '-z': { axis: 2, sign: -1, up: 1 },
};

const DRAWN: Points = [
  [2.4, 0, 0],
  [1.2, 0.5, 1.8],
  [-1.2, 0, 1.6],
  [-2.4, -0.4, 0],
  [-1, 0.3, -1.7],
  [1.2, 0, -1.6],
];

/** Moves a body along a closed curve, facing forward. */
export const journey = defineStep({
  kind: 'journey',
  title: 'Journey',
  help: 'Sends the body along a closed path, nose ahead, its rear following.',
  icon: 'journey',
  group: 'place',
  params: {
    path: choice(
      'Path',
      'wander',
      [
        { value: 'wander', title: 'Wandering' },
        { value: 'drawn', title: 'Drawn' },
      ],
      'A closed random line, or one through points of your own.',
    ),
    reach: vector('Reach', [5, 1.6, 5], 'How far it wanders along x, y and z.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 10],
      moves: false,
      shownWhen: { param: 'path', is: ['wander'] },
    }),
    bends: number('Bends', 1.5, 'About how many bends there are.', {
      min: 0.5,
      max: 24,
      soft: [0.5, 8],
      step: 0.25,
      moves: false,
      shownWhen: { param: 'path', is: ['wander'] },
    }),
    seed: seed('Seed', 1, 'A different number gives another path.', 'chance', {
      moves: false,
      shownWhen: { param: 'path', is: ['wander'] },
    }),
    points: points('Points', DRAWN, 'The closed path goes through them in this order.', {
      shownWhen: { param: 'path', is: ['drawn'] },
      handle: 'points',
    }),
    laps: number('Laps', 1, 'Times round the path per loop, at even speed; whole numbers close.', {
      unit: 'turns',
      min: -100,
      max: 100,
      soft: [-4, 4],
      step: 1,
      counts: true,
    }),
    nose: choice(
      'Nose',
      'z',
      Object.keys(NOSES).map((value) => ({ value, title: value.toUpperCase().replace('-', '−') })),
      'The end of the form that goes ahead.',
    ),
    held: choice(
      'Held',
      'minimal',
      [
        { value: 'minimal', title: 'Turning least' },
        { value: 'upright', title: 'Upright' },
      ],
      'Whether the body rolls as little as the path lets it, or keeps its top up.',
    ),
    ahead: number('Looks ahead', 0, 'The nose points to where it will be this part of a lap later.', {
      unit: '%',
      min: 0,
      max: 40,
      soft: [0, 15],
      step: 0.5,
    }),
    follows: number(
      'Follows',
      100,
      'How far the rear parts keep to the path: 0 is a stiff body, 100 one whose every part arrives later by its distance from the nose.',
      { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 },
    ),
    sway: number('Sway', 0, 'How far the tail swings to either side; it grows from nothing at the nose.', {
      unit: 'm',
      min: -100,
      max: 100,
      soft: [-1, 1],
    }),
    swings: number('Swings', 6, 'Swings of the tail per loop; whole numbers close.', {
      unit: 'turns',
      min: -1000,
      max: 1000,
      soft: [0, 24],
      step: 1,
      counts: true,
    }),
    waves: number('Waves', 1, 'Waves of the sway along the body.', { min: -50, max: 50, soft: [0, 4], step: 0.1 }),
    roll: number('Roll', 0, 'Turn about the direction it goes in.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-360, 360],
      step: 1,
    }),
  },
  summary: (v) =>
    `${brief(v.laps)} ${v.laps === 1 ? 'lap' : 'laps'} of a ${v.path === 'wander' ? 'wandering' : 'drawn'} path`,
  reads: { clock: (v) => v.laps !== 0 || (v.sway !== 0 && v.swings !== 0) },
  evaluate(v, input, { clock }) {
    const bounds = boundsOf(input.positions);
    if (!bounds) return input;
    const path = pathFor(v);
    const { axis, sign, up } = NOSES[v.nose];
    const side = (3 - axis - up) as 0 | 1 | 2;
    // nose × up is plus or minus the third axis; the sign keeps left and right.
    const handed = sign * ((up - axis + 3) % 3 === 1 ? 1 : -1);
    const nose = sign > 0 ? bounds.max[axis] : -bounds.min[axis];
    const length = bounds.max[axis] - bounds.min[axis];
    const head = path.length * phaseOf(toRational(v.laps), clock);
    const swing = phaseOf(toRational(v.swings), clock);
    const follows = v.follows / 100;
    const lead = (v.ahead / 100) * path.length;
    const [sinRoll, cosRoll] = sinCosDegrees(v.roll);
    const from = input.positions;
    const to = new Float32Array(from.length);
    let known = NaN;
    let frame = frameAt(path, head, lead, v.held === 'upright');
    for (let i = 0; i < from.length; i += 3) {
      const behind = nose - sign * from[i + axis];
      // Rows of points share their distance from the nose.
      if (behind !== known) {
        known = behind;
        frame = frameAt(path, head - follows * behind, lead, v.held === 'upright');
      }
      const { point, tangent, normal, across } = frame;
      const share = length > 0 ? behind / length : 0;
      const b = handed * from[i + side];
      const c = from[i + up];
      const sway =
        v.sway === 0
          ? 0
          : v.sway * share * Math.sqrt(Math.max(0, share)) * Math.sin(2 * Math.PI * (swing - v.waves * share));
      const [s, u] = [cosRoll * b - sinRoll * c + sway, sinRoll * b + cosRoll * c];
      const back = -(1 - follows) * behind;
      for (let k = 0; k < 3; k++) to[i + k] = point[k] + back * tangent[k] + u * normal[k] + s * across[k];
    }
    return { connectivity: input.connectivity, positions: to };
  },
});

function frameAt(path: ClosedPath, s: number, lead: number, upright: boolean) {
  const { point, tangent, normal } = path.at(s);
  let ahead = tangent;
  if (lead > 0) {
    const there = path.at(s + lead).point;
    const way = [there[0] - point[0], there[1] - point[1], there[2] - point[2]];
    const far = Math.hypot(...way);
    if (far > 1e-9) ahead = [way[0] / far, way[1] / far, way[2] / far];
  }
  const up = squareTo(ahead, upright ? [0, 1, 0] : normal);
  return { point, tangent: ahead, normal: up, across: cross(ahead, up) };
}

const paths = new Map<string, ClosedPath>();

function pathFor(v: {
  path: string;
  reach: readonly [number, number, number];
  bends: number;
  seed: number;
  points: Points;
}): ClosedPath {
  const key = v.path === 'wander' ? JSON.stringify([v.reach, v.bends, v.seed]) : JSON.stringify(v.points);
  let path = paths.get(key);
  if (!path) {
    path = closedPath(v.path === 'wander' ? wandering(v) : splineThrough(v.points));
    if (paths.size > 40) paths.clear();
    paths.set(key, path);
  }
  return path;
}

function wandering(v: {
  reach: readonly [number, number, number];
  bends: number;
  seed: number;
}): (u: number) => [number, number, number] {
  const series = [0, 1, 2].map((k) => seriesFor(v.bends, 1, v.seed * 3 + k));
  return (u) =>
    series.map((s, k) => v.reach[k] * (sample(s, { frame: u, frames: 1 }).value - 0.5)) as [number, number, number];
}
