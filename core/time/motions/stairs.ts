import { choice, number } from '../../declare/params';
import { cubicBezier } from '../keys/bezier';
import { closedGains, GAIN_HELP, gainWords } from '../closing';
import { closedCourse, defineMotion, swingAround } from '../motion';
import { splitTime } from '../phase';

/** Bézier controls of each way up a stair, as in CSS cubic-bezier. */
const WAYS: Record<string, readonly [number, number, number, number]> = {
  ease: [0.45, 0, 0.55, 1],
  gather: [0.6, 0, 0.95, 0.7],
  settle: [0.05, 0.3, 0.4, 1],
  linear: [0, 0, 1, 1],
};

/** Equal steps per loop, each with a rest. */
export const stairs = defineMotion({
  kind: 'stairs',
  title: 'Stairs',
  help: 'Equal steps through the loop, eased or instant, with a rest on each.',
  ofValue: { from: 'value', adds: 'change' },
  words: (s) => `${String(s.count)} steps`,
  closing: (motion, param) =>
    closedGains(motion.adds as number, param.cyclic).map((gain) => ({
      words: gainWords(gain, param),
      help: GAIN_HELP,
      motion: { ...motion, adds: gain },
    })),
  params: {
    from: number('From', 0, 'Where the first step begins.', { moves: false }),
    adds: number('Adds per loop', 1, 'What all steps together gain each time round: 360° is one whole turn.', {
      moves: false,
    }),
    count: number('Steps', 4, 'Steps per loop.', {
      unit: '/loop',
      min: 1,
      max: 1000,
      soft: [1, 24],
      integer: true,
      moves: false,
    }),
    way: choice(
      'Ease',
      'ease',
      [
        { value: 'ease', title: 'Eased' },
        { value: 'gather', title: 'Gathering speed' },
        { value: 'settle', title: 'Settling' },
        { value: 'linear', title: 'Even' },
        { value: 'hold', title: 'At once' },
      ],
      'How each step is taken.',
    ),
    rest: number('Rest', 10, 'Share of each step in which it stands still.', {
      unit: '%',
      min: 0,
      max: 99,
      soft: [0, 90],
      step: 1,
      moves: false,
    }),
    returns: choice(
      'Then',
      'on',
      [
        { value: 'on', title: 'Goes on' },
        { value: 'back', title: 'Comes back' },
      ],
      'Whether it keeps climbing, or goes back down in the second half of its steps.',
    ),
  },
  start(value, param) {
    const { low, high } = swingAround(value, param);
    return {
      from: param.cyclic ? value : low,
      adds: param.cyclic ?? high - low,
      count: 4,
      way: 'ease',
      rest: 10,
      returns: param.cyclic ? 'on' : 'back',
    };
  },
  prepare(s) {
    const back = s.returns === 'back';
    // Down takes as many steps as up, so a loop that returns has an even number.
    const count = back ? 2 * Math.max(1, Math.round(s.count / 2)) : s.count;
    const up = back ? count / 2 : count;
    const each = s.adds / up;
    const rest = s.rest / 100;
    const within = (p: number): { value: number; slope: number } => {
      if (s.way === 'hold') return { value: 0, slope: 0 };
      const x = p / (1 - rest);
      if (x >= 1) return { value: 1, slope: 0 };
      const { value, slope } = cubicBezier(...WAYS[s.way], x);
      return { value, slope: slope / (1 - rest) };
    };
    const at = (p: number): { value: number; slope: number } => {
      const step = Math.min(count - 1, Math.floor(p * count));
      const { value, slope } = within(p * count - step);
      const down = back && step >= up;
      const height = down ? count - step : step;
      return {
        value: s.from + each * (height + (down ? -value : value)),
        slope: (down ? -1 : 1) * each * count * slope,
      };
    };
    return {
      course: { ...closedCourse(undefined, true), adds: back ? 0 : s.adds },
      base: (clock) => at(splitTime(clock).frame / clock.frames).value,
      speed: (clock) => at(splitTime(clock).frame / clock.frames).slope / clock.frames,
    };
  },
});
