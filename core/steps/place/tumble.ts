import { choice, number } from '../../declare/params';
import type { Mesh } from '../../shape/mesh';
import { repeated } from '../../shape/repeat';
import { moved } from '../../maths/quaternion';
import { cubicBezier } from '../../time/keys/bezier';
import { splitTime } from '../../time/phase';
import type { Clock } from '../../time/loop';
import { defineStep, type StepSeam } from '../step';
import { rollAlong, type Corner, type Roll } from './rolling';
import { roundAt } from './round';

const HEADINGS: Record<string, readonly [number, number]> = { x: [1, 0], '-x': [-1, 0], z: [0, 1], '-z': [0, -1] };
const WAYS: Record<string, readonly [number, number, number, number]> = {
  gather: [0.55, 0, 0.95, 0.6],
  ease: [0.45, 0, 0.55, 1],
  linear: [0, 0, 1, 1],
};

interface Settings {
  readonly steps: number;
  readonly heading: string;
  readonly way: string;
  readonly rest: number;
  readonly travel: string;
  readonly bodies: number;
  readonly corners: number;
  readonly along: number;
  readonly rounds: number;
}

/** Progress of a step at a fraction of its time: it rolls over, then rests. */
function gone(v: Settings, x: number): number {
  const u = x / (1 - v.rest / 100);
  return u >= 1 ? 1 : cubicBezier(...WAYS[v.way], u).value;
}

/** Steps completed at a fraction of the loop: whole ones, and the fraction of the next. */
function stepsAt(v: Settings, p: number): { steps: number; x: number } {
  const there = v.travel === 'back';
  const count = there ? 2 * v.steps : v.steps;
  const k = Math.min(count - 1, Math.floor(p * count));
  const x = gone(v, p * count - k);
  const height = there && k >= v.steps ? 2 * v.steps - k - x : k + x;
  const steps = Math.floor(height);
  return { steps, x: height - steps };
}

/** Rolls a box, a prism or any body with flat sides from edge to edge. */
export const tumble = defineStep({
  kind: 'tumble',
  title: 'Tumble',
  help: 'Rolls a body with flat sides edge over edge.',
  icon: 'tumble',
  group: 'place',
  copiesAs: 'each',
  params: {
    steps: number(
      'Steps',
      4,
      'Sides it goes over in a loop. Facets of a bevel belong to the corner between two sides.',
      {
        unit: '/loop',
        min: 1,
        max: 240,
        soft: [1, 16],
        integer: true,
        moves: false,
        shownWhen: { param: 'travel', is: ['row', 'spot', 'back'] },
      },
    ),
    heading: choice(
      'Towards',
      'x',
      [
        { value: 'x', title: 'X' },
        { value: '-x', title: '−X' },
        { value: 'z', title: 'Z' },
        { value: '-z', title: '−Z' },
      ],
      'Where it rolls to.',
    ),
    way: choice(
      'Ease',
      'gather',
      [
        { value: 'gather', title: 'Gathering speed' },
        { value: 'ease', title: 'Eased' },
        { value: 'linear', title: 'Even' },
      ],
      'How it goes over each edge: gathering speed into the landing, as a falling body does.',
    ),
    rest: number('Rest', 12, 'Share of each step in which it lies still.', {
      unit: '%',
      min: 0,
      max: 95,
      soft: [0, 80],
      step: 1,
      moves: false,
    }),
    travel: choice(
      'Travel',
      'row',
      [
        { value: 'row', title: 'In a row' },
        { value: 'spot', title: 'On the spot' },
        { value: 'back', title: 'There and back' },
        { value: 'round', title: 'Round' },
      ],
      'In a row each body ends where the next one began, so that the loop closes; on the spot the ground runs under it; round it goes along the sides of a square, or of another even polygon, and ends where it began.',
    ),
    corners: number(
      'Corners',
      4,
      'Of the way round. Where no edge of the body lies ahead at a corner, it turns there on the spot.',
      { min: 3, max: 12, soft: [3, 8], integer: true, moves: false, shownWhen: { param: 'travel', is: ['round'] } },
    ),
    along: number(
      'Steps a side',
      2,
      'Sides of the body that it goes over on each side of the way. With an even number any box ends as it began, a cube with any.',
      { min: 1, max: 48, soft: [1, 8], integer: true, moves: false, shownWhen: { param: 'travel', is: ['round'] } },
    ),
    rounds: number('Rounds', 1, 'How often it goes round in a loop.', {
      unit: '/loop',
      min: 1,
      max: 60,
      soft: [1, 4],
      integer: true,
      moves: false,
      shownWhen: { param: 'travel', is: ['round'] },
    }),
    bodies: number(
      'Bodies',
      5,
      'Bodies in the row, one for each stretch of a loop; the first grows in and the last shrinks away.',
      {
        min: 1,
        max: 100,
        soft: [1, 12],
        integer: true,
        moves: false,
        shownWhen: { param: 'travel', is: ['row'] },
      },
    ),
    ground: number('Ground', 0, 'Height of the ground it rolls on.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [-3, 3],
    }),
  },
  summary: (v) =>
    v.travel === 'round'
      ? `round ${v.corners} corners, ${v.along} steps a side`
      : `${v.steps} steps towards ${v.heading.toUpperCase().replace('-', '−')}`,
  reads: { clock: true },
  seam: (v): StepSeam | null =>
    v.travel === 'row' && v.bodies === 1
      ? {
          words: 'One body alone moves on each loop, and none takes its place.',
          repairs: [
            { words: 'A row of five', values: { bodies: 5 } },
            { words: 'On the spot', values: { travel: 'spot' } },
            { words: 'There and back', values: { travel: 'back' } },
          ],
        }
      : null,
  closings: (v) =>
    v.travel === 'round'
      ? [v.along + 1, 2, 4, 3, 6].map((along) => ({ words: `${along} steps a side`, values: { along } }))
      : [],
  evaluate(v, input, { clock }) {
    if (input.positions.length === 0) return input;
    const [hx, hz] = HEADINGS[v.heading];
    if (v.travel === 'round') return rounded(v, input, clock);
    const roll = rollFor(input, hx, hz);
    const poses = posesAt(v, roll, clock);
    const from = input.positions;
    const count = from.length / 3;
    const to = new Float32Array(from.length * poses.length);
    poses.forEach((pose, b) => {
      const [c, s] = [Math.cos(pose.angle), Math.sin(pose.angle)];
      for (let i = 0; i < count; i++) {
        const [x, y, z] = [from[3 * i], from[3 * i + 1], from[3 * i + 2]];
        const ahead = x * hx + z * hz;
        // Seen from the side, heading to the right.
        const [u, w] = [(ahead - pose.corner[0]) * pose.size, (y - pose.corner[1]) * pose.size];
        const across = (pose.size - 1) * (x * -hz + z * hx);
        const move = pose.ground + c * u - s * w - ahead;
        const o = 3 * (b * count + i);
        to[o] = x + move * hx - across * hz;
        to[o + 1] = v.ground + s * u + c * w;
        to[o + 2] = z + move * hz + across * hx;
      }
    });
    return { connectivity: repeated(input.connectivity, poses.length), positions: to };
  },
});

