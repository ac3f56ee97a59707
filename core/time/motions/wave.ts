import { choice, curve, number } from '../../declare/params';
import { drawnCurve } from '../drawn';
import { closedCourse, defineMotion, swingAround, WHOLE } from '../motion';
import type { Clock } from '../loop';
import { fract, phaseOf, splitTime } from '../phase';
import { toRational } from '../../maths/rational';
import { turnWords, wholeTurnsNear } from '../closing';
import { fadeWindow } from '../window';

interface Shape {
  /** One cycle: p in [0, 1) → 0…1. */
  readonly value: (p: number, width: number) => number;
  /** Its slope per cycle; at a jump, the one from the right. */
  readonly slope: (p: number, width: number) => number;
}

const TURN = 2 * Math.PI;

/** Textbook wave forms, all from 0 to 1. Smooth step is 3x² − 2x³ up and down again. */
const shapes: Record<'sine' | 'cosine' | 'triangle' | 'saw' | 'pulse' | 'smoothstep' | 'bounce', Shape> = {
  sine: { value: (p) => 0.5 + 0.5 * Math.sin(TURN * p), slope: (p) => Math.PI * Math.cos(TURN * p) },
  cosine: { value: (p) => 0.5 + 0.5 * Math.cos(TURN * p), slope: (p) => -Math.PI * Math.sin(TURN * p) },
  triangle: {
    value: (p) => (p < 0.25 ? 0.5 + 2 * p : p < 0.75 ? 1.5 - 2 * p : 2 * p - 1.5),
    slope: (p) => (p < 0.25 || p >= 0.75 ? 2 : -2),
  },
  saw: { value: (p) => p, slope: () => 1 },
  pulse: { value: (p, width) => (p < width ? 1 : 0), slope: () => 0 },
  smoothstep: {
    value: (p) => {
      const x = p < 0.5 ? 2 * p : 2 - 2 * p;
      return x * x * (3 - 2 * x);
    },
    slope: (p) => {
      const x = p < 0.5 ? 2 * p : 2 - 2 * p;
      return (p < 0.5 ? 12 : -12) * x * (1 - x);
    },
  },
  bounce: { value: (p) => Math.sin(Math.PI * p), slope: (p) => Math.PI * Math.cos(Math.PI * p) },
};

/** Forms with corners or jumps of their own. */
const SHARP = new Set<string>(['triangle', 'saw', 'pulse', 'bounce']);

/** Default of a drawn cycle: a swell with a shoulder. */
export const DRAWN: readonly number[] = [
  0, 0.06, 0.2, 0.42, 0.68, 0.9, 1, 0.96, 0.84, 0.72, 0.64, 0.6, 0.52, 0.36, 0.18, 0.05,
];

/** A periodic function between low and high: textbook wave forms, never clamped. */
export const wave = defineMotion({
  kind: 'wave',
  title: 'Wave',
  help: 'Swings between Low and High a number of times per loop.',
  ofValue: { low: 'value', high: 'value' },
  turns: true,
  closing: (motion, _, course) =>
    wholeTurnsNear(course.turns).map((k) => ({
      words: turnWords(k),
      motion: { ...motion, turns: k / (motion.timing?.times ?? 1) },
    })),
  params: {
    shape: choice(
      'Shape',
      'sine',
      [
        { value: 'sine', title: 'Sine' },
        { value: 'cosine', title: 'Cosine' },
        { value: 'triangle', title: 'Triangle' },
        { value: 'saw', title: 'Saw' },
        { value: 'pulse', title: 'Pulse' },
        { value: 'smoothstep', title: 'Smooth step' },
        { value: 'bounce', title: 'Bounce' },
        { value: 'drawn', title: 'Drawn' },
      ],
      'The form of one cycle.',
    ),
    width: number('Width', 50, 'Share of the cycle that a pulse is high.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
      moves: false,
      shownWhen: { param: 'shape', is: ['pulse'] },
    }),
    drawn: curve('Drawn', DRAWN, 'One cycle, drawn by hand.', { shownWhen: { param: 'shape', is: ['drawn'] } }),
    low: number('Low', 0, 'The lowest value it reaches.', { moves: false }),
    high: number('High', 1, 'The highest value it reaches.', { moves: false }),
    turns: number('Turns', 1, 'Whole cycles per loop. A fraction does not close.', {
      perLoop: 1,
      unit: 'turns',
      min: -1000,
      max: 1000,
      soft: [0, 12],
      step: 1,
      moves: false,
    }),
    phase: number('Phase', 0, 'How far into the cycle the loop starts.', {
      unit: 'turns',
      min: -1000,
      max: 1000,
      soft: [0, 1],
      step: 0.01,
      moves: false,
    }),
    rest: number('Rest', 0, 'Share of the loop around the seam in which it rests at Low; it eases in and out.', {
      unit: '%',
      min: 0,
      max: 95,
      soft: [0, 90],
      step: 1,
      moves: false,
    }),
  },
  start: (value, param) => ({ shape: 'sine', width: 50, ...swingAround(value, param), turns: 1, phase: 0, rest: 0 }),
  prepare(s) {
    const turns = toRational(s.turns);
    const perTurn = turns.num / turns.den;
    const shape = s.shape === 'drawn' ? drawnCurve(s.drawn ?? DRAWN) : shapes[s.shape];
    const width = s.width / 100;
    const { low, phase } = s;
    const span = s.high - low;
    const rest = s.rest / 100;
    const course = closedCourse(rest > 0 ? WHOLE : turns, SHARP.has(s.shape));
    const at = (clock: Clock) => fract(phaseOf(turns, clock) + phase);
    if (rest > 0)
      // A wave that rests at the seam closes whatever it does in between.
      return {
        course,
        base(clock) {
          const inside = { frame: splitTime(clock).frame, frames: clock.frames };
          return low + span * shape.value(at(inside), width) * fadeWindow(rest, inside).value;
        },
        speed(clock) {
          const inside = { frame: splitTime(clock).frame, frames: clock.frames };
          const p = at(inside);
          const w = fadeWindow(rest, inside);
          return span * ((shape.slope(p, width) * perTurn * w.value) / clock.frames + shape.value(p, width) * w.slope);
        },
      };
    return {
      course,
      base: (clock) => low + span * shape.value(at(clock), width),
      speed: (clock) => (span * shape.slope(at(clock), width) * perTurn) / clock.frames,
    };
  },
});
