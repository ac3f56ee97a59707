import type { Piece, RibbonDoc, Values } from '../piece/piece';
import { stepKind } from '../steps/index';
import { adding, lacquer, matt, pieceOf, ribbon, wave } from '../starts/start';

type Steps = readonly (readonly [kind: string, values?: Values])[];

/** A small piece that shows what a step does. */
interface Example {
  /** The input of the step; none for a form. */
  readonly before?: Steps;
  readonly values?: Values;
  readonly after?: Steps;
  /** Another ribbon that the step names by this value. */
  readonly other?: { readonly by: string; readonly steps: Steps; readonly hidden?: boolean };
  readonly distance?: number;
}

// The usual input.
const BALL: Steps = [['geodesic', { radius: 1.1, frequency: 22 }]];
const CUBE: Steps = [['box', { size: [1.4, 1.4, 1.4], segments: 14 }]];
const SMALL_CUBE: Steps = [['box', { size: [0.6, 0.6, 0.6], rounding: 0.06, segments: 6 }]];
const FINE_SOLID: Steps = [['geodesic', { radius: 1, frequency: 4 }]];
const TALL: Steps = [['box', { size: [0.8, 2.2, 0.8], rounding: 0.08, segments: 22 }]];
const SOLID: Steps = [['platonic', { solid: 'icosahedron', radius: 1.25 }]];
const BEAD: Steps = [['geodesic', { radius: 0.2, frequency: 10 }]];
const LOOP: Steps = [['curve', { curve: 'lissajous', size: 1.3 }]];
const STAR: Steps = [['outline', { outline: 'star', radius: 1.1 }]];
const TURN: Steps = [['spin', { axis: 'y', turns: 1 }]];
const ROCK = (low: number, high: number): Steps => [['place', { turn: [0, wave(low, high), 0] }]];
const BEADS_IN_GRID: Steps = [...BEAD, ['repeat-grid', { columns: 7, rows: 7, spacing: [0.5, 1, 0.5] }]];

/** A cage of 3 × 3 × 3 whose middle layer is pulled in. */
const SQUEEZED = Array.from({ length: 27 }, (_, i): [number, number, number] => {
  const [x, y, z] = [i % 3, Math.floor(i / 3) % 3, Math.floor(i / 9)];
  return y === 1 ? [(1 - x) * 0.45, 0, (1 - z) * 0.45] : [0, 0, 0];
});

const FORM: Example = { after: TURN };

