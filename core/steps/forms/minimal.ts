import { choice, number, vector } from '../../declare/params';
import { surfaceNets } from '../../shape/surface-nets';
import { wholePhase } from '../../time/phase';
import { brief, defineStep } from '../step';

const TURN = 2 * Math.PI;

/**
 * Level functions of triply periodic minimal surfaces, to first order (A. Schoen 1970; nodal approximations of
 * von Schnering & Nesper 1991).
 */
const SURFACES: Record<string, (x: number, y: number, z: number) => number> = {
  gyroid: (x, y, z) => Math.sin(x) * Math.cos(y) + Math.sin(y) * Math.cos(z) + Math.sin(z) * Math.cos(x),
  primitive: (x, y, z) => Math.cos(x) + Math.cos(y) + Math.cos(z),
  diamond: (x, y, z) =>
    Math.sin(x) * Math.sin(y) * Math.sin(z) +
    Math.sin(x) * Math.cos(y) * Math.cos(z) +
    Math.cos(x) * Math.sin(y) * Math.cos(z) +
    Math.cos(x) * Math.cos(y) * Math.sin(z),
};

/** A periodic minimal surface, thickened and cut by a sphere or a cube. */
export const minimal = defineStep({
  kind: 'minimal',
  title: 'Minimal surface',
  help: 'A surface of saddles that repeats without end, cut to a ball or a cube. It can travel by whole periods.',
  icon: 'minimal',
  group: 'form',
  params: {
    surface: choice(
      'Surface',
      'gyroid',
      [
        { value: 'gyroid', title: 'Gyroid' },
        { value: 'primitive', title: 'Schwarz P' },
        { value: 'diamond', title: 'Schwarz D' },
      ],
      'Which pattern.',
    ),
    cut: choice(
      'Cut by',
      'ball',
      [
        { value: 'ball', title: 'Ball' },
        { value: 'cube', title: 'Cube' },
      ],
      'What it is cut out by.',
    ),
    size: number('Size', 1.3, 'Radius of the ball, or half the edge of the cube.', {
      unit: 'm',
      min: 0.01,
      max: 1000,
      soft: [0.2, 4],
    }),
    period: number('Period', 1.1, 'Length after which the pattern repeats.', {
      unit: 'm',
      min: 0.01,
      max: 1000,
      soft: [0.2, 4],
    }),
    thickness: number('Thickness', 26, 'Thickness of the sheet, as a share of that at which it fills all space.', {
      unit: '%',
      min: 1,
      max: 95,
      soft: [4, 60],
      step: 1,
    }),
    level: number('Level', 0, 'Shifts the sheet to one side of the pattern.', { min: -1.4, max: 1.4, soft: [-1, 1] }),
    travels: vector('Travels', [0, 1, 0], 'Whole periods it moves along x, y and z in a loop. It always closes.', {
      unit: '/loop',
      min: -20,
      max: 20,
      soft: [-2, 2],
      integer: true,
      moves: false,
    }),
    cells: number('Cells', 56, 'Cells of the grid from side to side: more is finer.', {
      min: 8,
      max: 220,
      soft: [16, 120],
      integer: true,
    }),
  },
  summary: (v) => `${v.surface} · period ${brief(v.period)} m`,
  reads: { clock: (v) => v.travels.some((t) => t !== 0) },
  evaluate(v, _input, { clock }) {
    const f = SURFACES[v.surface];
    const k = TURN / v.period;
    const [tx, ty, tz] = v.travels.map((t) => TURN * wholePhase(t, clock));
    // |f − level| < w is the thickened surface; w runs from nothing to all of space.
    const w = (1.5 * v.thickness) / 100;
    const ball = v.cut === 'ball';
    const r = v.size;
    const field = (x: number, y: number, z: number) => {
      const sheet = (Math.abs(f(k * x - tx, k * y - ty, k * z - tz) - v.level) - w) / k;
      const hull = ball ? Math.sqrt(x * x + y * y + z * z) - r : Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) - r;
      return Math.max(sheet, hull);
    };
    const reach = r + (3 * r) / v.cells;
    return surfaceNets(field, [-reach, -reach, -reach], [reach, reach, reach], v.cells);
  },
});
