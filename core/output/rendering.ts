import { choice, number, text, toggle, type Params } from '../declare/params';
import { Registry } from '../declare/registry';
import { widened } from '../declare/widen';

export const LOOKS = [
  { value: 'shaded', title: 'Shaded' },
  { value: 'edges', title: 'Edges' },
  { value: 'clay', title: 'Clay' },
] as const;

const QUICK = [{ param: 'light', is: ['quick'] }] as const;
const TRUE = [{ param: 'light', is: ['true'] }] as const;
const PART = [{ param: 'range', is: ['part'] }] as const;

/** How the frames are made that all outputs of a piece are made of, and what their files are called. */
export const renderParams = {
  light: choice(
    'Light',
    'quick',
    [
      { value: 'quick', title: 'Quick' },
      { value: 'true', title: 'True' },
    ],
    'Drawn by the graphics card of a browser, or path-traced on any machine, the same in every bit.',
  ),
  subframes: number(
    'Sub-frames',
    8,
    'Pictures averaged for each frame: more give cleaner edges, softer shadows and smoother blur.',
    { min: 1, max: 1024, soft: [1, 128], integer: true, moves: false, shownWhen: QUICK },
  ),
  look: choice('Look', 'shaded', LOOKS, 'Shaded, with the edges of faces, or in clay.', { shownWhen: QUICK }),
  samples: number('Samples', 64, 'The most light paths followed for each pixel.', {
    min: 1,
    max: 65_536,
    soft: [16, 1024],
    integer: true,
    moves: false,
    shownWhen: TRUE,
  }),
  error: number(
    'Error',
    0,
    'Pixels stop once their error is below this; 0 gives all pixels the same number of samples.',
    {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 10],
      moves: false,
      shownWhen: TRUE,
    },
  ),
  denoise: toggle('Denoise', true, 'Removes the grain that few samples leave.', { shownWhen: TRUE }),
  detail: choice(
    'Detail',
    'final',
    [
      { value: 'final', title: 'Final' },
      { value: 'draft', title: 'Draft' },
    ],
    'Draft is quicker, to try things out.',
  ),
  scale: number(
    'Size',
    100,
    'Of the files, as a share of the picture: 25 % makes a proof and leaves the picture as it is.',
    {
      unit: '%',
      min: 1,
      max: 400,
      soft: [10, 100],
      step: 5,
      moves: false,
    },
  ),
  range: choice(
    'Frames',
    'all',
    [
      { value: 'all', title: 'Whole loop' },
      { value: 'part', title: 'A part' },
    ],
    'The whole loop, or some of its frames.',
  ),
  from: number('From', 0, 'The first frame that is made.', {
    min: 0,
    max: 19_999,
    soft: [0, 300],
    integer: true,
    moves: false,
    shownWhen: PART,
  }),
  to: number('To', 24, 'The last frame that is made.', {
    min: 0,
    max: 19_999,
    soft: [0, 300],
    integer: true,
    moves: false,
    shownWhen: PART,
  }),
  name: text(
    'Names',
    '{piece}-{size}',
    'Names of the files, with / for folders. Known: {piece}, {size}, {width}, {height}, {output}, {fps}, ' +
      '{frames}, {revision}, {date}, and {frame} for pictures.',
    { max: 200 },
  ),
} as const;

/** Ways to render; there is one. */
export const renderings = new Registry('rendering', [
  { kind: 'frames', title: 'Rendering', params: widened<Params>(renderParams) },
]);
