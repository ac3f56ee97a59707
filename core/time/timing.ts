import type { Course, Prepared, TimingDoc } from './motion';
import type { Clock } from './loop';
import { cyclesGone, fract, splitTime } from './phase';
import { gcd, rational } from '../maths/rational';

/** Smoothstep of x in 0…1 and its slope: 3x² − 2x³. */
function smooth(x: number): [number, number] {
  return [x * x * (3 - 2 * x), 6 * x * (1 - x)];
}

/** Position 0…1 after the rest at the seam, and its slope. */
function rested(p: number, rest: number): [number, number] {
  if (rest <= 0) return [p, 1];
  const x = (p - rest / 2) / (1 - rest);
  if (x <= 0) return [0, 0];
  if (x >= 1) return [1, 0];
  const [v, d] = smooth(x);
  return [v, d / (1 - rest)];
}

/** There and back: 0 → 1 → 0 at even speed, or eased by a cosine. */
function back(p: number, eased: boolean): [number, number] {
  if (eased) return [0.5 - 0.5 * Math.cos(2 * Math.PI * p), Math.PI * Math.sin(2 * Math.PI * p)];
  return p < 0.5 ? [2 * p, 2] : [2 - 2 * p, -2];
}

/**
 * Lays a motion over the loop: first a delay, then a rest at the seam, then repetition and direction. There and back
 * always closes.
 */
export function withTiming(inner: Prepared, timing: TimingDoc | undefined): Prepared {
  const shift = timing?.shift ?? 0;
  const rest = timing?.rest ?? 0;
  const times = timing?.times ?? 1;
  const way = timing?.way ?? 'on';
  if (shift === 0 && rest === 0 && times === 1 && way === 'on') return inner;
  const returns = way === 'there' || way === 'sway';
  const sign = way === 'back' ? -1 : 1;
  const { course } = inner;
  const q = course.turns.den;
  // At k times the speed, q loops of the motion take q / gcd(q, k) loops of the piece.
  const g = gcd(q, times);
  const periods = times / g;
  const turns = returns ? rational(times) : rational(sign * course.turns.num * (times / g), q / g);
  const outer: Course = {
    ...course,
    turns,
    adds: returns ? 0 : sign * course.adds * periods,
    open: course.open && !returns,
    sharp: course.sharp || way === 'there',
  };
  const period = q / g;

  const warp = (clock: Clock): { clock: Clock; rate: number } => {
    const { frames } = clock;
    const at = splitTime(clock);
    // A delay of `shift` reads the motion earlier. The fraction of a loop stays apart from whole loops.
    const u = at.frame / frames - shift;
    const whole = Math.floor(u);
    const cycles = at.cycles + whole;
    const [p, dp] = rested(fract(u), rest);
    if (returns) {
      const [v, dv] = back(fract(times * p), way === 'sway');
      return { clock: { frame: v * frames, frames }, rate: dv * times * dp };
    }
    return {
      clock: { frame: sign * times * p * frames, frames, loops: sign * times * cycles },
      rate: sign * times * dp,
    };
  };
  return {
    course: outer,
    base(clock) {
      const inside = warp(clock).clock;
      const value = inner.base(inside);
      if (course.adds === 0 || course.open) return value;
      const gone = cyclesGone(inside, q);
      return value + course.adds * (returns ? gone : gone - sign * periods * cyclesGone(clock, period));
    },
    speed(clock) {
      const { clock: inside, rate } = warp(clock);
      return rate === 0 ? 0 : rate * inner.speed(inside);
    },
  };
}