const EXAMPLES: Readonly<Record<string, Example>> = {
  // Forms rotate, so that all their sides are seen.
  torus: { values: { pipeRadius: wave(0.2, 0.5) }, after: [['place', { turn: [60, 0, 0] }]] },
  sphere: FORM,
  geodesic: { values: { frequency: 4 }, after: TURN },
  box: { values: { rounding: wave(0, 0.6) }, after: ROCK(20, 60) },
  cylinder: { values: { rounding: wave(0, 0.5) }, after: [['place', { turn: [25, 0, 15] }]] },
  cone: { values: { top: wave(0, 0.8) } },
  capsule: { values: { height: wave(1, 2.4) }, after: [['place', { turn: [0, 0, 30] }]] },
  plane: { after: [['ripple', { height: 0.25, wavelength: 0.9 }]] },
  disc: { values: { hole: wave(0, 0.8) }, after: [['place', { turn: [25, 0, 0] }]] },
  platonic: FORM,
  medal: FORM,
  cord: FORM,
  minimal: {},
  endless: { values: { angle: adding(0, 360), form: 'box', cells: 60, drawn: 'faces' }, after: TURN },
  drops: { values: { cells: 56 } },
  outline: {
    values: { points: 7 },
    after: [['extrude', { depth: 0.4 }], ['place', { turn: [90, 0, 0] }], ...ROCK(-40, 40)],
  },
  curve: { values: { curve: 'knot' }, after: [['wires', { root: 0.09, tip: 0.09 }], ...TURN] },
  text: { values: { size: 1.1 }, after: [['extrude', { depth: 0.35 }], ...ROCK(-35, 35)] },
  svg: { after: [['extrude', { depth: 0.4 }], ...ROCK(-40, 40)] },
  imported: FORM,

  'repeat-line': { before: SMALL_CUBE, values: { count: 6, way: [wave(0.45, 0.62), 0, 0] } },
  'repeat-rings': { before: BEAD, values: { count: 14, rings: 2, radius: 0.9, gap: wave(0.3, 0.7), advance: 1 } },
  'repeat-grid': { before: BEAD, values: { columns: 6, rows: 6, spacing: [wave(0.42, 0.6), 1, 0.5] } },
  'repeat-path': { before: BEAD, values: { count: 26, advance: 1 }, other: { by: 'other', steps: LOOP, hidden: true } },
  'repeat-points': {
    before: [['geodesic', { radius: 0.14, frequency: 8 }]],
    values: { off: wave(0.02, 0.3) },
    other: { by: 'other', steps: [['geodesic', { radius: 1, frequency: 3 }], ...TURN] },
  },
  scatter: {
    before: [
      ['cone', { bottom: 0.07, height: 0.4, sides: 12 }],
      ['place', { shift: [0, 0.2, 0] }],
    ],
    values: { count: 160 },
    other: { by: 'other', steps: [...BALL, ['displace', { height: 0.3, rate: 0.7 }]] },
  },
  stream: {
    before: [['geodesic', { radius: 0.12, frequency: 6 }]],
    values: { count: 160, source: [0, -1.2, 0], speed: 1.8, cone: 30 },
  },
  vary: {
    before: BEADS_IN_GRID,
    values: { what: 'shift', by: 'noise', shiftFrom: [0, -0.5, 0], shiftTo: [0, 0.7, 0], rate: 1, scale: 1.2 },
  },
  swing: {
    before: [...BEAD, ['repeat-line', { count: 7, way: [0.45, 0, 0] }], ['place', { shift: [wave(-0.5, 0.5), 0, 0] }]],
    values: { swings: 3, damping: 20 },
  },
  thread: {
    before: [...BEADS_IN_GRID, ['vary', { what: 'shift', by: 'noise', shiftTo: [0, 0.9, 0], rate: 1 }]],
    after: [['wires', { root: 0.05, tip: 0.05 }]],
  },

  extrude: { before: STAR, values: { depth: wave(0.2, 1.1) }, after: ROCK(-45, 45) },
  revolve: {
    before: [['outline', { outline: 'circle', radius: 0.4, aside: 1 }]],
    values: { angle: wave(90, 330) },
    after: [['place', { turn: [30, 0, 0] }]],
  },
  sweep: { before: LOOP, values: { profile: 'star', width: 0.4, twist: 2, start: adding(0, 360) } },
  loft: {
    before: STAR,
    values: { rows: 20 },
    other: {
      by: 'other',
      steps: [
        ['outline', { outline: 'circle', radius: 0.6 }],
        ['place', { shift: [0, 1.6, 0] }],
      ],
      hidden: true,
    },
    after: TURN,
  },
  wires: { before: LOOP, values: { root: wave(0.04, 0.16), tip: 0.05 } },
  'edges-to-curves': {
    before: [['geodesic', { radius: 1.2, frequency: 3 }]],
    after: [['wires', { root: 0.04, tip: 0.04 }], ...TURN],
  },
  relax: { before: LOOP, values: { passes: 30, strength: wave(0, 90) }, after: [['wires', { root: 0.08, tip: 0.08 }]] },
  even: {
    before: STAR,
    values: { distance: 0.14 },
    after: [['wires', { root: 0.06, tip: 0.06 }], ['place', { turn: [60, 0, 0] }], ...TURN],
  },

  subdivide: {
    before: [
      ['box', { size: [1.6, 1.6, 1.6], segments: 1 }],
      ['twist', { angle: wave(-60, 60) }],
    ],
  },
  smooth: { before: CUBE, values: { iterations: 12, strength: wave(0, 100) } },
  shade: { before: [['geodesic', { radius: 1.2, frequency: 5 }]], values: { angle: 5 }, after: TURN },
  decimate: { before: [...BALL, ['displace', { height: 0.35, rate: 0.6 }]], values: { share: 8, at: 'both' } },

  displace: { before: [['geodesic', { radius: 1.1, frequency: 36 }]], values: { height: 0.45, rate: 1 } },
  twist: { before: TALL, values: { angle: wave(-120, 120) } },
  bend: { before: TALL, values: { angle: wave(-100, 100) } },
  taper: { before: TALL, values: { end: wave(0.1, 1.6) } },
  shear: { before: CUBE, values: { amount: wave(-0.8, 0.8) } },
  ripple: { before: [['plane', { width: 2.8, depth: 2.8, columns: 70, rows: 70 }]], values: { height: 0.16 } },
  inflate: {
    before: [
      ['torus', { ringRadius: 0.9, pipeRadius: 0.3 }],
      ['place', { turn: [60, 0, 0] }],
    ],
    values: { amount: wave(-0.12, 0.25) },
  },
  spherify: { before: CUBE, values: { amount: wave(0, 100) }, after: ROCK(20, 50) },
  jitter: { before: BALL, values: { amount: [0.09, 0.09, 0.09], rate: 1 } },
  push: { before: BALL, values: { from: [wave(-1, 1), 0.7, 0.7], amount: 0.7 } },
  along: {
    before: TALL,
    values: { at: adding(0, 100), fit: 'length' },
    other: { by: 'other', steps: LOOP, hidden: true },
  },
  cage: { before: CUBE, values: { amount: wave(0, 100), moves: SQUEEZED } },

  shell: {
    before: [...BALL, ['thin-out', { share: 60, by: 'patches' }]],
    values: { thickness: wave(0.04, 0.3) },
    after: TURN,
  },
  struts: { before: [['geodesic', { radius: 1.2, frequency: 3 }]], values: { rod: 0.03, joint: 0.09 }, after: TURN },
  links: {
    before: [
      ...BEADS_IN_GRID,
      ['vary', { what: 'shift', by: 'noise', shiftFrom: [0, -0.8, 0], shiftTo: [0, 0.8, 0], rate: 1 }],
    ],
    values: { radius: 0.75, rod: 0.025, keep: true },
  },
  'thin-out': { before: BALL, values: { share: wave(10, 80), by: 'patches' } },
  burst: { before: FINE_SOLID, values: { distance: wave(0, 0.5), size: 80 } },
  part: {
    before: SOLID,
    values: { angle: 20 },
    after: [['inflate', { amount: wave(0, 0.4) }], ...TURN],
  },
  triangulate: {
    before: [['box', { size: [1.6, 1.6, 1.6], segments: 4 }]],
    after: [['burst', { distance: wave(0, 0.3) }]],
  },
  weld: { before: SOLID, values: { distance: 0.02 }, after: TURN },
  nest: {
    before: [['box', { size: [1.9, 1.9, 0.12] }]],
    values: { copies: 7, size: 0.78, turn: [0, 0, adding(0, 360)] },
  },
  mirror: { before: [...BALL, ['place', { shift: [wave(0.2, 1), 0, 0], size: 0.7 }]] },
  symmetry: {
    before: [
      ['capsule', { radius: 0.22, height: 1 }],
      ['place', { turn: [0, 0, wave(20, 80)], shift: [0.9, 0, 0] }],
    ],
    values: { times: 7 },
  },

  combine: {
    before: [['box', { size: [1.7, 1.7, 1.7] }]],
    other: {
      by: 'other',
      steps: [
        ['sphere', { radius: 0.95 }],
        ['place', { shift: [wave(0, 0.9), 0.6, 0.6] }],
      ],
      hidden: true,
    },
  },
  bevel: {
    before: [['box', { size: [1.7, 1.7, 1.7], segments: 1 }]],
    values: { width: wave(0.02, 0.45) },
    after: ROCK(20, 60),
  },

  rest: { before: [...SMALL_CUBE, ['place', { turn: [wave(0, 90), 0, 0] }]], values: { ground: -0.6 } },
  place: { before: SMALL_CUBE, values: { shift: [wave(-0.8, 0.8), 0, 0] } },
  spin: { before: CUBE, values: { axis: 'y', turns: 1, symmetry: 4 } },
  tumble: { before: [['box', { size: [0.9, 0.9, 0.9], segments: 1 }]], values: { travel: 'back', steps: 4 } },
  journey: {
    before: [
      ['cone', { bottom: 0.25, height: 0.9 }],
      ['place', { turn: [90, 0, 0] }],
    ],
    values: { reach: [2.6, 1.2, 2.6] },
    distance: 8,
  },
};

/** Whether a step has an example. */
export const hasExample = (kind: string): boolean => kind in EXAMPLES;

/** A piece that shows what a step does, made to be opened and changed. Throws RangeError if the kind has none. */
export function exampleOf(kind: string): Piece {
  const example = EXAMPLES[kind];
  if (!example) throw new RangeError(`There is no example of “${kind}”.`);
  const { before = [], values = {}, after = [], other, distance = 6.2 } = example;
  const ribbons: RibbonDoc[] = [];
  if (other) {
    const second = ribbon(1, 'Other', other.steps, matt('#3A86B7', 50));
    ribbons.push({ ...second, on: other.hidden !== true });
  }
  const named = other ? { ...values, [other.by]: ribbons[0].id } : values;
  ribbons.unshift(ribbon(0, stepKind(kind).title, [...before, [kind, named], ...after], lacquer('#D9483B', 36)));
  return pieceOf({
    name: `About ${stepKind(kind).title}`,
    frames: 75,
    camera: { azimuth: 30, elevation: 20, distance, focalLength: 58 },
    scene: { backdrop: [['gradient', { from: '#E6DFD1', to: '#CBC3B2', shape: 'line' }]] },
    ribbons,
  });
}