function rounded(v: Settings & { ground: number }, input: Mesh, clock: Clock): Mesh {
  const { frame, cycles } = splitTime(clock);
  const all = (cycles + frame / clock.frames) * v.rounds;
  const round = Math.floor(all);
  const { corners, along, heading } = v;
  const pose = roundAt(input.positions, { corners, along, heading: HEADINGS[heading] }, round, all - round, (x) =>
    gone(v, x),
  );
  const positions = moved(
    input.positions,
    pose.turn,
    [0, 0, 0],
    [pose.shift[0], pose.shift[1] + v.ground, pose.shift[2]],
  );
  return { connectivity: input.connectivity, positions };
}

interface Pose {
  readonly angle: number;
  readonly corner: Corner;
  readonly ground: number;
  readonly size: number;
}

function posesAt(v: Settings, roll: Roll, clock: Clock): Pose[] {
  const { frame, cycles } = splitTime(clock);
  const p = frame / clock.frames;
  const { steps, x } = stepsAt(v, p);
  if (v.travel === 'back') return [{ ...roll.at(steps, x), size: 1 }];
  if (v.travel === 'spot' || v.bodies === 1) {
    const gone = v.steps * cycles;
    const pose = roll.at(gone + steps, x);
    const run = v.travel === 'spot' ? roll.travel(gone) + (roll.travel(gone + v.steps) - roll.travel(gone)) * p : 0;
    return [{ ...pose, ground: pose.ground - run, size: 1 }];
  }
  // Body i is i loops ahead; at the end of the loop it stands where the next one began.
  const middle = (v.bodies - 1) / 2;
  const centre = roll.travel(Math.floor(middle) * v.steps);
  return Array.from({ length: v.bodies }, (_, i) => {
    const pose = roll.at(i * v.steps + steps, x);
    const size = i === 0 ? grow(p) : i === v.bodies - 1 ? grow(1 - p) : 1;
    return { ...pose, ground: pose.ground - centre, size };
  });
}

/** From almost nothing (a face must keep its direction) to full size. */
function grow(p: number): number {
  const x = Math.min(1, Math.max(0, p));
  return Math.max(1e-4, x * x * (3 - 2 * x));
}

/** @throws StepProblem if the outline has no sides to roll over */
function rollFor(input: Mesh, hx: number, hz: number): Roll {
  return rollAlong(input.positions, (p, i) => p[i] * hx + p[i + 2] * hz);
}
