import { choice, number } from '../../declare/params';
import { defineMotion, swingAround } from '../motion';
import { fract, phaseOf } from '../phase';
import { toRational } from '../rational';

/** One cycle of each shape: p in [0, 1) → 0…1, and its slope per cycle. */
const shapes = {
  sine: {
    value: (p: number) => 0.5 + 0.5 * Math.sin(2 * Math.PI * p),
    slope: (p: number) => Math.PI * Math.cos(2 * Math.PI * p),
  },
  triangle: {
    value: (p: number) => (p < 0.25 ? 0.5 + 2 * p : p < 0.75 ? 1.5 - 2 * p : 2 * p - 1.5),
    slope: (p: number) => (p < 0.25 || p >= 0.75 ? 2 : -2),
  },
  saw: { value: (p: number) => p, slope: () => 1 },
  pulse: { value: (p: number) => (p < 0.5 ? 1 : 0), slope: () => 0 },
} as const;

/** A periodic function between low and high: textbook wave forms, no clamping anywhere. */
export const wave = defineMotion({
  kind: 'wave',
  title: 'Wave',
  help: 'Swings between low and high, a number of times round the loop.',
  params: {
    shape: choice(
      'Shape',
      'sine',
      [
        { value: 'sine', title: 'Sine' },
        { value: 'triangle', title: 'Triangle' },
        { value: 'saw', title: 'Saw' },
        { value: 'pulse', title: 'Pulse' },
      ],
      'The form of one cycle.',
    ),
    low: number('Low', 0, 'The lowest value it reaches.', { moves: false }),
    high: number('High', 1, 'The highest value it reaches.', { moves: false }),
    turns: number('Turns', 1, 'Whole cycles per loop. A fraction does not close.', {
      unit: 'turns', min: -1000, max: 1000, soft: [0, 12], step: 1, moves: false,
    }),
    phase: number('Phase', 0, 'How far into the cycle the loop starts.', {
      unit: 'turns', min: -1000, max: 1000, soft: [0, 1], step: 0.01, moves: false,
    }),
  },
  start: (value, param) => ({ shape: 'sine', ...swingAround(value, param), turns: 1, phase: 0 }),
  evaluate(s, clock) {
    const p = fract(phaseOf(toRational(s.turns), clock) + s.phase);
    return s.low + (s.high - s.low) * shapes[s.shape].value(p);
  },
  derivative(s, clock) {
    const p = fract(phaseOf(toRational(s.turns), clock) + s.phase);
    return ((s.high - s.low) * shapes[s.shape].slope(p) * s.turns) / clock.frames;
  },
  turns: (s) => toRational(s.turns),
});
