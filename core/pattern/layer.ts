import {
  choice,
  number,
  stops,
  type ColourParam,
  type NumberParam,
  type Param,
  type Params,
  type When,
} from '../declare/params';
import { turnHue } from '../time/colours/space';
import type { PatternKind } from './kind';
import { patterns } from './kinds/index';

/** How a layer combines with those below it. */
export type LayerHow = 'over' | 'add' | 'multiply' | 'mask';

const HOWS = [
  { value: 'over', title: 'Over', help: 'Covers what is under it.' },
  { value: 'add', title: 'Plus', help: 'Is added to it.' },
  { value: 'multiply', title: 'Times', help: 'Multiplies it.' },
  { value: 'mask', title: 'Mask', help: 'Says where the next layer shows, and shows nothing itself.' },
] as const;

const SHOWING = ['over', 'add', 'multiply'];

/** What every layer has, whatever its kind and channel. */
const common = {
  layerHow: choice('Lies', 'over', HOWS, 'How it acts on what is under it.'),
  layerAmount: number('Strength', 100, 'How much of it is there.', {
    unit: '%',
    min: 0,
    max: 100,
    soft: [0, 100],
    step: 1,
  }),
};

const along = (round: boolean) => ({
  rampEnds: choice(
    'Ends',
    round ? 'round' : 'hold',
    [
      { value: 'hold', title: 'Hold', help: 'Before the first and after the last they stay.' },
      { value: 'round', title: 'Come round', help: 'After the last comes the first again.' },
    ],
    'What lies beyond the first and the last.',
    { more: true },
  ),
  rampTimes: number('Repeats', 1, 'How many times they are gone through on the way.', {
    unit: '×',
    min: -1000,
    max: 1000,
    soft: [1, 8],
    step: 0.1,
    more: true,
  }),
  rampShift: number('Moved on', 0, 'Along the round: one round more a loop closes.', {
    min: -1000,
    max: 1000,
    soft: [-1, 1],
    cyclic: 1,
    shownWhen: { param: 'rampEnds', is: ['round'] },
  }),
  rampOffset: number('Offset', 0, 'Along the way from the first to the last.', {
    min: -1000,
    max: 1000,
    soft: [-1, 1],
    more: true,
    shownWhen: { param: 'rampEnds', is: ['hold'] },
  }),
});

const colours = {
  rampStops: {
    ...stops(
      'Colours',
      [
        { at: 0, colour: '#D9483B' },
        { at: 1, colour: '#3A86B7' },
      ],
      'Colours from the lowest to the highest.',
    ),
    open: true,
    shownWhen: { param: 'layerHow', is: SHOWING },
  },
  rampMix: choice(
    'Mixed',
    'oklch',
    [
      { value: 'oklch', title: 'As seen', help: 'OKLCH, the shorter way round the hues.' },
      { value: 'far', title: 'The long way', help: 'OKLCH, the longer way round the hues.' },
      { value: 'rgb', title: 'RGB', help: 'The display’s own red, green and blue.' },
      { value: 'hold', title: 'Not at all', help: 'Each colour up to the next, with sharp borders.' },
    ],
    'How one colour blends into the next.',
    { shownWhen: { param: 'layerHow', is: SHOWING } },
  ),
} as const;

/** The same, shown only if colours are chosen. */
function colouredWhen(when: When): Params {
  const only = (p: Param): Param => ({ ...p, shownWhen: [colours.rampStops.shownWhen, when] });
  return Object.fromEntries(Object.entries(colours).map(([name, p]) => [name, only(p)]));
}

function numbers(target: NumberParam) {
  const { unit, min, max, soft, step } = target;
  const more = { unit, min, max, soft, step, shownWhen: { param: 'layerHow', is: SHOWING } };
  return {
    rampLow: number('Lowest', soft[0], 'The value where the pattern is low.', more),
    rampHigh: number('Highest', soft[1], 'The value where the pattern is high.', more),
  };
}

const declared = new WeakMap<Param, Map<string, Params>>();

/** All parameters of a layer of one kind on one value of a finish; the same object for the same pair. */
export function layerParams(kind: PatternKind, target: NumberParam | ColourParam): Params {
  let known = declared.get(target);
  if (!known) declared.set(target, (known = new Map()));
  let params = known.get(kind.kind);
  if (!params) {
    const to = target.type === 'colour' ? (kind.image ? colouredWhen(kind.image.coloured) : colours) : numbers(target);
    known.set(kind.kind, (params = { ...common, ...to, ...kind.params, ...along(kind.round ?? false) }));
  }
  return params;
}

/** Values with which a new layer is visible at once: from the present value to another. It stands still. */
export function freshLayer(
  kind: string,
  target: NumberParam | ColourParam,
  now: number | string,
): Record<string, unknown> {
  const { round, params } = patterns.get(kind);
  return { ...freshRamp(target, now, round), ...('rate' in params ? { rate: 0 } : {}) };
}

function freshRamp(target: NumberParam | ColourParam, now: number | string, round = false): Record<string, unknown> {
  if (target.type === 'number') {
    const from = typeof now === 'number' ? now : target.default;
    const [low, high] = target.soft;
    // Towards the farther end of the usual range.
    return { rampLow: from, rampHigh: Math.abs(high - from) >= Math.abs(from - low) ? high : low };
  }
  const from = typeof now === 'string' ? now : target.default;
  const turned = (degrees: number) => turnHue(from, degrees, 'oklch');
  return {
    rampStops: round
      ? [
          { at: 0, colour: from },
          { at: 0.3333, colour: turned(120) },
          { at: 0.6667, colour: turned(240) },
        ]
      : [
          { at: 0, colour: from },
          { at: 1, colour: turned(140) },
        ],
  };
}
