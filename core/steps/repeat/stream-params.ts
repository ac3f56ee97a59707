import { choice, colour, type Evaluated, number, ribbon, seed, toggle, vector } from '../../declare/params';
import { noiseKinds } from '../../noise/kinds/index';
import { repeatParams } from './common';

const { later: _later, ...shared } = repeatParams;
const from = (...is: string[]) => ({ shownWhen: { param: 'from', is } }) as const;
const FLOW = { shownWhen: { param: 'current', is: ['curl', 'plain'] } } as const;

export const streamParams = {
  from: choice('From', 'disc', [{ value: 'point', title: 'A point' }, { value: 'disc', title: 'A disc' }, { value: 'ring', title: 'A ring' }, { value: 'ball', title: 'A ball' }, { value: 'box', title: 'A box' }, { value: 'curve', title: 'A curve' }, { value: 'surface', title: 'A surface' }], 'Where particles are released.'),
  source: vector('At', [0, 0, 0], 'The middle of where they are released.', { unit: 'm', min: -10_000, max: 10_000, soft: [-4, 4], ...from('point', 'disc', 'ring', 'ball', 'box') }),
  width: number('Radius', 0.6, 'Radius of the disc, ring or ball, or half the edge of the box.', { unit: 'm', min: 0, max: 10_000, soft: [0, 4], ...from('disc', 'ring', 'ball', 'box') }),
  other: ribbon('Released by', 'The ribbon whose curves or faces release them.', from('curve', 'surface')),
  by: choice('Released', 'count', [{ value: 'count', title: 'Per loop' }, { value: 'every', title: 'By frames' }], 'How often.'),
  count: number('Count', 120, 'Particles released in a loop, at even times.', { unit: 'copies', min: 1, max: 1_000_000, soft: [1, 2000], integer: true, moves: false, perLoop: 1, shownWhen: { param: 'by', is: ['count'] } }),
  every: number('Every', 5, 'Frames from one release to the next; the loop closes when it is a whole number of them.', { unit: 'frames', min: 1, max: 20_000, soft: [1, 30], integer: true, moves: false, shownWhen: { param: 'by', is: ['every'] } }),
  burst: number('At once', 1, 'Particles in each release.', { unit: 'copies', min: 1, max: 10_000, soft: [1, 50], integer: true, moves: false, shownWhen: { param: 'by', is: ['every'] } }),
  life: number('Life', 1, 'How long a particle lives. Lives longer than a loop overlap, and it closes all the same.', { unit: 'loops', min: 0.01, max: 50, soft: [0.1, 3], step: 0.05, moves: false }),
  lifeSpread: number('Life by chance', 0, 'Up to this share shorter.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1, moves: false, more: true }),
  direction: vector('Direction', [0, 1, 0], 'The way they set out; its length does not matter.', { min: -1000, max: 1000, soft: [-1, 1], shownWhen: { param: 'outwards', is: [false] } }),
  outwards: toggle('Set out along', false, 'Away from the middle, from the surface, or along the curve, instead of all one way.'),
  cone: number('Spread', 20, 'How far off that way they may set out.', { unit: '°', min: 0, max: 180, soft: [0, 180], step: 1 }),
  speed: number('Speed', 2, 'With which they set out.', { unit: 'm/loop', min: -10_000, max: 10_000, soft: [0, 10], step: 0.05 }),
  speedSpread: number('Speed by chance', 20, 'Up to this share slower.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1, more: true }),
  fall: number('Falls', 0, 'What a loop of falling adds to the speed downwards; below 0 they rise.', { unit: 'm/loop', perLoop: 2, min: -10_000, max: 10_000, soft: [-10, 10], step: 0.05, moves: false }),
  drag: number('Drag', 0, 'How quickly the air takes their own speed away: at 1 a loop leaves 37 % of it.', { unit: '/loop', min: 0, max: 1000, soft: [0, 10], step: 0.1, moves: false }),
  current: choice('Current', 'none', [{ value: 'none', title: 'None' }, { value: 'curl', title: 'Swirling' }, { value: 'plain', title: 'Plain' }], 'A noise that carries them, and closes: swirling (curl) neither gathers nor thins them out, plain does.'),
  flow: number('Strength', 1, 'Speed of the current.', { unit: 'm/loop', min: -10_000, max: 10_000, soft: [0, 10], step: 0.05, moves: false, ...FLOW }),
  flowNoise: choice('Noise', 'gradient', noiseKinds.filter((k) => !k.cellular).map((k) => ({ value: k.kind as string, title: k.title, help: k.help })), 'The kind of noise.', { ...FLOW, more: true }),
  flowScale: number('Scale', 1.5, 'Size of its swirls.', { unit: 'm', min: 0.001, max: 1000, soft: [0.1, 6], moves: false, ...FLOW }),
  flowOctaves: number('Octaves', 1, 'Layers, each finer and weaker than the one before.', { min: 1, max: 6, soft: [1, 4], integer: true, moves: false, ...FLOW, more: true }),
  flowRate: number('Rate', 0.5, 'How much it changes in a loop.', { unit: '/loop', min: 0, max: 64, soft: [0, 6], step: 0.05, moves: false, ...FLOW }),
  flowSeed: seed('Current seed', 0, 'Another number, another current.', 'pattern', { moves: false, ...FLOW, more: true }),
  size: number('Size', 1, 'Factor on the size of the form.', { unit: '×', min: 0, max: 1000, soft: [0, 3] }),
  sizeSpread: number('Size by chance', 30, 'Up to this share smaller.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
  growIn: number('Grows in over', 15, 'First share of its life, over which a particle grows.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
  growOut: number('Shrinks over', 25, 'Last share of its life, over which it shrinks to nothing.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
  turned: choice('Turned', 'tumble', [{ value: 'no', title: 'Not' }, { value: 'ahead', title: 'Ahead' }, { value: 'tumble', title: 'Tumbling' }], 'X looks the way they fly, or they tumble about lines by chance.'),
  tumbles: number('Turns', 1, 'Turns in a loop, more or less by chance.', { unit: '/loop', min: -100, max: 100, soft: [0, 6], step: 0.1, shownWhen: { param: 'turned', is: ['tumble'] } }),
  tinted: toggle('Colour over life', false, 'Particles change from one colour to another while they live.'),
  young: colour('When young', '#e8a317', 'Colour at birth.', { shownWhen: { param: 'tinted', is: [true] } }),
  old: colour('When old', '#d9483b', 'Colour at the end.', { shownWhen: { param: 'tinted', is: [true] } }),
  ground: choice('Lands on', 'nothing', [{ value: 'nothing', title: 'Nothing' }, { value: 'level', title: 'A floor' }, { value: 'ribbon', title: 'A ribbon' }], 'What stops them.'),
  floor: number('Floor at', -1, 'Height of the floor.', { unit: 'm', min: -10_000, max: 10_000, soft: [-4, 4], moves: false, shownWhen: { param: 'ground', is: ['level'] } }),
  landing: ribbon('Ribbon', 'The ribbon they land on, as it is in the first frame.', { shownWhen: { param: 'ground', is: ['ribbon'] } }),
  stays: number('Stays for', 0.25, 'How long it lies there before it is gone.', { unit: 'loops', min: 0, max: 50, soft: [0, 2], step: 0.05, moves: false, shownWhen: { param: 'ground', is: ['level', 'ribbon'] } }),
  plays: toggle('Plays from birth', false, 'The form’s own motions begin when a particle is born, instead of being in step with all.', { more: true }),
  ...shared,
} as const;

export type StreamValues = Evaluated<typeof streamParams>;
